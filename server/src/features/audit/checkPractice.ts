import { createHash } from "node:crypto";
import type { AuditCheck } from "@fiscalon/contract/audit";
import { checkChain } from "../../base/checkChain.ts";
import type { Practice } from "../../practice/practice.ts";

/** Walks every audit trail of a practice: its own, then that in the books of each client. */
export async function checkPractice(practice: Practice): Promise<AuditCheck> {
  const own = await checkChain(await practice.begin());
  const trails = [{ client: null as number | null, ...own }];
  for (const { id } of await practice.clients())
    trails.push({ client: id, ...(await practice.onClient(id, (work) => checkChain(work))) });
  const lasts = trails.map(({ client, last }) => `${client ?? "practice"} ${last}`).join("\n");
  return {
    entries: trails.reduce((sum, { entries }) => sum + entries, 0),
    broken: trails.flatMap(({ client, broken }) => (broken === null ? [] : [{ client, entry: broken }])),
    last: createHash("sha256").update(lasts).digest("hex"),
  };
}
