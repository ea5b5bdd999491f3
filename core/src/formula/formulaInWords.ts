import type jsep from "jsep";
import { parseFormula } from "./parseFormula.ts";

/** How boxes, rates and names of a formula are called. */
export interface FormulaNames {
  box: (id: string) => string;
  rate: (schedule: string) => string;
  name: (name: string) => string;
}

const SIGNS: Readonly<Record<string, string>> = {
  "-": "−",
  "*": "×",
  "/": "÷",
  "<=": "≤",
  ">=": "≥",
  "==": "=",
  "!=": "≠",
  "&&": "and",
  "||": "or",
};
/** What binds closer stands further down. */
const ORDER = [["||"], ["&&"], ["==", "!=", "<", ">", "<=", ">="], ["+", "-"], ["*", "/"]];
const closeness = (operator: string) => ORDER.findIndex((level) => level.includes(operator));

/**
 * A formula as one reads it aloud: `abs([3] - [4])` is "box 3 − box 4, without its sign", `max([A], 0)` is "A, at
 * least 0", a rate in percent divided by a hundred is that rate.
 * @throws FiscalError as parseFormula
 */
export function formulaInWords(text: string, names: FormulaNames): string {
  return said(parseFormula(text).tree, names, -1);
}

function said(node: jsep.Expression, names: FormulaNames, within: number): string {
  const child = (one: unknown, level: number) => said(one as jsep.Expression, names, level);
  switch (node.type) {
    case "Literal":
      return String(node["raw"]);
    case "Identifier":
      return names.name(String(node["name"]));
    case "UnaryExpression":
      return node["operator"] === "-"
        ? `−${child(node["argument"], ORDER.length)}`
        : child(node["argument"], within);
    case "ConditionalExpression":
      return bracketed(
        `${child(node["consequent"], 0)} where ${child(node["test"], 0)}, otherwise ${child(node["alternate"], -1)}`,
        within >= 0,
      );
    case "BinaryExpression":
      return operation(node, names, within);
    default:
      return called(node as jsep.CallExpression, names, within);
  }
}

function operation(node: jsep.Expression, names: FormulaNames, within: number): string {
  const operator = String(node["operator"]);
  const [left, right] = [node["left"] as jsep.Expression, node["right"] as jsep.Expression];
  const rate = operator === "/" && right["raw"] === "100" ? rateOf(left, names) : undefined;
  if (rate !== undefined) return `${rate} %`;
  const product = operator === "/" && right["raw"] === "100" && left["operator"] === "*" ? left : undefined;
  const last = product ? rateOf(product["right"] as jsep.Expression, names) : undefined;
  const level = closeness(operator);
  if (product && last !== undefined)
    return bracketed(`${said(product["left"] as jsep.Expression, names, level)} × ${last} %`, level < within);
  const words = `${said(left, names, level)} ${SIGNS[operator] ?? operator} ${said(right, names, level + 1)}`;
  return bracketed(words, level < within);
}

/** The rate a part of a formula is, by name; undefined where it is something else. */
function rateOf(node: jsep.Expression, names: FormulaNames): string | undefined {
  if (node.type !== "CallExpression") return undefined;
  const { callee, arguments: given } = node as jsep.CallExpression;
  return callee["name"] === "rate" ? names.rate(String(given[0]?.["value"])) : undefined;
}

function called(node: jsep.CallExpression, names: FormulaNames, within: number): string {
  const name = String(node.callee["name"]);
  const id = String(node.arguments[0]?.["value"]);
  if (name === "box" && id.endsWith("?")) return `${names.box(id.slice(0, -1))} is filled in`;
  if (name === "box") return names.box(id);
  if (name === "rate") return names.rate(id);
  const parts = node.arguments.map((one) => said(one, names, -1));
  const [first = ""] = parts;
  const nested = within >= 0;
  if (name === "abs") return bracketed(`${first}, without its sign`, nested);
  const bound = node.arguments.length === 2 && node.arguments[1]?.type === "Literal" ? parts[1] : undefined;
  if (bound !== undefined)
    return bracketed(`${first}, ${name === "max" ? "at least" : "at most"} ${bound}`, nested);
  return bracketed(`the ${name === "max" ? "largest" : "smallest"} of ${parts.join(", ")}`, nested);
}

function bracketed(words: string, needed: boolean): string {
  return needed ? `(${words})` : words;
}
