import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { KeptAgreement } from "@fiscalon/contract/agreements";
import type { BookAgreement, BookKeptAgreement, BookNamedCause } from "@fiscalon/contract/bookAgreements";
import type { Work, Writing } from "../../base/work.ts";
import { keepAuthorityBalance } from "../../books/agree/balances/keepAuthorityBalance.ts";
import { registrationWithId } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { placedAt, pointerTo } from "./pointers.ts";
import type { PlacedRows, RowsOf } from "./pointers.ts";

/** What people said of agreements: causes of rows that still count, and spans that were agreed. */
export async function agreementsOfBook(
  work: Work,
  { client, registrations, plain }: ClientSetup,
  rowsOf: RowsOf,
): Promise<Pick<BookFile, "namedCauses" | "agreements" | "authorityBalances">> {
  const refOf = (id: number) => registrationWithId(registrations, id).ref;
  const money = (amount: number) => formatAmount(amount, plain.digits);
  const named = await work.rows<
    Omit<BookNamedCause, "registration" | "row"> & { registration: number; key: string }
  >(
    `SELECT registration_id AS registration, kind, key, cause, reason, account, text FROM named_causes
     WHERE client_id = $1 ORDER BY id`,
    [client.id],
  );
  const agreed = await work.rows<
    Omit<BookAgreement, "registration" | "figures" | "open" | "rest"> & {
      registration: number;
      figures: string;
      open: number;
      rest: number;
    }
  >(
    `SELECT registration_id AS registration, kind, span_from AS "from", span_to AS "to", figures, "open" AS open, rest, note
     FROM agreements WHERE client_id = $1 ORDER BY id`,
    [client.id],
  );
  const namedCauses = named.flatMap(({ registration, key, ...rest }): BookNamedCause[] => {
    const [, id, line] = /^document\/(\d+)\/(\d+)$/.exec(key) ?? [];
    const document = pointerTo(rowsOf, "documents", Number(id));
    return document === null
      ? []
      : [{ registration: refOf(registration), row: `${document}/${line}`, ...rest }];
  });
  const agreements = agreed.map(({ registration, figures, open, rest, ...one }): BookAgreement => ({
    registration: refOf(registration),
    ...one,
    figures: (JSON.parse(figures) as [string, number][]).map(([name, amount]) => ({
      name,
      amount: money(amount),
    })),
    open: money(open),
    rest: money(rest),
  }));
  const typed = await work.rows<{ registration: number; on: string; amount: number; note: string }>(
    `SELECT registration_id AS registration, day AS "on", amount, note FROM authority_balances
     WHERE client_id = $1 ORDER BY registration_id, day`,
    [client.id],
  );
  const authorityBalances = typed.map(({ registration, amount, ...one }) => ({
    registration: refOf(registration),
    ...one,
    amount: money(amount),
  }));
  return {
    ...(authorityBalances.length === 0 ? {} : { authorityBalances }),
    ...(namedCauses.length === 0 ? {} : { namedCauses }),
    ...(agreements.length === 0 ? {} : { agreements }),
  };
}

/** Says of agreements what the book file says. */
export async function addAgreements(
  work: Writing,
  { client, registrations, plain }: ClientSetup,
  { namedCauses = [], agreements = [], authorityBalances = [] }: BookFile,
  placed: PlacedRows,
): Promise<void> {
  const registrationAt = (ref: string, path: string): number => {
    const r = registrations.find((one) => one.ref === ref);
    if (r) return r.id;
    throw new FiscalError(
      "book/unknown-id",
      `The file has no registration "${ref}".`,
      `${path}.registration`,
    );
  };
  const money = (amount: string) => parseAmount(amount, plain.digits);
  const { createdAt, createdBy } = work.made;
  for (const [index, { registration, on, amount, note }] of authorityBalances.entries()) {
    const id = registrationAt(registration, `authorityBalances[${index}]`);
    await keepAuthorityBalance(work, { id, clientId: client.id }, { on, amount: money(amount), note });
  }
  for (const [index, { registration, row, ...one }] of namedCauses.entries()) {
    const path = `namedCauses[${index}]`;
    const { id } = placedAt(placed, row, `${path}.row`);
    await work.run(
      `INSERT OR REPLACE INTO named_causes (client_id, registration_id, kind, key, cause, reason, account, text, created_at,
         created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
      [
        client.id,
        registrationAt(registration, path),
        one.kind,
        `document/${id}/${row.split("/").at(-1)}`,
        one.cause,
        one.reason,
        one.account,
        one.text,
        createdAt,
        createdBy,
      ],
    );
  }
  for (const [index, { registration, figures, ...one }] of agreements.entries()) {
    await work.run(
      `INSERT OR REPLACE INTO agreements (client_id, registration_id, kind, span_from, span_to, figures, "open", rest, note,
         created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
      [
        client.id,
        registrationAt(registration, `agreements[${index}]`),
        one.kind,
        one.from,
        one.to,
        JSON.stringify(figures.map(({ name, amount }) => [name, money(amount)])),
        money(one.open),
        money(one.rest),
        one.note,
        createdAt,
        createdBy,
      ],
    );
  }
}

/** An agreement that sealing kept, as the book file writes it. */
export function keptForBook(kept: KeptAgreement, digits: number): BookKeptAgreement {
  return recast(kept, (amount) => formatAmount(amount, digits));
}

/** The same as the book file says it. */
export function keptOfBook(kept: BookKeptAgreement, digits: number): KeptAgreement {
  return recast(kept, (amount) => parseAmount(amount, digits));
}

function recast<From, To>(
  { left, right, rest, causes, ...same }: Recast<From>,
  money: (amount: From) => To,
): Recast<To> {
  return {
    ...same,
    left: money(left),
    right: money(right),
    rest: money(rest),
    causes: causes.map(({ name, amount }) => ({ name, amount: money(amount) })),
  };
}

/** A kept agreement with amounts of some kind. */
type Recast<Amount> = Omit<KeptAgreement, "left" | "right" | "rest" | "causes"> & {
  left: Amount;
  right: Amount;
  rest: Amount;
  causes: { name: string; amount: Amount }[];
};
