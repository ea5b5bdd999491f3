import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord, ReturnRecord } from "../../db/models.ts";
import { loadSetup, registrationIn } from "../loadSetup.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { returnRecord, sealedNet } from "../returns/records.ts";
import { closingEntry } from "./closingEntry.ts";
import { insertTaxEntry } from "./taxEntry.ts";

/** Posts the closing entry of a filed period: the running tax accounts to zero, the net to what is due. */
export async function settleReturn(work: Work, clientId: number, rid: string, end: string): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const r = registrationIn(setup, rid);
    const record = await returnRecord(work, r.id, end);
    if (record?.state !== "filed") {
      throw new FiscalError(
        "settle/wrong-state",
        "A period is settled once it is filed. File the return first.",
      );
    }
    await postSettlement(work, setup, r, record);
  });
}

export async function postSettlement(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  record: ReturnRecord,
): Promise<void> {
  const postings = await closingEntry(work, setup, r, record.periodEnd, sealedNet(record));
  const entry = await insertTaxEntry(work, setup, r, {
    kind: "settlement",
    date: record.periodEnd,
    periodEnd: record.periodEnd,
    text: `${work.packs.levyNames(r.levies)} of the period to ${displayDate(record.periodEnd)}`,
    postings,
  });
  await work.models.returns.update(
    { state: "settled", settledAt: work.at, settledBy: work.person, settlementEntry: entry },
    { where: { id: record.id }, ...work.options },
  );
  await work.record({
    action: "settle",
    entity: "return",
    id: r.id,
    after: { period: record.periodEnd, entry },
  });
}
