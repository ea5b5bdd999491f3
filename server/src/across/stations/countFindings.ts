import { found } from "@fiscalon/core/at";
import type { Work } from "../../base/work.ts";
import { findingsOf } from "../../books/findings/service.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { boxesNow } from "../../books/returns/evaluation.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { isOpen, returnRecord } from "../../books/returns/records.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReturnToFile } from "../../practice/findingCounts.ts";

/** What waits in a return: findings nobody accepted, and how many of them stop it. */
export interface Waiting {
  open: number;
  stops: number;
}

/** Counts the findings of a period; of one that is sealed none wait. */
export async function countFindings(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<Waiting> {
  if (!isOpen(await returnRecord(work, r.id, end))) return { open: 0, stops: 0 };
  const { boxes } = await boxesNow(work, r, end);
  const findings = await findingsOf(work, setup, r, periodEnding(r, end), boxes);
  const open = findings.filter(({ accepted }) => accepted === null);
  return { open: open.length, stops: open.filter(({ severity }) => severity === "stop").length };
}

/** The same for returns of several registrations, one after the other. */
export async function countFindingsOf(
  work: Work,
  client: number,
  returns: readonly ReturnToFile[],
): Promise<(ReturnToFile & Waiting)[]> {
  const counts = [];
  const setup = await loadSetup(work, client);
  for (const { registration, to } of returns) {
    const r = found(setup.registrations, ({ id }) => id === registration, `registration ${registration}`);
    counts.push({ registration, to, ...(await countFindings(work, setup, r, to)) });
  }
  return counts;
}
