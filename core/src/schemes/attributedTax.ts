import { at } from "../at.ts";
import { addMonths, endOfMonth } from "../calendar/date.ts";
import type { FilingPeriod } from "../calendar/filingPeriods.ts";

/** Tax on purchases by what it serves, minor units. */
export interface AttributedTax {
  levy: string;
  /** Deducted in full, because it serves taxable supplies. */
  direct: number;
  /** On what serves exempt supplies only, and what of it its codes do not deduct. */
  exempt: number;
  withheld: number;
  /** On what serves both. */
  residual: number;
}

/** A filing period with what a percentage is worked out from. */
export interface AttributedPeriod extends FilingPeriod {
  taxable: number;
  exempt: number;
  taxes: readonly AttributedTax[];
}

/** The figures of some time. */
export type AttributedTotals = Omit<AttributedPeriod, "from" | "to">;

/** The figures of some periods as one. */
export function together(periods: readonly AttributedPeriod[]): AttributedTotals {
  const taxes = new Map<string, AttributedTax>();
  for (const one of periods.flatMap((period) => period.taxes)) {
    const before = taxes.get(one.levy);
    taxes.set(one.levy, {
      levy: one.levy,
      direct: one.direct + (before?.direct ?? 0),
      exempt: one.exempt + (before?.exempt ?? 0),
      withheld: one.withheld + (before?.withheld ?? 0),
      residual: one.residual + (before?.residual ?? 0),
    });
  }
  return {
    taxable: periods.reduce((sum, { taxable }) => sum + taxable, 0),
    exempt: periods.reduce((sum, { exempt }) => sum + exempt, 0),
    taxes: [...taxes.values()],
  };
}

/** The periods that end in so many months up to the end of the last of some. */
export function lastMonths(
  periods: readonly AttributedPeriod[],
  of: readonly AttributedPeriod[],
  count: number,
): AttributedPeriod[] {
  const end = at(of, of.length - 1).to;
  const before = endOfMonth(addMonths(end, -count));
  return periods.filter(({ to }) => before < to && to <= end);
}

/** A part of the tax, of all levies. */
export function sumOf({ taxes }: AttributedTotals, part: "direct" | "exempt" | "residual"): number {
  return taxes.reduce((sum, tax) => sum + tax[part], 0);
}
