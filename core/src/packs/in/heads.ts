/**
 * A head of tax as a column of the returns. Of the levies of one supply a single head carries the value, so that it
 * is counted once: central tax inside a state, integrated tax across a border.
 */
export interface Head {
  column: "igst" | "cgst" | "sgst" | "cess";
  carriesValue: boolean;
}

export const HEADS = {
  cgst: { column: "cgst", carriesValue: true },
  sgst: { column: "sgst", carriesValue: false },
  igst: { column: "igst", carriesValue: true },
  cess: { column: "cess", carriesValue: false },
} as const satisfies Record<string, Head>;
