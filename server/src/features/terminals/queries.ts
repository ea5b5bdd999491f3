import { inKinds } from "../../db/kindSql.ts";
import { unmappedTaxes } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalMapping } from "@fiscalon/core/incoming/terminalDay";
import type { TerminalDay, TerminalDayPage, TerminalView } from "@fiscalon/contract/terminals";
import type { Work } from "../../base/work.ts";

/** The terminals of a client, with what waits. */
export async function terminalViews(work: Work, clientId: number): Promise<TerminalView[]> {
  const rows = await work.rows<
    Omit<TerminalView, "mapping" | "unmapped" | "authorised"> & {
      mapping: string;
      taxes: string | null;
      authorised: number;
    }
  >(
    `SELECT t.id, t.merchant, t.token <> '' AS authorised, t.name, t.zone, t.cut_off AS cutOff, t.start, t.mapping,
       (SELECT coalesce(sum(s.count), 0) FROM terminal_sums s WHERE s.terminal_id = t.id) AS transactions,
       (SELECT count(*) FROM terminal_sums s WHERE s.terminal_id = t.id AND s.document_id = 0) AS waiting,
       (SELECT max(s.day) FROM terminal_sums s WHERE s.terminal_id = t.id AND s.document_id <> 0) AS lastDay,
       (SELECT json_group_array(DISTINCT i.value ->> 'tax') FROM terminal_transactions x, json_each(x.payload, '$.items') i
         WHERE x.terminal_id = t.id AND x.document_id IS NULL) AS taxes
     FROM terminals t WHERE t.client_id = $1 ORDER BY t.id`,
    [clientId],
  );
  return rows.map(({ taxes, ...row }) => {
    const mapping = JSON.parse(row.mapping) as TerminalMapping;
    const seen = JSON.parse(taxes ?? "[]") as string[];
    const items = seen.map((tax) => ({ name: "", amount: 0, tax }));
    const asked = { id: "", at: "", kind: "sale", gross: 0, items, surcharge: 0, tip: 0, fee: 0 } as const;
    return { ...row, authorised: row.authorised === 1, mapping, unmapped: unmappedTaxes([asked], mapping) };
  });
}

/** Trading days of a terminal, newest first. */
export async function terminalDays(
  work: Work,
  terminalId: number,
  { offset, limit }: { offset: number; limit: number },
): Promise<TerminalDayPage> {
  const totals = await work.one<{ total: number; gross: number; fees: number }>(
    `SELECT count(DISTINCT day) AS total, coalesce(sum(gross), 0) AS gross, coalesce(sum(fees), 0) AS fees
     FROM terminal_sums WHERE terminal_id = $1`,
    [terminalId],
  );
  const rows = await work.rows<Omit<TerminalDay, "documents"> & { documents: string }>(
    `SELECT s.day, sum(s.count) AS transactions, sum(s.gross) AS gross, sum(s.surcharge) AS surcharge,
       sum(s.refunds) AS refunds, sum(s.tips) AS tips, sum(s.fees) AS fees,
       (SELECT json_group_array(json_object('id', d.id, 'kind', d.kind, 'number', d.number)) FROM documents d
         WHERE d.state = 'posted' AND d.client_id = (SELECT client_id FROM terminals WHERE id = $1)
           AND ${inKinds("d.kind", ({ entry }) => entry === "feed")} AND d.date = s.day
           AND instr(d.source_key, ':' || (SELECT merchant FROM terminals WHERE id = $1) || ':') > 0) AS documents
     FROM terminal_sums s WHERE s.terminal_id = $1 GROUP BY s.day ORDER BY s.day DESC LIMIT $2 OFFSET $3`,
    [terminalId, limit, offset],
  );
  return {
    ...totals,
    rows: rows.map((row) => ({ ...row, documents: JSON.parse(row.documents) as TerminalDay["documents"] })),
  };
}
