import { valueAt } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { BookFile } from "@fiscalon/contract/book";
import type { BookMatchDecision, BookStatement, BookStatementRow } from "@fiscalon/contract/bookStatements";
import type { MatchSettings } from "@fiscalon/contract/statements";
import type { Work, Writing } from "../../base/work.ts";
import { insertStatement } from "../../books/agree/statements/insertStatement.ts";
import { matchStatement } from "../../books/agree/statements/matchStatement.ts";
import { withKeys } from "../../books/agree/statements/ourRows.ts";
import { registrationWithId } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** Lists of others with their rows, and what was decided of them. How they stand is worked out again where they come to. */
export async function statementsOfBook(
  work: Work,
  { client, registrations, plain }: ClientSetup,
  contactRefs: ReadonlyMap<number, string>,
): Promise<Pick<BookFile, "statements" | "matchDecisions">> {
  const refOf = (id: number) => registrationWithId(registrations, id).ref;
  const money = (amount: number) => formatAmount(amount, plain.digits);
  const kept = await work.rows<
    Pick<BookStatement, "kind" | "from" | "end" | "name" | "drawnOn" | "basis"> & {
      id: number;
      registration: number;
      contact: number | null;
      settings: string;
    }
  >(
    `SELECT id, registration_id AS registration, kind, contact_id AS contact, period_from AS "from", period_end AS end, name,
       drawn_on AS drawnOn, basis, settings FROM statements WHERE client_id = $1 ORDER BY id`,
    [client.id],
  );
  const statements: BookStatement[] = [];
  for (const { id, registration, contact, settings, ...one } of kept) {
    const { tolerance, days, sureFrom } = JSON.parse(settings) as MatchSettings;
    const rows = await work.rows<
      Omit<BookStatementRow, "value" | "tax" | "taxes"> & { value: number; tax: number; taxes: string }
    >(
      `SELECT party_number AS partyNumber, party_name AS partyName, number, original, date, value, tax, taxes, rate, place, ineligible,
         note FROM statement_rows WHERE statement_id = $1 ORDER BY id`,
      [id],
    );
    statements.push({
      registration: refOf(registration),
      ...one,
      contact: contact === null ? null : valueAt(contactRefs, contact),
      tolerance: money(tolerance),
      days,
      sureFrom,
      rows: rows.map(({ value, tax, taxes, ...row }) => ({
        ...row,
        value: money(value),
        tax: money(tax),
        taxes: Object.fromEntries(
          Object.entries(JSON.parse(taxes) as Record<string, number>).map(([levy, amount]) => [
            levy,
            money(amount),
          ]),
        ),
      })),
    });
  }
  const said = await work.rows<
    Omit<BookMatchDecision, "registration" | "contact" | "ours" | "theirs"> & {
      registration: number;
      contact: number | null;
      ours: string;
      theirs: string;
    }
  >(
    `SELECT registration_id AS registration, kind, contact_id AS contact, period_end AS end, decision, ours, theirs, reason FROM match_decisions
     WHERE client_id = $1 ORDER BY id`,
    [client.id],
  );
  const matchDecisions = said.map(({ registration, contact, ours, theirs, ...one }) => ({
    registration: refOf(registration),
    ...one,
    contact: contact === null ? null : valueAt(contactRefs, contact),
    ours: JSON.parse(ours) as string[],
    theirs: JSON.parse(theirs) as string[],
  }));
  return {
    ...(statements.length === 0 ? {} : { statements }),
    ...(matchDecisions.length === 0 ? {} : { matchDecisions }),
  };
}

/** Brings the lists of a book file and what was decided of them, and lays them beside the books. */
export async function addStatements(
  work: Writing,
  setup: ClientSetup,
  { statements = [], matchDecisions = [] }: BookFile,
  contacts: ReadonlyMap<string, number>,
): Promise<void> {
  const { client, registrations, plain } = setup;
  const money = (amount: string) => parseAmount(amount, plain.digits);
  const unknown = (what: string, ref: string, path: string) =>
    new FiscalError("book/unknown-id", `The file has no ${what} "${ref}".`, path);
  const registrationAt = (ref: string, path: string): number => {
    const r = registrations.find((one) => one.ref === ref);
    if (r) return r.id;
    throw unknown("registration", ref, `${path}.registration`);
  };
  const contactAt = (ref: string | null, path: string): number | null => {
    if (ref === null) return null;
    const contact = contacts.get(ref);
    if (contact !== undefined) return contact;
    throw unknown("contact", ref, `${path}.contact`);
  };
  const made: number[] = [];
  for (const [index, one] of statements.entries()) {
    const path = `statements[${index}]`;
    const { kind, from, end, name, drawnOn, basis, tolerance, days, sureFrom } = one;
    const rows = one.rows.map(({ value, tax, taxes, ...row }) => ({
      ...row,
      key: "",
      partyKin: "",
      value: money(value),
      tax: money(tax),
      taxes: Object.fromEntries(Object.entries(taxes).map(([levy, amount]) => [levy, money(amount)])),
    }));
    const id = await insertStatement(
      work,
      {
        client: client.id,
        registration: registrationAt(one.registration, path),
        kind,
        contact: contactAt(one.contact, path),
        from,
        end,
        name,
        drawnOn,
        basis,
        settings: { tolerance: money(tolerance), days, sureFrom },
        problems: [],
      },
      withKeys(rows),
    );
    made.push(id);
  }
  const { createdAt, createdBy } = work.made;
  for (const [
    index,
    { registration, kind, contact, end, decision, ours, theirs, reason },
  ] of matchDecisions.entries()) {
    const path = `matchDecisions[${index}]`;
    await work.run(
      `INSERT INTO match_decisions (client_id, registration_id, kind, contact_id, period_end, decision, ours, theirs, reason,
         created_at, created_by) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
      [
        client.id,
        registrationAt(registration, path),
        kind,
        contactAt(contact, path),
        end,
        decision,
        JSON.stringify(ours),
        JSON.stringify(theirs),
        reason,
        createdAt,
        createdBy,
      ],
    );
  }
  for (const id of made) await matchStatement(work, setup, id);
}
