import type jsep from "jsep";
import { FiscalError } from "../errors.ts";
import { add, compare, divide, exactFromDecimal, multiply, negate, subtract, ZERO } from "../money/exact.ts";
import type { Exact } from "../money/exact.ts";
import type { Formula } from "./parseFormula.ts";

/** Where a formula finds its figures, all in major units; undefined where there is none. */
export interface FormulaScope {
  box?: (id: string) => Exact | undefined;
  rate?: (schedule: string) => Exact | undefined;
  name?: (name: string) => Exact | undefined;
}

const ONE: Exact = { n: 1n, d: 1n };

/**
 * Works a formula out, exactly: no rounding happens here. Comparisons give 1 or 0.
 * @throws FiscalError `formula/unknown-name` naming what is missing, `money/division-by-zero`
 */
export function evaluateFormula(formula: Formula, scope: FormulaScope): Exact {
  return valueOf(formula.tree, scope, formula.text);
}

function valueOf(node: jsep.Expression, scope: FormulaScope, text: string): Exact {
  const value = (child: unknown) => valueOf(child as jsep.Expression, scope, text);
  switch (node.type) {
    case "Literal":
      return exactFromDecimal(String(node["raw"]));
    case "Identifier":
      return known(scope.name?.(String(node["name"])), String(node["name"]), text);
    case "UnaryExpression":
      return node["operator"] === "-" ? negate(value(node["argument"])) : value(node["argument"]);
    case "ConditionalExpression":
      return value(node["test"]).n !== 0n ? value(node["consequent"]) : value(node["alternate"]);
    case "BinaryExpression":
      return operation(String(node["operator"]), value(node["left"]), () => value(node["right"]));
    default:
      return called(node as jsep.CallExpression, scope, text, value);
  }
}

function operation(operator: string, left: Exact, right: () => Exact): Exact {
  switch (operator) {
    case "+":
      return add(left, right());
    case "-":
      return subtract(left, right());
    case "*":
      return multiply(left, right());
    case "/":
      return divide(left, right());
    case "&&":
      return truth(left.n !== 0n && right().n !== 0n);
    case "||":
      return truth(left.n !== 0n || right().n !== 0n);
    default:
      return truth(compares(operator, compare(left, right())));
  }
}

function compares(operator: string, order: number): boolean {
  switch (operator) {
    case "<":
      return order < 0;
    case ">":
      return order > 0;
    case "<=":
      return order <= 0;
    case ">=":
      return order >= 0;
    case "==":
      return order === 0;
    default:
      return order !== 0;
  }
}

function called(
  node: jsep.CallExpression,
  scope: FormulaScope,
  text: string,
  value: (child: unknown) => Exact,
): Exact {
  const name = String(node.callee["name"]);
  const id = String(node.arguments[0]?.["value"]);
  if (name === "box") return known(scope.box?.(id), `box ${id}`, text);
  if (name === "rate") return known(scope.rate?.(id), `the rate ${id}`, text);
  const values = node.arguments.map(value);
  const first = values[0] ?? ZERO;
  if (name === "abs") return first.n < 0n ? negate(first) : first;
  const wanted = name === "min" ? -1 : 1;
  return values.reduce((best, one) => (compare(one, best) === wanted ? one : best), first);
}

function known(value: Exact | undefined, name: string, text: string): Exact {
  if (value) return value;
  throw new FiscalError(
    "formula/unknown-name",
    `"${text}" needs ${name}, and there is none here.`,
    undefined,
    {
      name,
    },
  );
}

function truth(holds: boolean): Exact {
  return holds ? ONE : ZERO;
}
