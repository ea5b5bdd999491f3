import { FiscalError } from "@fiscalon/core/errors";
import { returnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { ReturnBody } from "@fiscalon/core/formats/authority/returnBody";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import type { Work } from "../../base/work.ts";
import { loadSetup, registrationIn } from "../../books/loadSetup.ts";
import type { ReturnRecord } from "../../db/models.ts";
import type { Gateway, Outcome, Receipt } from "../../outside/gateway.ts";
import { formOf } from "../../books/returns/evaluation.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { returnRecord } from "../../books/returns/records.ts";

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
  reference: string,
): Promise<Receipt> {
  const setup = await loadSetup(work, clientId);
  const r = registrationIn(setup, rid);
  const period = periodEnding(r, end);
  const record = await returnRecord(work, r.id, end);
  if (record?.state !== "sealed" || !record.boxes) {
    throw new FiscalError(
      "returns/wrong-state",
      "Only a sealed return that is not yet filed can be filed. Seal the period first.",
    );
  }
  if (!r.number) {
    throw new FiscalError(
      "returns/no-number",
      "The registration has no number yet. Add it under Set up, Places & registrations.",
    );
  }
  const key = `${r.id} ${end}`;
  if (sending.has(key)) throw new FiscalError("returns/wrong-state", "This return is being sent right now.");
  sending.add(key);
  try {
    const receipt = work.packs.byId(r.pack).electronic
      ? await sent(gateway, r.number, formOf(work, r, end), period, record.boxes)
      : noted(reference);
    await keepReceipt(work, record, receipt);
    return receipt;
  } finally {
    sending.delete(key);
  }
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
 * Sends a sealed return to the authority and keeps the receipt. Where the answer is lost, or the authority says it
 * has one already, what it holds is fetched and compared: the same figures count as filed.
 */
async function sent(
  gateway: Gateway,
  vrn: string,
  form: ReturnForm,
  { from, to }: { from: string; to: string },
  boxes: Parameters<typeof returnBody>[2],
): Promise<Receipt> {
  const body = returnBody(form, await gateway.periodKey(vrn, from, to), boxes);
  return settled(await gateway.submit(vrn, body), gateway, vrn, body);
}

async function settled(outcome: Outcome, gateway: Gateway, vrn: string, body: ReturnBody): Promise<Receipt> {
  if (outcome.kind === "accepted") return outcome.receipt;
  if (outcome.kind === "refused" && outcome.code !== "DUPLICATE_SUBMISSION") {
    throw new FiscalError(
      "authority/refused",
      `The authority refused the return: ${outcome.message} (${outcome.code})`,
    );
  }
  const held = await gateway.held(vrn, body.periodKey);
  if (held && sameFigures(held, body)) {
    return {
      receiptId: "",
      formBundleNumber: "",
      processingDate: new Date().toISOString(),
      confirmedBy: "viewing the return the authority holds",
    };
  }
  if (outcome.kind === "refused" || held) {
    throw new FiscalError(
      "authority/refused",
      "The authority already holds a return for this period, with other figures. It cannot be sent again; compare the two and correct the difference in a later period.",
      undefined,
      held ? { held } : undefined,
    );
  }
  throw new FiscalError(
    "authority/unreachable",
    `${outcome.message} It holds no return for this period; nothing was filed. Try again.`,
  );
}

function sameFigures(held: Record<string, unknown>, body: ReturnBody): boolean {
  return Object.entries(body).every(([field, value]) => field === "finalised" || held[field] === value);
}

async function keepReceipt(
  work: Work,
  { id, registrationId, periodEnd }: ReturnRecord,
  receipt: Receipt,
): Promise<void> {
  await work.write(async (work) => {
    await work.models.returns.update(
      { state: "filed", filedAt: work.at, filedBy: work.person, receipt },
      { where: { id, state: "sealed" }, ...work.options },
    );
    await work.record({
      action: "file",
      entity: "return",
      id: registrationId,
      after: { period: periodEnd, receipt },
    });
  });
}
