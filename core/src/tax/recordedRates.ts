import type { RecordedRate } from "../model/document.ts";
import type { RateRow, RateSchedules, TaxCode } from "../model/taxCode.ts";
import { rowInForce } from "./rateInForce.ts";

/** Where a rate comes from that its schedule does not have any more. */
const SOURCE = "recorded with the document; the schedule was corrected since";

interface Rated {
  codes: ReadonlyMap<string, TaxCode>;
  schedules: RateSchedules;
}

/** Those of the recorded rates that the schedules do not have on their day any more. */
export function ratesLeft(
  { codes, schedules }: Rated,
  recorded: readonly RecordedRate[],
): readonly RecordedRate[] {
  return recorded.filter(({ code, levy, on, rate }) =>
    schedulesBearing(codes.get(code), levy).some((id) => rowInForce(schedules[id], on)?.rate !== rate),
  );
}

/**
 * The schedules with the rates that were recorded: what was declared stays as it was, so its paper, its trail and what
 * takes it back do, too.
 * @param recorded percentages; rates by unit, and those within a formula, are not among them
 * @returns the same schedules where they say nothing else
 */
export function schedulesAsRecorded(rated: Rated, recorded: readonly RecordedRate[] = []): RateSchedules {
  const { codes, schedules } = rated;
  const rows: Record<string, readonly RateRow[]> = {};
  for (const { code, levy, on, rate } of ratesLeft(rated, recorded))
    for (const id of schedulesBearing(codes.get(code), levy))
      rows[id] = [{ from: on, to: on, rate, source: SOURCE }, ...(rows[id] ?? schedules[id] ?? [])];
  return Object.keys(rows).length === 0 ? schedules : { ...schedules, ...rows };
}

function schedulesBearing(code: TaxCode | undefined, levy: string): string[] {
  return (code?.components ?? []).flatMap(({ levy: own, rate }) =>
    own === levy && rate.kind === "percent" ? [rate.schedule] : [],
  );
}
