import { filingPeriodOn } from "@fiscalon/core/calendar/filingPeriods";
import { memberSummary } from "@fiscalon/core/returns/memberSummary";
import type { MemberFact, MemberRow } from "@fiscalon/core/returns/memberSummary";
import type { RegisterView } from "@fiscalon/contract/registers";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { periodRule } from "../../books/returns/periodRule.ts";

type Table = Pick<RegisterView, "columns" | "rows" | "opens" | "missing">;

interface SupplyRow extends Omit<MemberFact, "reduced" | "period"> {
  document: number;
  number: string;
  day: string;
  country: string;
  treatment: string;
  own: string;
  credit: number;
  currency: string;
  corrects: string | null;
  corrected: string | null;
}

/** What a box of the return by member holds, in words. */
const SUPPLIES: Readonly<Record<string, string>> = {
  S: "Services",
  E: "Services of an establishment",
  G: "Goods",
  D: "Goods from another member",
};

/** The return of a period by member of consumption: supplies at each rate, corrections by period, balances. */
export async function byMember(work: Work, r: RegistrationRecord, end: string): Promise<Table> {
  const rows = await suppliesOf(work, r, end);
  const facts = rows.map((row): MemberFact => {
    const { tags, rate, net, tax, treatment } = row;
    return { tags, rate, net, tax, reduced: treatment === "reduced", period: periodCorrected(r, row) };
  });
  const summary = memberSummary(facts);
  return {
    columns: [
      ...["Member", "What", "From", "Type of rate", "Rate", "Period"].map((name) => ({
        name,
        amount: false,
      })),
      { name: "Taxable", amount: true },
      { name: "Tax", amount: true },
    ],
    rows: summary.map((row) => [
      row.member,
      wordsFor(row),
      row.from,
      row.kind === "supply" ? (row.reduced ? "reduced" : "standard") : "",
      row.rate,
      row.period,
      row.kind === "supply" ? row.taxable : "",
      row.tax,
    ]),
    opens: summary.map((row) => `box/${r.id}/${end}/${boxOf(row)}`),
    missing: null,
  };
}

/** The box a row stands in. */
function boxOf({ member, kind, supply, from }: MemberRow): string {
  if (kind === "balance") return `${member}.due`;
  if (kind === "correction") return `${member}.C`;
  return [member, supply, from, "t"].filter((part) => part !== "").join(".");
}

/** Each supply of a period by itself, with what the records of it must hold. */
export async function recordOfSupplies(work: Work, r: RegistrationRecord, end: string): Promise<Table> {
  const rows = await suppliesOf(work, r, end);
  return {
    columns: [
      ...["Date", "Document", "Member", "What", "Rate", "Currency", "Corrects"].map((name) => ({
        name,
        amount: false,
      })),
      { name: "Taxable", amount: true },
      { name: "Tax", amount: true },
    ],
    rows: rows.map(({ day, number, country, tags, rate, currency, corrects, net, tax }) => [
      day,
      number,
      country,
      SUPPLIES[tags.split(/[. ]/)[1] ?? ""] ?? "Correction",
      rate ?? "",
      currency,
      corrects ?? "",
      net,
      tax,
    ]),
    opens: rows.map(({ document }) => `document/${document}`),
    missing: null,
  };
}

function wordsFor({ kind, supply }: MemberRow): string {
  if (kind === "supply") return SUPPLIES[supply] ?? supply;
  return kind === "correction" ? "Correction" : "Balance";
}

/** The period a correction belongs to: that of the document a credit note corrects, or the fact's own. */
function periodCorrected(r: RegistrationRecord, { own, credit, corrected }: SupplyRow): string {
  if (credit === 0 || corrected === null) return own;
  return filingPeriodOn(periodRule(r), corrected)?.to ?? own;
}

async function suppliesOf(work: Work, r: RegistrationRecord, end: string): Promise<SupplyRow[]> {
  return work.rows(
    `SELECT f.tags, f.rate, f.net, f.tax, f.treatment, f.own_end AS own, f.credit, f.tax_point AS day, f.document_id AS document, d.number, d.currency,
       substr(f.tags, 1, 2) AS country, d.corrects,
       (SELECT coalesce(o.tax_point, o.date) FROM documents o
        WHERE o.client_id = d.client_id AND o.number = d.corrects AND o.state = 'posted' LIMIT 1) AS corrected
     FROM facts f JOIN documents d ON d.id = f.document_id
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.direction = 'sale'
     ORDER BY f.tax_point, f.document_id, f.line, f.id`,
    [r.id, end],
  );
}
