import type { StationCounts } from "@fiscalon/contract/returns";
import type { Work } from "../../base/work.ts";
import { findingsOf } from "../../books/findings/service.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { isOpen, returnRecord } from "../../books/returns/records.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { controlAgreement } from "../../books/agree/controlAgreement.ts";

/** How far each station is with a period: counts only, so that the frame waits for no screen. */
export async function stationCounts(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<StationCounts> {
  const period = periodEnding(r, end);
  const record = await returnRecord(work, r.id, end);
  const { boxes, factCount } = await boxesNow(work, r, end);
  const findings = isOpen(record) ? await findingsOf(work, setup, r, period, boxes) : [];
  const open = findings.filter(({ accepted }) => accepted === null);
  const { left } = await controlAgreement(work, setup, r, end);
  return {
    lines: record?.facts ?? factCount,
    findings: open.length,
    stops: open.filter(({ severity }) => severity === "stop").length,
    left,
  };
}
