import type { CapitalItems, CapitalKind } from "../../model/capitalItem.ts";
import type { SignedBox } from "../../model/attribution.ts";

const signed = (text: string): SignedBox => ({ box: text.slice(1), sign: text.startsWith("-") ? -1 : 1 });

/** A kind of item whose cost without tax decides. */
export function byCost(id: string, name: string, years: number, from: number): CapitalKind {
  return { id, name, years, from, of: "net" };
}

/** Boxes of a levy, written as a sign and the box: `-4`. */
export function adjusted(more: string, less: string): CapitalItems["boxes"][string] {
  return { more: signed(more), less: signed(less) };
}
