import type { RecordedRate } from "../model/document.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { LineTax } from "../model/pricedDocument.ts";
import type { RateRow, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { rowInForce } from "./rateInForce.ts";

/** Where a rate comes from that its schedule does not have any more. */
const SOURCE = "recorded with the document; the schedule was corrected since";

interface Rated {
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
}

/**
 * What a tax was worked out with beside the percentage of its levy, by schedule: an amount by unit or document, rates in
 * a formula, the limit of what is deducted. Null where there is nothing.
 */
export function ratesBeside(
  tax: Pick<LineTax, "component" | "rate" | "figures" | "cap">,
): Record<string, string> | null {
  const { rate, cap } = tax.component;
  const named =
    rate.kind === "formula"
      ? [...parseFormula(rate.formula).rates, ...parseFormula(rate.base ?? "0").rates]
      : [];
  const beside = Object.fromEntries([
    ...named.flatMap((id) => (tax.figures[id] === undefined ? [] : [[id, tax.figures[id]]])),
    ...((rate.kind === "per-unit" || rate.kind === "per-document") && tax.rate !== null
      ? [[rate.schedule, tax.rate]]
      : []),
    ...(cap && tax.cap ? [[cap.schedule, tax.cap.limit]] : []),
  ]) as Record<string, string>;
  return Object.keys(beside).length === 0 ? null : beside;
}

/** Those of the recorded rates that the schedules do not have on their day any more. */
export function ratesLeft(
  { codes, schedules }: Rated,
  recorded: readonly RecordedRate[],
): readonly RecordedRate[] {
  return recorded.filter((one) =>
    schedulesOf(codes, one).some((id) => rowInForce(schedules[id], one.on)?.rate !== one.rate),
  );
}

/**
 * The schedules with the rates that were recorded: what was declared stays as it was, so its paper, its trail and what
 * takes it back do, too.
 * @returns the same schedules where they say nothing else
 */
export function schedulesAsRecorded(rated: Rated, recorded: readonly RecordedRate[] = []): RateSchedules {
  const { codes, schedules } = rated;
  const rows: Record<string, readonly RateRow[]> = {};
  for (const one of ratesLeft(rated, recorded))
    for (const id of schedulesOf(codes, one))
      rows[id] = [
        { from: one.on, to: one.on, rate: one.rate, source: SOURCE },
        ...(rows[id] ?? schedules[id] ?? []),
      ];
  return Object.keys(rows).length === 0 ? schedules : { ...schedules, ...rows };
}

function schedulesOf(codes: ReadonlyMap<string, TaxCode>, { code, levy, schedule }: RecordedRate): string[] {
  if (schedule !== undefined) return [schedule];
  return (codes.get(code)?.components ?? []).flatMap(({ levy: own, rate }) =>
    own === levy && rate.kind === "percent" ? [rate.schedule] : [],
  );
}
