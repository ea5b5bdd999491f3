import { plainNumber } from "@fiscalon/core/agree/matching/documentNumber";
import type { MatchRow } from "@fiscalon/core/agree/matching/matchRow";
import type { StatementKind } from "@fiscalon/core/model/statement";
import type { Work } from "../../../base/work.ts";

/** A row of a list as it is matched. */
export interface TheirRow extends MatchRow {
  id: number;
  ineligible: string;
  note: string;
}

/** What is laid beside the books: rows, and keys of earlier ones that others stand in the place of. */
export interface TheirRows {
  rows: TheirRow[];
  amended: ReadonlySet<string>;
}

/** The lists a row may come from: one, and those before it of the same kind and party. */
interface ListsTo {
  id: number;
  registration: number;
  kind: string;
  contact: number | null;
  end: string;
}

/** Rows of a list and of those before it, newest first; one that is told again, or amended since, counts once. */
export async function theirRows(
  work: Work,
  { registration, kind, contact, end, id }: ListsTo,
  { kin }: StatementKind,
): Promise<TheirRows> {
  const told = await work.rows<Omit<TheirRow, "taxes" | "partyKin"> & { taxes: string; original: string }>(
    `SELECT t.id, t.key, t.party_number AS partyNumber, t.party_name AS partyName, t.number, t.original, t.date, t.value,
       t.tax, t.taxes, t.rate, t.place, t.ineligible, t.note
     FROM statements s JOIN statement_rows t ON t.statement_id = s.id
     WHERE s.registration_id = $1 AND s.kind = $2 AND s.contact_id IS $3 AND (s.id = $5 OR s.period_end < $4)
     ORDER BY s.id = $5 DESC, s.period_end DESC, t.id`,
    [registration, kind, contact, end, id],
  );
  const seen = new Set<string>();
  const replaced = new Set<string>();
  const amended = new Set<string>();
  const rows = told.flatMap(({ taxes, original, ...row }): TheirRow[] => {
    if (seen.has(row.key)) return [];
    seen.add(row.key);
    const nameOf = (number: string) => `${row.partyNumber}/${plainNumber(number).whole}`;
    if (replaced.has(nameOf(row.number))) {
      amended.add(row.key);
      return [];
    }
    if (original !== "") replaced.add(nameOf(original));
    const partyKin = kin ? row.partyNumber.slice(kin[0], kin[1] + 1) : "";
    return [{ ...row, original, partyKin, taxes: JSON.parse(taxes) as Record<string, number> }];
  });
  return { rows, amended };
}
