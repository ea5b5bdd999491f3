import { at as element, valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { allocationSign } from "@fiscalon/core/ledger/paymentPostings";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import { minorDigits } from "@fiscalon/core/money/currency";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { BookDocument } from "@fiscalon/contract/document";
import type { BookPayment } from "@fiscalon/contract/payments";
import type { Work, Writing } from "../../base/work.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { placedAt, refOf } from "./pointers.ts";
import type { PlacedRows } from "./pointers.ts";
import { postPayments } from "../../books/payments/postPayments.ts";
import { paymentFrom } from "../../books/payments/service.ts";

type Known = { id: number; kind: DocumentKind; number: string; contact: number | null };
type Numbered = { payment: BookPayment; index: number };

const CHUNK = 1000;

/** The payments of a book file on their way in: each is posted once its documents are there and its period is due. */
export class BookPayments {
  #waiting: Numbered[];
  readonly #contacts: ReadonlyMap<string, number>;
  readonly #placed: PlacedRows;

  /** @param placed rows of the file that are in the database; the payments are added to it */
  constructor(payments: readonly BookPayment[], contacts: ReadonlyMap<string, number>, placed: PlacedRows) {
    this.#waiting = payments.map((payment, index) => ({ payment, index }));
    this.#contacts = contacts;
    this.#placed = placed;
  }

  /**
   * Posts what can be posted now.
   * @param stage end of the period about to be sealed; `""` before the first, null after the last: then all must go
   * @throws FiscalError with the path `payments[n]…` in the file
   */
  async post(work: Writing, setup: ClientSetup, stage: string | null): Promise<void> {
    const documents = await this.#documents(work, setup.client.id);
    const due = this.#waiting.filter(
      ({ payment }) =>
        stage === null ||
        ((payment.reportedIn ?? "") <= stage &&
          (payment.allocations ?? []).every((one) => documents.has(one.document))),
    );
    this.#waiting = this.#waiting.filter((one) => !due.includes(one));
    for (let at = 0; at < due.length; at += CHUNK) {
      const batch = due.slice(at, at + CHUNK);
      const prepared = batch.map((one) => this.#prepared(one, documents, setup));
      try {
        const ids = await postPayments(work, setup, prepared);
        batch.forEach(({ index }, at) => (this.#placed.payments[index] = element(ids, at)));
      } catch (error) {
        throw inFile(error, batch);
      }
    }
  }

  async #documents(work: Writing, clientId: number): Promise<Map<string, Known[]>> {
    const numbers = this.#waiting.flatMap(({ payment }) =>
      (payment.allocations ?? []).map((one) => one.document),
    );
    const rows = await work.rows<Known>(
      `SELECT id, kind, number, contact_id AS contact FROM documents
       WHERE client_id = $1 AND state = 'posted' AND number IN (SELECT value FROM json_each($2)) ORDER BY id`,
      [clientId, JSON.stringify([...new Set(numbers)])],
    );
    const pointed = numbers.filter((number) => this.#isPlaced(number));
    const ids = pointed.map((pointer) => ({ pointer, id: placedAt(this.#placed, pointer, "").id }));
    const byId = new Map(
      (
        await work.rows<Known>(
          `SELECT id, kind, number, contact_id AS contact FROM documents WHERE id IN (SELECT value FROM json_each($1))`,
          [JSON.stringify(ids.map(({ id }) => id))],
        )
      ).map((row) => [row.id, row]),
    );
    const known = groupBy(rows, (row) => row.number);
    for (const { pointer, id } of ids)
      known.set(
        pointer,
        [byId.get(id)].filter((row) => row !== undefined),
      );
    return known;
  }

  /** Whether an allocation names a row of the file, and that document is there. */
  #isPlaced(document: string): boolean {
    const [, row] = /^\/documents\/(\d+)$/.exec(document) ?? [];
    return row !== undefined && this.#placed.documents[Number(row)] !== undefined;
  }

  #prepared({ payment, index }: Numbered, documents: ReadonlyMap<string, Known[]>, setup: ClientSetup) {
    const contact = refOf(this.#contacts, payment.contact || null, `payments[${index}].contact`);
    const kind = payment.kind ?? kindOf(payment, documents);
    const allocations = (payment.allocations ?? []).map((one, at) => ({
      ...one,
      document: documentOf(one, kind, contact, documents, `payments[${index}].allocations[${at}].document`),
    }));
    const number = payment.number || `#${index + 1}`;
    const account = payment.account === "bank" ? null : (payment.account ?? null);
    return paymentFrom({ ...payment, kind, contact, allocations, number, account }, setup);
  }
}

/** Where the file does not say: the way the money of the first document goes. */
function kindOf(payment: BookPayment, documents: ReadonlyMap<string, Known[]>): PaymentKind {
  const first = documents.get(payment.allocations?.[0]?.document ?? "")?.[0];
  return first && allocationSign("receipt", first.kind) < 0 ? "payment" : "receipt";
}

function documentOf(
  one: { document: string; kind?: DocumentKind },
  kind: PaymentKind,
  contact: number | null,
  documents: ReadonlyMap<string, Known[]>,
  field: string,
): number {
  const fits = (documents.get(one.document) ?? []).filter(
    (known) =>
      (one.kind === undefined || one.kind === known.kind) &&
      (contact === null || known.contact === null || known.contact === contact),
  );
  const along = fits.filter((known) => allocationSign(kind, known.kind) > 0);
  const found = along.length > 0 ? along : fits;
  const [first] = found;
  if (!first) throw new FiscalError("book/unknown-id", `The file has no document "${one.document}".`, field);
  if (new Set(found.map((known) => `${known.kind} ${known.contact}`)).size > 1) {
    throw new FiscalError(
      "book/ambiguous",
      `Several documents have the number ${one.document}. Name the kind, or the contact of the payment.`,
      field,
    );
  }
  return first.id;
}

function inFile(error: unknown, batch: readonly Numbered[]): unknown {
  if (!(error instanceof FiscalError) || !error.field) return error;
  const field = error.field.replace(
    /^payments\[(\d+)\]/,
    (_, at: string) => `payments[${batch[Number(at)]?.index ?? at}]`,
  );
  return new FiscalError(error.code, error.message, field, error.details);
}

/**
 * Payments as the book file holds them, in an order that survives the way back in: as they were entered, those that
 * wait for a late item after the others, by period.
 * @param rows row of each document in the file, with the period it was reported in late
 */
export async function paymentsOfBook(
  work: Work,
  setup: ClientSetup,
  contacts: ReadonlyMap<number, string>,
  rowOf: ReadonlyMap<number, number>,
  documents: readonly BookDocument[],
): Promise<{ ids: number[]; payments: BookPayment[] }> {
  const { digits } = setup.plain;
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const { number = "" } of documents) (seen.has(number) ? twice : seen).add(number);
  const rows = await work.rows<{
    id: number;
    kind: PaymentKind;
    number: string;
    date: string;
    contact: number | null;
    account: string | null;
    currency: string;
    amount: number;
    base: number;
    reference: string;
    note: string;
    late: string | null;
  }>(
    `SELECT p.id, p.kind, p.number, p.date, p.contact_id AS contact, p.account, p.currency, p.amount, p.base, p.reference, p.note,
       (SELECT max(f.period_end) FROM facts f WHERE f.payment_id = p.id AND f.live = 1 AND f.late = 1) AS late
     FROM payments p WHERE p.client_id = $1 AND p.state = 'posted' ORDER BY p.id`,
    [setup.client.id],
  );
  const allocations = groupBy(
    await work.rows<{
      payment: number;
      id: number;
      document: string;
      kind: DocumentKind;
      currency: string;
      amount: number;
      difference: number;
      account: string | null;
    }>(
      `SELECT a.payment_id AS payment, d.id, d.number AS document, d.kind, d.currency, a.amount, a.difference,
         a.difference_account AS account
       FROM allocations a JOIN documents d ON d.id = a.document_id
       WHERE d.client_id = $1 AND a.live = 1 ORDER BY a.id`,
      [setup.client.id],
    ),
    (one) => one.payment,
  );
  const stageOf = ({ id, late }: { id: number; late: string | null }): string =>
    [
      late ?? "",
      ...(allocations.get(id) ?? []).map((one) => documents[rowOf.get(one.id) ?? -1]?.reportedIn ?? ""),
    ]
      .sort()
      .at(-1) ?? "";
  const staged = rows.map((row) => ({ ...row, stage: stageOf(row) }));
  staged.sort((a, b) => (a.stage < b.stage ? -1 : a.stage > b.stage ? 1 : a.id - b.id));
  const payments = staged.map((p): BookPayment => ({
    kind: p.kind,
    number: p.number,
    date: p.date,
    ...(p.contact === null ? {} : { contact: valueAt(contacts, p.contact) }),
    ...(p.account === null ? {} : { account: p.account }),
    amount: formatAmount(p.amount, minorDigits(p.currency)),
    ...(p.currency === setup.client.currency
      ? {}
      : { currency: p.currency, bankAmount: formatAmount(p.base, digits) }),
    ...(p.reference === "" ? {} : { reference: p.reference }),
    ...(p.note === "" ? {} : { note: p.note }),
    allocations: (allocations.get(p.id) ?? []).map((one) => ({
      ...(twice.has(one.document)
        ? { document: `/documents/${rowOf.get(one.id)}` }
        : { document: one.document, kind: one.kind }),
      amount: formatAmount(one.amount, minorDigits(one.currency)),
      ...(one.difference === 0
        ? {}
        : { difference: formatAmount(one.difference, minorDigits(one.currency)) }),
      ...(one.account === null ? {} : { differenceAccount: one.account }),
    })),
    ...(p.late === null ? {} : { reportedIn: p.late }),
  }));
  return { ids: staged.map(({ id }) => id), payments };
}
