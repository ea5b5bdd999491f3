import type { StationCounts } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { returnRecord } from "../../books/returns/records.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { controlAgreement } from "../../books/agree/controlAgreement.ts";
import { countFindings } from "./countFindings.ts";

/** How far each station is with a period: counts only, so that the frame waits for no screen. */
export async function stationCounts(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<StationCounts> {
  const record = await returnRecord(work, r.id, end);
  const { factCount } = await boxesNow(work, r, end);
  const { open, stops } = await countFindings(work, setup, r, end);
  const { left } = await controlAgreement(work, setup, r, end);
  return {
    lines: record?.facts ?? factCount,
    findings: open,
    stops,
    left,
  };
}
