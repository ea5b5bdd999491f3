import { FiscalError } from "@fiscalon/core/errors";
import { returnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { ReturnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { SeenBox } from "@fiscalon/contract/returns";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import type { Work, Writing } from "../../base/work.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import type { ReturnRecord } from "../../db/models.ts";
import { SIMULATED } from "../../outside/gateway.ts";
import type { Gateway, Receipt } from "../../outside/gateway.ts";
import { digitsOf, formOf } from "../../books/returns/evaluation.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { keepAnswer, keepSent, openFiling } from "../../books/returns/filings.ts";
import type { OpenFiling } from "../../books/returns/filings.ts";
import { returnRecord } from "../../books/returns/records.ts";
import { refuseMoved } from "../../books/returns/seenFigures.ts";

/** Returns that are on their way in this process; what has no answer and is not among them lost it. */
const sending = new Set<string>();

/**
 * Files a sealed return: sent where the authority takes it from here, otherwise noted under the reference that its
 * own pages gave.
 */
export async function fileReturn(
  work: Work,
  gateway: Gateway,
  clientId: number,
  rid: string,
  end: string,
  { reference, boxes: seen }: { reference: string; boxes?: readonly SeenBox[] },
): Promise<Receipt> {
  const setup = await loadSetup(work, clientId);
  const r = registrationIn(setup, rid);
  const period = periodEnding(r, end);
  const record = await returnRecord(work, r.id, end);
  if (record?.state !== "sealed" || !record.boxes) throw wrongState();
  refuseMoved(seen, record.boxes, digitsOf(work, r), "filed");
  if (!r.number) {
    throw new FiscalError(
      "returns/no-number",
      "The registration has no number yet. Add it under Set up, Places & registrations.",
    );
  }
  if (!work.packs.byId(r.pack).electronic) {
    const receipt = noted(reference);
    await work.write((work) => keepReceipt(work, record, receipt));
    return receipt;
  }
  const key = `${work.folder} ${r.id} ${end}`;
  if (sending.has(key)) throw new FiscalError("returns/wrong-state", "This return is being sent right now.");
  sending.add(key);
  try {
    return await sent(work, gateway, record, r.number, formOf(work, r, end), period);
  } finally {
    sending.delete(key);
  }
}

function wrongState(): FiscalError {
  return new FiscalError(
    "returns/wrong-state",
    "Only a sealed return that is not yet filed can be filed. Seal the period first.",
  );
}

/** The receipt of a return that was keyed into the authority's own pages. */
function noted(reference: string): Receipt {
  if (reference.trim() === "") {
    throw new FiscalError(
      "returns/no-reference",
      "Key the figures into the authority's pages, then enter the reference it gave.",
      "reference",
    );
  }
  return {
    receiptId: reference.trim(),
    formBundleNumber: "",
    processingDate: new Date().toISOString(),
    confirmedBy: "the reference of the authority's own pages",
  };
}

/**
 * Sends a sealed return to the authority. What is sent is kept first; where its answer was lost, in this try or in one
 * before, what the authority holds for the period is fetched and compared: the same figures count as filed, and where it
 * holds nothing, nothing was filed.
 */
async function sent(
  work: Work,
  gateway: Gateway,
  record: ReturnRecord,
  number: string,
  form: ReturnForm,
  { from, to }: { from: string; to: string },
): Promise<Receipt> {
  const before = await openFiling(work, record.registrationId, record.periodEnd);
  if (before) {
    const receipt = await askedFor(work, gateway, record, before);
    if (receipt) return receipt;
  }
  const body = returnBody(form, await gateway.periodKey(number, from, to), record.boxes ?? []);
  const id = await work.write(async (work) => {
    const now = await returnRecord(work, record.registrationId, record.periodEnd);
    if (now?.state !== "sealed" || now.hash !== record.hash) throw wrongState();
    return keepSent(work, record, number, body);
  });
  const outcome = await gateway.submit(number, body);
  if (outcome.kind === "accepted") return filed(work, record, id, outcome.receipt);
  if (outcome.kind === "refused" && outcome.code !== "DUPLICATE_SUBMISSION") {
    await work.write((work) => keepAnswer(work, id, "refused", outcome));
    throw new FiscalError(
      "authority/refused",
      `The authority refused the return: ${outcome.message} (${outcome.code})`,
    );
  }
  const filing = { id, number, periodKey: body.periodKey, body, at: work.at };
  const receipt = await askedFor(work, gateway, record, filing);
  if (receipt) return receipt;
  throw new FiscalError(
    "authority/unreachable",
    "The authority did not answer. It holds no return for this period; nothing was filed. Try again.",
  );
}

/**
 * Asks what the authority holds for a period that something was sent for.
 * @returns the receipt where it holds the same figures; undefined where it holds nothing
 * @throws FiscalError `authority/refused` where it holds others, `authority/no-answer` where it does not say
 */
async function askedFor(
  work: Work,
  gateway: Gateway,
  record: ReturnRecord,
  { id, number, periodKey, body }: OpenFiling,
): Promise<Receipt | undefined> {
  const held = await gateway.held(number, periodKey);
  if (held === undefined) {
    throw new FiscalError(
      "authority/no-answer",
      "The return was sent, and the authority does not say whether it has it. File again in a while: it is asked first, and nothing is sent twice.",
    );
  }
  if (held === null) {
    await work.write((work) => keepAnswer(work, id, "not-held", {}));
    return undefined;
  }
  if (sameFigures(held, body)) {
    return filed(work, record, id, {
      receiptId: "",
      formBundleNumber: "",
      processingDate: new Date().toISOString(),
      confirmedBy: "viewing the return the authority holds",
      ...(gateway.simulated ? { simulated: SIMULATED } : {}),
    });
  }
  await work.write((work) => keepAnswer(work, id, "refused", { held }));
  throw new FiscalError(
    "authority/refused",
    "The authority already holds a return for this period, with other figures. It cannot be sent again; compare the two and correct the difference in a later period.",
    undefined,
    { held },
  );
}

async function filed(work: Work, record: ReturnRecord, id: number, receipt: Receipt): Promise<Receipt> {
  await work.write(async (work) => {
    await keepAnswer(work, id, "accepted", receipt);
    await keepReceipt(work, record, receipt);
  });
  return receipt;
}

function sameFigures(held: Record<string, unknown>, body: ReturnBody): boolean {
  return Object.entries(body).every(([field, value]) => field === "finalised" || held[field] === value);
}

async function keepReceipt(
  work: Writing,
  { id, registrationId, periodEnd, hash }: ReturnRecord,
  receipt: Receipt,
): Promise<void> {
  const [changed] = await work.models.returns.update(
    { state: "filed", filedAt: work.at, filedBy: work.person, receipt },
    { where: { id, state: "sealed", hash }, ...work.options },
  );
  if (changed !== 1) throw wrongState();
  await work.record({
    action: "file",
    entity: "return",
    id: registrationId,
    after: { period: periodEnd, receipt },
  });
}
