import { FiscalError } from "@fiscalon/core/errors";
import { dateOf, partsOf } from "@fiscalon/core/calendar/date";
import { CUSTOMS, readFurnished } from "@fiscalon/core/formats/statements/furnished";
import { readFurnishedSheets } from "@fiscalon/core/formats/statements/furnishedSheets";
import type { StatementContent, StatementRow } from "@fiscalon/core/formats/statements/statementRow";
import { readStatementTable } from "@fiscalon/core/formats/statements/statementTable";
import { recogniseRegister } from "@fiscalon/core/formats/registers/recogniseRegister";
import { recogniseTable } from "@fiscalon/core/formats/tables/recogniseTable";
import { writtenLevies } from "@fiscalon/core/incoming/levyWords";
import { numberKey } from "@fiscalon/core/incoming/numberKey";
import { USUAL_MATCHING } from "@fiscalon/core/agree/matching/matchRow";
import type { StatementKind } from "@fiscalon/core/model/statement";
import type { StatementBasis } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import { decoded, encodingOf, refuseForeignFile } from "../../../base/files.ts";
import { isWorkbook, readRows, WORKBOOK, workbookRows, workbookSheets } from "../../../base/readRows.ts";
import { ONE_PARTY, withKeys } from "../../../books/agree/statements/ourRows.ts";
import { registrationIn } from "../../../books/loadSetup.ts";
import type { ClientSetup } from "../../../books/loadSetup.ts";
import { periodEnding } from "../../../books/returns/periods.ts";
import { statementKind } from "../../../books/agree/statements/statementKinds.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

/** A list as it comes in: what it is, of whom, for which period. */
export interface Received {
  registration: string;
  kind: string;
  contact: number | null;
  period: string;
  name: string;
  bytes: Buffer;
}

const SAMPLE_ROWS = 400;

/**
 * Takes a list of somebody else in. A newer one of the same kind, party and period takes the place of the former; what
 * was decided stays.
 */
