import type { Work, Writing } from "../../base/work.ts";
import type { ReturnRecord } from "../../db/models.ts";

/** The record of a period's return; undefined as long as nothing but documents happened to it. */
export async function returnRecord(
  work: Work,
  registrationId: number,
  periodEnd: string,
): Promise<ReturnRecord | undefined> {
  const row = await work.models.returns.findOne({
    where: { registrationId, periodEnd },
    ...work.options,
  });
  return row ? (row.get({ plain: true }) as ReturnRecord) : undefined;
}

/** Whether a period can still change: nothing of it is sealed. */
export function isOpen(record: Pick<ReturnRecord, "state"> | undefined): boolean {
  return record === undefined || record.state === "open" || record.state === "in-review";
}

/** Creates or changes the record of a period's return. */
export async function saveReturn(
  work: Writing,
  key: { clientId: number; registrationId: number; periodFrom: string; periodEnd: string },
  change: Partial<ReturnRecord>,
): Promise<void> {
  const { registrationId, periodEnd } = key;
  const [count] = await work.models.returns.update(change, {
    where: { registrationId, periodEnd },
    ...work.options,
  });
  if (count === 0) await work.models.returns.create({ ...key, ...work.made, ...change }, work.options);
}

/** What a sealed return comes to. */
export function sealedNet({ net, periodEnd }: ReturnRecord): number {
  if (net === null) throw new RangeError(`The return to ${periodEnd} is sealed without what it comes to.`);
  return net;
}
