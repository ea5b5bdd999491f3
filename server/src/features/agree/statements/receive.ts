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
import type { MatchSettings, StatementBasis } from "@fiscalon/contract/statements";
import type { Work } from "../../../base/work.ts";
import { decoded, encodingOf, refuseForeignFile } from "../../../base/files.ts";
import { readRows } from "../../../base/readRows.ts";
import { isWorkbook } from "../../../base/workbook/sheets.ts";
import { firstSheetApart, sheetsApart } from "../../../base/workbook/apart.ts";
import { insertStatement, removeStatement } from "../../../books/agree/statements/insertStatement.ts";
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
  const rows = withKeys(
    content.rows.map((row) => matchable(row, kind, basis, contact?.name ?? row.partyName)),
  );
  const problems = content.problems.slice(0, MOST_PROBLEMS).map(({ row, message }) => ({ row, message }));
  return work.write(async (work) => {
    const former = await work.row<{ id: number; settings: string }>(
      `SELECT id, settings FROM statements
       WHERE registration_id = $1 AND kind = $2 AND contact_id IS $3 AND period_end = $4`,
      [r.id, kind.id, contact?.id ?? null, end],
    );
    if (former) await removeStatement(work, former.id);
    const id = await insertStatement(
      work,
      {
        client: setup.client.id,
        registration: r.id,
        kind: kind.id,
        contact: contact?.id ?? null,
        from,
        end,
        name: file.name,
        drawnOn: content.drawnOn,
        basis,
        settings: former ? (JSON.parse(former.settings) as MatchSettings) : USUAL_MATCHING,
        problems,
      },
      rows,
    );
    await work.record({
      action: "receive",
      entity: "statement",
      id,
      after: { kind: kind.id, file: file.name, end, rows: rows.length },
    });
    return id;
  });
}

const MOST_PROBLEMS = 200;
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
    return readFurnishedSheets(await sheetsApart(bytes), kind.heads ?? {}, digits);
  if (kind.reads === "furnished") {
    refuseForeignFile(bytes);
    return readFurnished(parsed(decoded(bytes, encodingOf(bytes))), kind.heads ?? {}, digits);
  }
  const ofAccount = kind.of === "authority";
  const reading = { digits, leftOut: new Set<number>(), mended: new Map<number, Map<number, string>>() };
  const [pack] = plain.registrations.map((one) => work.packs.byId(one.pack));
  const order = pack?.dateOrder ?? "dmy";
  const levies = pack ? writtenLevies([pack]) : [];
  if (isWorkbook(bytes)) {
    const rows = await firstSheetApart(bytes);
    const shape = recogniseTable(rows.slice(0, SAMPLE_ROWS), "", "statement", order, levies);
    return readStatementTable(rows, { ...shape, ...reading }, ofAccount);
  }
  refuseForeignFile(bytes);
  const encoding = encodingOf(bytes);
  const shape = recogniseRegister(decoded(bytes, encoding), order, "statement", levies);
  const { rows } = await readRows(bytes, encoding, shape.delimiter);
  return readStatementTable(rows, { ...shape, ...reading }, ofAccount);
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
  if (of === "authority") return "gross";
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
  const party =
    of === "party" || of === "authority" ? ONE_PARTY : of === "border" ? CUSTOMS : numberKey(row.partyNumber);
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
