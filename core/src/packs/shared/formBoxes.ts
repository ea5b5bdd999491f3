import type { CarriedBox, FormulaBox, SumBox, TaxedBox, TypedBox } from "../../model/returnForm.ts";

type Rounding = SumBox["rounding"];

export const CENTS: Rounding = { mode: "half-up", step: 1 };
/** Whole units, the rest left out. */
export const WHOLE_CUT: Rounding = { mode: "down", step: 100 };
/** Whole units, half up. */
export const WHOLE_NEAREST: Rounding = { mode: "half-up", step: 100 };

interface More {
  rounding?: Rounding;
  holds?: "tax" | "value";
  short?: string;
  words?: string;
  part?: string;
  helper?: boolean;
  members?: readonly string[];
  /** Why it should be looked up before it is relied on. */
  doubt?: string;
}

/** A box that sums what is tagged with it. */
export function sum(id: string, title: string, more: More & { negativeTo?: string } = {}): SumBox {
  const { negativeTo, ...rest } = more;
  return { ...common(id, title, rest), kind: "sum", ...(negativeTo === undefined ? {} : { negativeTo }) };
}

/** A box worked out from others. */
export function computed(id: string, title: string, formula: string, more: More = {}): FormulaBox {
  return { ...common(id, title, more), kind: "formula", formula };
}

/** A box typed in with a reason. */
export function typedIn(id: string, title: string, more: More = {}): TypedBox {
  return { ...common(id, title, more), kind: "typed" };
}

/** A box that takes over box `of` of the period before. */
export function carried(id: string, title: string, of: string, more: More = {}): CarriedBox {
  return { ...common(id, title, more), kind: "carried", of };
}

/** A box that is the tax on another one, rate by rate. */
export function taxed(id: string, title: string, of: string, schedule: string, more: More = {}): TaxedBox {
  return { ...common(id, title, more), kind: "taxed", of, schedule };
}

function common(id: string, title: string, more: More) {
  return {
    id,
    title,
    short: more.short ?? title,
    holds: more.holds ?? ("tax" as const),
    rounding: more.rounding ?? CENTS,
    words: more.words ?? `${title}.`,
    ...(more.members === undefined ? {} : { members: more.members }),
    ...(more.part === undefined ? {} : { part: more.part }),
    ...(more.doubt === undefined ? {} : { doubt: more.doubt }),
    ...(more.helper === undefined ? {} : { helper: more.helper }),
  };
}
