import type { ImportPage, ImportRow } from "@fiscalon/contract/imports";
import type { Work } from "../../base/work.ts";
import { listOrder } from "../../db/listOrder.ts";
import type { ListOrder, SortColumns } from "../../db/listOrder.ts";

export interface ImportFilter extends ListOrder {
  search: string;
  offset: number;
  limit: number;
}

/** What imports can be ordered by. */
export const IMPORT_ORDER: SortColumns = {
  file: "i.file_name COLLATE NOCASE",
  received: "i.created_at",
  state: "i.state",
  dates: "i.report ->> 'from'",
  records: "i.documents",
};

/** Imports of a client, the newest first unless asked otherwise. */
export async function importPage(work: Work, clientId: number, filter: ImportFilter): Promise<ImportPage> {
  const where = "i.client_id = $1 AND i.file_name LIKE $2";
  const bind = [clientId, `%${filter.search}%`];
  const { total } = await work.one<{ total: number }>(
    `SELECT count(*) AS total FROM imports i WHERE ${where}`,
    bind,
  );
  const rows = await work.rows<ImportRow>(
    `SELECT i.id, i.content, i.direction, i.file_name AS fileName, i.state, i.documents, i.created_at AS at, p.name AS "by",
       i.report ->> 'from' AS "from", i.report ->> 'to' AS "to"
     FROM imports i JOIN people p ON p.id = i.created_by WHERE ${where}
     ORDER BY ${listOrder(IMPORT_ORDER, filter, "i.id DESC")} LIMIT $3 OFFSET $4`,
    [...bind, filter.limit, filter.offset],
  );
  return { total, rows };
}
