import type jsep from "jsep";
import type { Formula } from "../formula/parseFormula.ts";

/**
 * A formula that only adds and subtracts boxes, as its terms; null for any other. The absolute value of such a sum
 * has the terms of the sum.
 */
export function linearTerms(formula: Formula): { box: string; sign: 1 | -1 }[] | null {
  const terms: { box: string; sign: 1 | -1 }[] = [];
  return collect(inside(formula.tree), 1, terms) ? terms : null;
}

function inside(node: jsep.Expression): jsep.Expression {
  const call = node as jsep.CallExpression;
  const absolute = node.type === "CallExpression" && call.callee["name"] === "abs";
  return absolute ? (call.arguments[0] ?? node) : node;
}

function collect(node: jsep.Expression, sign: 1 | -1, terms: { box: string; sign: 1 | -1 }[]): boolean {
  const child = (one: unknown, own: 1 | -1) => collect(one as jsep.Expression, own, terms);
  const opposite = sign === 1 ? -1 : 1;
  if (node.type === "CallExpression") {
    const call = node as jsep.CallExpression;
    if (call.callee["name"] !== "box") return false;
    terms.push({ box: String(call.arguments[0]?.["value"]), sign });
    return true;
  }
  if (node.type === "UnaryExpression")
    return child(node["argument"], node["operator"] === "-" ? opposite : sign);
  if (node.type !== "BinaryExpression") return false;
  const operator = String(node["operator"]);
  if (operator !== "+" && operator !== "-") return false;
  return child(node["left"], sign) && child(node["right"], operator === "-" ? opposite : sign);
}