export async function receiveStatement(work: Work, setup: ClientSetup, file: Received): Promise<number> {
  const r = registrationIn(setup, file.registration);
  const kind = statementKind(work, r, file.kind);
  const contact = await contactOf(work, setup, kind, file.contact);
  const content = await readFile(work, setup, kind, file.bytes);
  refuseOther(content, r);
  if (content.rows.length === 0) {
    const [first] = content.problems;
    throw new FiscalError(
      "statements/no-rows",
      `No document could be read from this file${first ? `: ${first.message}` : ""}. Check that it is the right one.`,
      "file",
    );
  }
  const period = periodEnding(r, file.period);
  const month = content.periodEnd === null ? null : partsOf(content.periodEnd);
  const from = month === null ? period.from : dateOf(month.year, month.month, 1);
  const end = content.periodEnd ?? period.to;
  const basis = basisOf(kind, content.rows);
  const rows = withKeys(content.rows.map((row) => matchable(row, kind, basis, contact?.name ?? row.partyName)));
  const problems = content.problems.slice(0, MOST_PROBLEMS).map(({ row, message }) => ({ row, message }));
  return work.write(async (work) => {
    const former = await work.row<{ id: number; settings: string }>(
      `SELECT id, settings FROM statements
       WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3 AND period_end = $4`,
      [r.id, kind.id, contact?.id ?? null, end],
    );
    if (former) {
      await work.run("DELETE FROM match_lines WHERE statement_id = $1", [former.id]);
      await work.run("DELETE FROM statement_rows WHERE statement_id = $1", [former.id]);
      await work.run("DELETE FROM statements WHERE id = $1", [former.id]);
    }
    const { createdAt, createdBy } = work.made;
    await work.run(
      `INSERT INTO statements (client_id, registration_id, kind, contact_id, period_from, period_end, name, drawn_on, basis,
         settings, problems, created_at, created_by)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
      [
        setup.client.id,
        r.id,
        kind.id,
        contact?.id ?? null,
        from,
        end,
        file.name.slice(0, 200),
        content.drawnOn,
        basis,
        former?.settings ?? JSON.stringify(USUAL_MATCHING),
        JSON.stringify(problems),
        createdAt,
        createdBy,
      ],
    );
    const { id } = await work.one<{ id: number }>("SELECT last_insert_rowid() AS id");
    for (let start = 0; start < rows.length; start += SLICE)
      await work.run(INSERT_ROWS, [id, JSON.stringify(rows.slice(start, start + SLICE).map(cells))]);
    await work.record({
      client: setup.client.id,
      action: "receive",
      entity: "statement",
      id,
      after: { kind: kind.id, file: file.name, end, rows: rows.length },
    });
    return id;
  });
}

const MOST_PROBLEMS = 200;
const SLICE = 5000;
const INSERT_ROWS = `INSERT INTO statement_rows (statement_id, key, party_number, party_name, number, date, value, tax, taxes,
    rate, place, ineligible, note)
  SELECT $1, value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5, value ->> 6, value -> 7,
    value ->> 8, value ->> 9, value ->> 10, value ->> 11 FROM json_each($2)`;

async function contactOf(
  work: Work,
  setup: ClientSetup,
  { of, direction }: StatementKind,
  contact: number | null,
): Promise<{ id: number; name: string } | null> {
  if (of !== "party") return null;
  const row = await work.row<{ id: number; name: string }>(
    "SELECT id, name FROM contacts WHERE id = $1 AND client_id = $2",
    [contact, setup.client.id],
  );
  if (row) return row;
  throw new FiscalError(
    "statements/whose",
    `Say whose statement it is: choose the ${direction === "purchase" ? "supplier" : "customer"}.`,
    "contact",
  );
}

async function readFile(
  work: Work,
  { plain }: ClientSetup,
  kind: StatementKind,
  bytes: Buffer,
): Promise<StatementContent> {
  const { digits } = plain;
  if (kind.reads === "furnished" && isWorkbook(bytes))
    return readFurnishedSheets(await workbookSheets(bytes), kind.heads ?? {}, digits);
  if (kind.reads === "furnished") {
    refuseForeignFile(bytes);
    return readFurnished(parsed(decoded(bytes, encodingOf(bytes))), kind.heads ?? {}, digits);
  }
  const reading = { digits, leftOut: new Set<number>(), mended: new Map<number, Map<number, string>>() };
  const [pack] = plain.registrations.map((one) => work.packs.byId(one.pack));
  const order = pack?.dateOrder ?? "dmy";
  const levies = pack ? writtenLevies([pack]) : [];
  if (isWorkbook(bytes)) {
    const rows = await workbookRows(bytes);
    const shape = recogniseTable(rows.slice(0, SAMPLE_ROWS), "", "statement", order, levies);
    return readStatementTable(await readRows(bytes, WORKBOOK, ""), { ...shape, ...reading });
  }
  refuseForeignFile(bytes);
  const encoding = encodingOf(bytes);
  const shape = recogniseRegister(decoded(bytes, encoding), order, "statement", levies);
  return readStatementTable(await readRows(bytes, encoding, shape.delimiter), { ...shape, ...reading });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new FiscalError(
      "formats/not-furnished",
      "This file is neither the JSON of the statement nor its workbook. Download it again and drop it as it is.",
      "file",
    );
  }
}

function refuseOther({ number }: StatementContent, r: RegistrationRecord): void {
  if (number === "" || r.number === null || numberKey(number) === numberKey(r.number)) return;
  throw new FiscalError(
    "statements/other-registration",
    `The list is made for ${number}; this registration is ${r.number}. Choose the registration it belongs to.`,
    "file",
  );
}

/** What the list tells of amounts decides how both sides are compared. */
function basisOf({ of }: StatementKind, rows: readonly StatementRow[]): StatementBasis {
  if (of === "border") return "tax";
  if (rows.some(({ value }) => value !== null)) return "net";
  return rows.some(({ gross }) => gross !== null) ? "gross" : "tax";
}

/** Nothing told of it. */
const NOTHING = 0;

function matchable(row: StatementRow, { of }: StatementKind, basis: StatementBasis, partyName: string) {
  const { value, tax, gross } = row;
  const amounts: Record<StatementBasis, [number | null, number | null]> = {
    net: [value ?? gross, tax],
    gross: [gross, null],
    tax: [null, tax],
  };
  const [compared, taxed] = amounts[basis];
  const party = of === "party" ? ONE_PARTY : of === "border" ? CUSTOMS : numberKey(row.partyNumber);
  return {
    ...row,
    key: "",
    partyNumber: party,
    partyName,
    partyKin: "",
    value: compared ?? NOTHING,
    tax: taxed ?? NOTHING,
  };
}

function cells(row: ReturnType<typeof matchable>): unknown[] {
  const { key, partyNumber, partyName, number, date, value, tax, taxes, rate, place, ineligible, note } = row;
  return [key, partyNumber, partyName, number, date, value, tax, taxes, rate, place, ineligible, note];
}
