import jsep from "jsep";
import { FiscalError } from "../errors.ts";

/** What a formula may call. */
export const FUNCTIONS = ["min", "max", "abs"] as const;

const OPERATORS = new Set(["+", "-", "*", "/", "<", ">", "<=", ">=", "==", "!=", "&&", "||"]);
const LONGEST = 600;
const MOST_STEPS = 150;

/** A parsed formula: its tree, and the names it reads. Boxes keep their ids, rates the ids of their schedules. */
export interface Formula {
  text: string;
  tree: jsep.Expression;
  /** Box ids written in square brackets. */
  boxes: readonly string[];
  /** Ids of rate schedules written in braces. */
  rates: readonly string[];
  /** Plain names: `net`, `quantity`, inputs of a code. */
  names: readonly string[];
}

const parsed = new Map<string, Formula>();

/**
 * Reads a formula such as `max([T1] - [T2], 0)` or `net * {STD} / 100`: numbers, + − * /, comparisons,
 * `a ? b : c`, min, max, abs; boxes in square brackets, rates in force in braces. Amounts are in major units.
 * `[T9?]` is 1 where something was typed in box T9, also nil, and 0 where nothing was.
 * There are no loops and no more than 150 steps, so a formula always ends.
 * @throws FiscalError `formula/not-understood`, `formula/too-long`, `formula/not-allowed`
 * @example parseFormula("[3] - [4]").boxes // ["3", "4"]
 */
export function parseFormula(text: string): Formula {
  const known = parsed.get(text);
  if (known) return known;
  if (text.length > LONGEST) {
    throw new FiscalError("formula/too-long", `A formula has at most ${LONGEST} characters. Split it.`);
  }
  const found = { boxes: new Set<string>(), rates: new Set<string>(), names: new Set<string>() };
  const tree = treeOf(text);
  const steps = check(tree, found, text);
  if (steps > MOST_STEPS) {
    throw new FiscalError("formula/too-long", `"${text}" has more than ${MOST_STEPS} steps. Split it.`);
  }
  const formula = { text, tree, boxes: [...found.boxes], rates: [...found.rates], names: [...found.names] };
  parsed.set(text, formula);
  return formula;
}

/** Box and rate ids may hold dots and dashes, which are operators to the parser: they travel as calls. */
function treeOf(text: string): jsep.Expression {
  const prepared = text
    .replace(/\[([^\]"]+)\]/g, (_, id: string) => `box("${id.trim()}")`)
    .replace(/\{([^}"]+)\}/g, (_, id: string) => `rate("${id.trim()}")`);
  try {
    return jsep(prepared);
  } catch (error) {
    const reason = error instanceof Error ? error.message : "";
    throw new FiscalError(
      "formula/not-understood",
      `"${text}" is not a formula: ${reason}. Write it like [1] + [2].`,
    );
  }
}

function check(
  node: jsep.Expression,
  found: { boxes: Set<string>; rates: Set<string>; names: Set<string> },
  text: string,
): number {
  const below = (...nodes: unknown[]) =>
    1 + nodes.reduce((sum: number, one) => sum + check(one as jsep.Expression, found, text), 0);
  switch (node.type) {
    case "Literal":
      if (typeof node["value"] === "number") return 1;
      break;
    case "Identifier":
      found.names.add(String(node["name"]));
      return 1;
    case "UnaryExpression":
      if (node["operator"] === "-" || node["operator"] === "+") return below(node["argument"]);
      break;
    case "BinaryExpression":
      if (OPERATORS.has(String(node["operator"]))) return below(node["left"], node["right"]);
      break;
    case "ConditionalExpression":
      return below(node["test"], node["consequent"], node["alternate"]);
    case "CallExpression":
      return checkCall(node as jsep.CallExpression, found, text, below);
  }
  throw new FiscalError(
    "formula/not-allowed",
    `"${text}" uses more than numbers, + − * /, comparisons, a ? b : c, ${FUNCTIONS.join(", ")}.`,
  );
}

function checkCall(
  node: jsep.CallExpression,
  found: { boxes: Set<string>; rates: Set<string> },
  text: string,
  below: (...nodes: unknown[]) => number,
): number {
  const name = node.callee.type === "Identifier" ? String(node.callee["name"]) : "";
  const [first] = node.arguments;
  if ((name === "box" || name === "rate") && first?.type === "Literal") {
    found[name === "box" ? "boxes" : "rates"].add(String(first["value"]).replace(/\?$/, ""));
    return 1;
  }
  if (FUNCTIONS.some((one) => one === name) && node.arguments.length > 0) return below(...node.arguments);
  throw new FiscalError(
    "formula/not-allowed",
    `"${text}" calls ${name || "something unnamed"}. There are ${FUNCTIONS.join(", ")}.`,
  );
}
