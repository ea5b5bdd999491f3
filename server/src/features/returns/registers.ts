import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { found } from "@fiscalon/core/at";
import { optionsOn } from "@fiscalon/core/model/registration";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { ReturnRegister } from "@fiscalon/core/model/returnRegister";
import { commoditySummary } from "@fiscalon/core/returns/commoditySummary";
import type { SoldFact } from "@fiscalon/core/returns/commoditySummary";
import { documentsIssued } from "@fiscalon/core/returns/documentsIssued";
import { REGISTER_ROWS } from "@fiscalon/contract/registers";
import type { RegisterView } from "@fiscalon/contract/registers";
import type { OutwardFile } from "@fiscalon/core/formats/authority/gstr1";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { byMember, recordOfSupplies } from "./memberRegisters.ts";
import { outwardFile, tablesOfFile } from "./outwardFile.ts";
import { listOfLines } from "./listOfLines.ts";
import { money, plain } from "./registerColumns.ts";
import { tableCsv } from "../../exports/tableCsv.ts";

/** The lists that go with the return of a period, where its form has any. */
export async function registersOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<RegisterView[]> {
  const pack = work.packs.byId(r.pack);
  const views: RegisterView[] = [];
  for (const register of registersFor(pack, r)) {
    const view = await viewOf(work, setup, r, end, register, REGISTER_ROWS);
    views.push({
      ...view,
      rows: view.rows.slice(0, REGISTER_ROWS),
      opens: view.opens.slice(0, REGISTER_ROWS),
    });
  }
  return views;
}

/** One of them as a file: CSV, or what the portal takes. */
export async function registerFile(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  id: string,
): Promise<{ format: RegisterView["format"]; text: string }> {
  const register = registersFor(work.packs.byId(r.pack), r).find((one) => one.id === id);
  if (!register) throw notFound("This list");
  if (register.kind === "upload") {
    const { file } = await fileOf(work, setup, r, end, register);
    return { format: "json", text: JSON.stringify(file) };
  }
  const { name, digits, columns, rows } = await viewOf(work, setup, r, end, register, ALL);
  const table = {
    title: name,
    about: `${setup.client.name}, period to ${displayDate(end)}`,
    digits,
    columns,
    rows: rows.map((cells) => ({ cells })),
  };
  return { format: "csv", text: tableCsv(table) };
}

async function fileOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  { commodities, issued, names }: Extract<ReturnRegister, { kind: "upload" }>,
): Promise<OutwardFile> {
  const others = registersFor(work.packs.byId(r.pack), r);
  const sold = others.find((one) => one.kind === "commodities" && one.id === commodities);
  const given = others.find((one) => one.kind === "issued" && one.id === issued);
  return outwardFile(
    work,
    r,
    end,
    names,
    sold?.kind === "commodities" ? (await summaryOf(work, r, end, sold)).rows : [],
    given?.kind === "issued" ? documentsIssued(await numbersGiven(work, setup, r, end, given.natures)) : [],
  );
}

/** No limit, as the database writes it. */
const ALL = -1;

function registersFor({ registers = [] }: JurisdictionPack, { levies }: RegistrationRecord) {
  return registers.filter(({ onlyFor }) => onlyFor?.some((levy) => levies.includes(levy)) ?? true);
}

