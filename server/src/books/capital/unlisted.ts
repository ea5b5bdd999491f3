import type { CapitalItems } from "@fiscalon/core/model/capitalItem";
import type { CapitalSuggestion } from "@fiscalon/contract/capitalItems";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { KeptItem } from "./items.ts";

/** Facts with their lines and documents: of all years from the lines that bear the codes, of a period from its facts. */
const BY_CODE = `lines l INDEXED BY lines_of_code CROSS JOIN documents d ON d.id = l.document_id
    CROSS JOIN facts f ON l.code IN (SELECT value FROM json_each($2)) AND f.document_id = d.id AND f.line = l.no`;
const BY_PERIOD = `facts f JOIN documents d ON f.period_end = $5 AND d.id = f.document_id
    JOIN lines l ON l.document_id = d.id AND l.no = f.line`;

/**
 * Lines dear enough, with the codes of such purchases, whose paper no item names.
 * @param end the last day of the one return that is asked for, where not all are
 */
export async function unlistedPurchases(
  work: Work,
  r: RegistrationRecord,
  { suggested, kinds }: CapitalItems,
  items: readonly KeptItem[],
  end?: string,
): Promise<CapitalSuggestion[]> {
  if (suggested.length === 0) return [];
  const least = Math.min(...kinds.map(({ from }) => from));
  const rows = await work.rows<
    Omit<CapitalSuggestion, "taxes" | "share"> & { taxes: string; tax: number; recoverable: number }
  >(
    `SELECT document, number, date, line, text, max(net) AS net, json_group_object(levy, tax) AS taxes,
       sum(tax) AS tax, sum(recoverable) AS recoverable
     FROM (SELECT f.document_id AS document, d.number, d.date, f.line, l.text, f.levy, sum(f.net) AS net,
         sum(f.tax) AS tax, sum(f.recoverable) AS recoverable
       FROM ${end === undefined ? BY_CODE : BY_PERIOD}
       WHERE f.registration_id = $1 AND f.live = 1 AND f.direction = 'purchase' AND f.code IN (SELECT value FROM json_each($2))
         AND d.number NOT IN (SELECT value FROM json_each($4)) GROUP BY f.document_id, f.line, f.levy)
     GROUP BY document, line HAVING max(net) >= $3 ORDER BY date, document, line LIMIT 200`,
    [
      r.id,
      JSON.stringify(suggested),
      least,
      JSON.stringify(items.map(({ evidence }) => evidence)),
      ...(end === undefined ? [] : [end]),
    ],
  );
  return rows.map(({ taxes, tax, recoverable, ...row }) => ({
    ...row,
    taxes: JSON.parse(taxes) as Record<string, number>,
    share: tax === 0 ? "100" : String(Math.round((recoverable * 10_000) / tax) / 100),
  }));
}
