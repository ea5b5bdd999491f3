import { createHash } from "node:crypto";
import { FiscalError } from "@fiscalon/core/errors";
import type { AuditCheck } from "@fiscalon/contract/audit";
import { checkChain } from "../../base/checkChain.ts";
import { digestsIn } from "./digestsIn.ts";
import type { Work } from "../../base/work.ts";
import { sealedHash } from "../../books/returns/sealedHash.ts";
import type { Practice } from "../../practice/practice.ts";

/**
 * Walks every audit trail of a practice: its own, then that in the books of each client; and looks whether what was noted
 * of them in the folder of digests is still there.
 */
export async function checkPractice(practice: Practice, digests: string): Promise<AuditCheck> {
  const noted = digestsIn(practice.dataDir, digests);
  const work = await practice.begin();
  const own = await checkChain(work);
  const trails = [{ client: null as number | null, ...own }];
  await noted.compare(null, work);
  const returns: AuditCheck["returns"] = [];
  const unreadable: AuditCheck["unreadable"] = [];
  for (const { id } of await practice.clients()) {
    const looked = practice.inPassing(id, async (work) => {
      trails.push({ client: id, ...(await checkChain(work)) });
      await noted.compare(id, work);
      for (const period of await changedReturns(work)) returns.push({ client: id, period });
    });
    await looked.catch((error: unknown) => {
      if (!(error instanceof FiscalError)) throw error;
      unreadable.push({ client: id, why: error.message });
    });
  }
  const lasts = trails.map(({ client, last }) => `${client ?? "practice"} ${last}`).join("\n");
  return {
    entries: trails.reduce((sum, { entries }) => sum + entries, 0),
    broken: trails.flatMap(({ client, broken }) => (broken === null ? [] : [{ client, entry: broken }])),
    unreadable,
    returns,
    digests: noted.found(),
    last: createHash("sha256").update(lasts).digest("hex"),
  };
}

/** The ends of periods whose sealed return is not what was sealed. */
async function changedReturns(work: Work): Promise<string[]> {
  const changed: string[] = [];
  for (const { registrationId, periodEnd, boxes, hash } of await work.models.returns.findAll(work.options)) {
    if (hash === null || boxes === null) continue;
    if ((await sealedHash(work, registrationId, periodEnd, boxes)) !== hash) changed.push(periodEnd);
  }
  return changed;
}