async function viewOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  register: ReturnRegister,
  limit: number,
): Promise<RegisterView> {
  const { id, name, source } = register;
  const format: RegisterView["format"] = register.kind === "upload" ? "json" : "csv";
  const head = { id, name, source, format, digits: setup.plain.digits };
  if (register.kind === "issued") {
    const runs = documentsIssued(await numbersGiven(work, setup, r, end, register.natures));
    return {
      ...head,
      columns: ["Nature of document", "From", "To", "Total number", "Cancelled", "Net issued"].map(plain),
      rows: runs.map((run) => [run.nature, run.from, run.to, run.total, run.cancelled, run.net]),
      opens: runs.map(() => null),
      total: runs.length,
      missing: null,
    };
  }
  if (register.kind === "upload")
    // Its tables are told without the lists in it, which stand below by themselves.
    return { ...head, ...tablesOfFile(await outwardFile(work, r, end, register.names, [], [])) };
  if (register.kind === "members") return { ...head, ...(await byMember(work, setup, r, end)) };
  if (register.kind === "lines") return { ...head, ...(await listOfLines(work, r, end, register, limit)) };
  if (register.kind === "supplies") return { ...head, ...(await recordOfSupplies(work, r, end, limit)) };
  const { rows, digits } = await summaryOf(work, r, end, register);
  const without = rows.filter(({ code }) => code.length < digits).length;
  return {
    ...head,
    columns: [
      ...["List", "HSN", "Description", "Unit", "Total quantity", "Rate"].map(plain),
      money("Taxable value"),
      ...register.levies.map((levy) => money(levy.name)),
    ],
    rows: rows.map(({ list, code, text, unit, quantity, rate, value, taxes }) => [
      list,
      code,
      text,
      unit,
      quantity,
      rate,
      value,
      ...taxes,
    ]),
    opens: rows.map(() => null),
    total: rows.length,
    missing:
      without === 0
        ? null
        : `${without} rows have no code of ${digits} digits. Set it on the items, or on the lines.`,
  };
}

/** What was sold by statistical code, of which so many digits are told. */
async function summaryOf(
  work: Work,
  r: RegistrationRecord,
  end: string,
  register: Extract<ReturnRegister, { kind: "commodities" }>,
) {
  const { option, values } = register.digits;
  const chosen = optionsOn(work.packs.byId(r.pack), r, end)[option];
  const digits = found(Object.entries(values), ([value]) => value === chosen, `digits of ${chosen}`)[1];
  return { digits, rows: commoditySummary(register, digits, await soldFacts(work, r, end)) };
}

async function soldFacts(work: Work, r: RegistrationRecord, end: string): Promise<SoldFact[]> {
  const rows = await work.rows<Omit<SoldFact, "credit"> & { credit: number }>(
    `SELECT f.document_id AS document, f.line, f.levy, f.rate, f.net, f.tax, f.credit, f.tags, l.quantity,
       coalesce(l.attributes ->> '$.hsn', i.statistical_code, '') AS code,
       coalesce(i.name, nullif(l.text, ''), '') AS text, coalesce(l.attributes ->> '$.unit', 'OTH') AS unit
     FROM facts f JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
       JOIN documents d ON d.id = f.document_id
       LEFT JOIN items i ON i.client_id = d.client_id AND i.ref = l.item
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.direction = 'sale'
     ORDER BY f.document_id, f.line, f.id`,
    [r.id, end],
  );
  return rows.map((row) => ({ ...row, credit: row.credit === 1 }));
}

/**
 * The numbers of documents dated in the period, also of what was taken out; what was corrected keeps its number. Where a
 * levy is registered region by region, those of the places there.
 */
async function numbersGiven(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  natures: Extract<ReturnRegister, { kind: "issued" }>["natures"],
) {
  const { from, to } = periodEnding(r, end);
  const rows = await work.rows<{ nature: string; number: string; posted: number }>(
    `SELECT n.value AS nature, d.number, max(d.state = 'posted') AS posted FROM documents d
       JOIN json_each($4) n ON n.key = d.kind
       LEFT JOIN places p ON p.id = d.place_id
     WHERE d.client_id = $1 AND d.date BETWEEN $2 AND $3 AND d.opening = 0
       AND ($5 IS NULL OR coalesce(p.region, $6) IS $5)
     GROUP BY d.kind, d.number ORDER BY d.kind, d.number`,
    [setup.client.id, from, to, JSON.stringify(natures), r.region, setup.plain.places[0]?.region ?? null],
  );
  return rows.map(({ nature, number, posted }) => ({ nature, number, cancelled: posted === 0 }));
}
