import type { ReturnRegister } from "@fiscalon/core/model/returnRegister";
import { attributeName } from "@fiscalon/core/model/lineAttributes";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { money, plain } from "./registerColumns.ts";
import type { RegisterTable } from "./registerColumns.ts";

/** Lines of a period with the codes of a register, by date, with the other side and the paper they rest on. */
export async function listOfLines(
  work: Work,
  r: RegistrationRecord,
  end: string,
  { codes, attribute, asks }: Extract<ReturnRegister, { kind: "lines" }>,
  limit: number,
): Promise<RegisterTable> {
  const rows = await work.rows<{
    document: number;
    day: string;
    number: string;
    party: string;
    taxNumber: string;
    code: string;
    paper: string;
    net: number;
    total: number;
    bare: number;
  }>(
    `SELECT *, count(*) OVER () AS total, sum(taxNumber = '' OR paper = '') OVER () AS bare FROM (
     SELECT f.document_id AS document, f.line, f.tax_point AS day, d.number, coalesce(c.name, '') AS party, coalesce(c.tax_number, '') AS taxNumber, f.code,
       coalesce(l.attributes ->> ('$.' || $4), '') AS paper, max(f.net) AS net
     FROM facts f JOIN documents d ON d.id = f.document_id LEFT JOIN contacts c ON c.id = d.contact_id
       JOIN lines l ON l.document_id = f.document_id AND l.no = f.line
     WHERE f.registration_id = $1 AND f.period_end = $2 AND f.live = 1 AND f.code IN (SELECT value FROM json_each($3))
     GROUP BY f.document_id, f.line) ORDER BY day, document, line LIMIT $5`,
    [r.id, end, JSON.stringify(codes), attribute, limit],
  );
  const name = attributeName(attribute);
  const { total, bare } = rows[0] ?? { total: 0, bare: 0 };
  return {
    columns: [
      ...["Date", "Document", "Party", work.packs.byId(r.pack).numberName, "Code"].map(plain),
      plain(name.charAt(0).toUpperCase() + name.slice(1)),
      money("Net"),
    ],
    rows: rows.map(({ day, number, party, taxNumber, code, paper, net }) => [
      day,
      number,
      party,
      taxNumber,
      code,
      paper,
      net,
    ]),
    opens: rows.map(({ document }) => `document/${document}`),
    total,
    missing: bare === 0 ? null : `${bare} ${bare === 1 ? "line" : "lines"} without ${asks}.`,
  };
}
