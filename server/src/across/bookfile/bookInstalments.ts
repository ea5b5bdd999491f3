import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { BookFile, BookInstalment } from "@fiscalon/contract/book";
import type { Work, Writing } from "../../base/work.ts";
import { inField } from "../../base/errors.ts";
import { registrationWithId } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { keepInstalment } from "../../books/settlement/instalments.ts";
import { recordTaxPayment } from "../../books/settlement/taxPayments.ts";
import type { PlacedRows } from "./pointers.ts";

/** What was said of instalments, in the order it was asked for. */
export async function instalmentsOfBook(
  work: Work,
  { client, registrations, plain }: ClientSetup,
): Promise<Pick<BookFile, "instalments">> {
  const rows = await work.rows<{
    registration: number;
    period: string;
    no: number;
    asked: number | null;
    estimate: number | null;
    reason: string;
  }>(
    `SELECT registration_id AS registration, period_end AS period, no, asked, estimate, reason FROM instalments
     WHERE client_id = $1 ORDER BY registration_id, period_end, no`,
    [client.id],
  );
  if (rows.length === 0) return {};
  const text = (amount: number | null) => (amount === null ? "" : formatAmount(amount, plain.digits));
  const instalments = rows.map(({ registration, asked, estimate, ...row }): BookInstalment => ({
    registration: registrationWithId(registrations, registration).ref,
    ...row,
    asked: text(asked),
    estimate: text(estimate),
  }));
  return { instalments };
}

/** Says of instalments what the book file says, and records those that were paid: before anything is sealed. */
export async function addInstalments(
  work: Writing,
  setup: ClientSetup,
  { instalments = [], taxPayments = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const registrationOf = (ref: string, field: string) => {
    const r = setup.registrations.find((one) => one.ref === ref);
    if (r) return r;
    throw new FiscalError("book/unknown-id", `The file has no registration "${ref}".`, field);
  };
  for (const [index, { registration, period, no, ...body }] of instalments.entries()) {
    const path = `instalments[${index}]`;
    const r = registrationOf(registration, `${path}.registration`);
    await inField(path, () => keepInstalment(work, setup.client.id, r, period, no, body));
  }
  for (const [index, { registration, period, ...payment }] of taxPayments.entries()) {
    if (payment.kind !== "instalment") continue;
    const path = `taxPayments[${index}]`;
    const r = registrationOf(registration, `${path}.registration`);
    await inField(path, () => recordTaxPayment(work, setup, r, period, payment));
    placed.taxPayments[index] = await work.lastId("entries");
  }
}
