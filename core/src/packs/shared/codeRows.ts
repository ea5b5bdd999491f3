import type { BaseSpec, Boxes, Component, RateSchedules, RateSpec, TaxCode } from "../../model/taxCode.ts";

/** A code of a jurisdiction with one levy, as a row of its table. */
export interface CodeRow
  extends
    Pick<TaxCode, "code" | "name" | "direction" | "treatment" | "source">,
    Partial<
      Pick<
        TaxCode,
        "supply" | "from" | "to" | "note" | "doubt" | "amountIs" | "inputs" | "variants" | "order"
      >
    > {
  /** Schedule of the rate; `typed` where the tax is the figure on a document; left out where there is no tax. */
  schedule?: string;
  formula?: string;
  formulaBase?: string;
  base?: BaseSpec;
  charged?: Component["charged"];
  recoverable?: string;
  sale?: Boxes;
  purchase?: Boxes;
  saleCredit?: Boxes;
  purchaseCredit?: Boxes;
}

/** Turns rows into tax codes that bear one levy. */
export function codesOfLevy(pack: string, levy: string, rows: readonly CodeRow[]): TaxCode[] {
  return rows.map((row) => ({
    ...headOf(pack, row),
    components: [component(pack, levy, row)],
  }));
}

/** Everything of a code but its components. */
export function headOf(pack: string, row: Omit<CodeRow, "schedule">): Omit<TaxCode, "components"> {
  return {
    code: row.code,
    name: row.name,
    direction: row.direction,
    supply: row.supply ?? "both",
    treatment: row.treatment,
    from: row.from ?? null,
    to: row.to ?? null,
    note: row.note ?? "",
    source: row.source,
    pack,
    ...(row.doubt === undefined ? {} : { doubt: row.doubt }),
    ...(row.amountIs === undefined ? {} : { amountIs: row.amountIs }),
    ...(row.inputs === undefined ? {} : { inputs: row.inputs }),
    ...(row.variants === undefined ? {} : { variants: row.variants }),
    ...(row.order === undefined ? {} : { order: row.order }),
  };
}

function component(pack: string, levy: string, row: CodeRow): Component {
  return {
    levy,
    rate: rateOf(pack, row),
    ...(row.base === undefined ? {} : { base: row.base }),
    partOfLaterBases: false,
    charged: row.charged ?? "charged",
    recoverable: row.recoverable ?? "100",
    boxes: {
      ...(row.sale === undefined ? {} : { sale: row.sale }),
      ...(row.purchase === undefined ? {} : { purchase: row.purchase }),
      ...(row.saleCredit === undefined ? {} : { saleCredit: row.saleCredit }),
      ...(row.purchaseCredit === undefined ? {} : { purchaseCredit: row.purchaseCredit }),
    },
  };
}

function rateOf(pack: string, { schedule, formula, formulaBase }: CodeRow): RateSpec {
  if (formula !== undefined) {
    const named = (text: string) => text.replace(/\{(\w+)\}/g, `{${pack}.$1}`);
    return {
      kind: "formula",
      formula: named(formula),
      ...(formulaBase === undefined ? {} : { base: named(formulaBase) }),
    };
  }
  if (schedule === undefined) return { kind: "none" };
  return schedule === "typed" ? { kind: "typed" } : { kind: "percent", schedule: `${pack}.${schedule}` };
}

/** Schedules under the names by which the whole application knows them: `gb.STD`. */
export function schedulesOf(pack: string, schedules: RateSchedules): RateSchedules {
  return Object.fromEntries(Object.entries(schedules).map(([id, rows]) => [`${pack}.${id}`, rows]));
}

/** Names of schedules under the names by which the whole application knows these. */
export function namesOf(pack: string, names: Readonly<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(Object.entries(names).map(([id, name]) => [`${pack}.${id}`, name]));
}
