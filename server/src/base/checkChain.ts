import type { ChainCheck } from "@fiscalon/contract/audit";
import { CHANGE_COLUMNS, hashOf } from "./chain.ts";
import type { ChangeRow } from "./chain.ts";
import type { Work } from "./work.ts";

const PAGE = 1000;

/** Walks the whole trail and compares every hash. */
export async function checkChain(work: Work): Promise<ChainCheck> {
  const check: ChainCheck = { entries: 0, broken: null, last: "" };
  let after = 0;
  for (;;) {
    const rows = await work.rows<ChangeRow>(
      `SELECT ${CHANGE_COLUMNS} FROM changes WHERE id > $1 ORDER BY id LIMIT ${PAGE}`,
      [after],
    );
    for (const row of rows) {
      check.entries += 1;
      if (row.hash !== hashOf(check.last, row)) return { ...check, broken: row.id };
      check.last = row.hash;
    }
    const end = rows.at(-1);
    if (!end) return check;
    after = end.id;
  }
}
