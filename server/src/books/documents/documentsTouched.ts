import { FiscalError } from "@fiscalon/core/errors";
import { schedulesOfCode } from "@fiscalon/core/jurisdictions/doubtsInUse";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../loadSetup.ts";
import { loadDocuments } from "./loadDocuments.ts";
import type { StoredDocument } from "./loadDocuments.ts";

/**
 * The posted documents of a client, none of whose facts is sealed, that would bear another rate if a schedule had these
 * rows.
 * @throws FiscalError `tax/no-rate` where one of them would have no rate any more
 */
export async function documentsTouched(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<StoredDocument[]> {
  const { plain } = await loadSetup(work, clientId);
  const codes = plain.codes.flatMap(expandCode).filter((code) => schedulesOfCode(code).includes(ref));
  if (codes.length === 0) return [];
  const documents = await loadDocuments(
    work,
    `d.client_id = $1 AND d.state = 'posted' AND EXISTS (SELECT 1 FROM facts x WHERE x.document_id = d.id AND x.live = 1
       AND x.code IN (SELECT value FROM json_each($2)))
     AND NOT EXISTS (SELECT 1 FROM facts f JOIN returns r ON r.registration_id = f.registration_id
       AND r.period_end = f.period_end AND r.state IN ('sealed', 'filed', 'settled')
       WHERE f.document_id = d.id AND f.live = 1)`,
    [clientId, JSON.stringify(codes.map(({ code }) => code))],
  );
  const now = plain.schedules[ref];
  return documents.filter(({ input }) => {
    const on = input.originalDate ?? input.taxPoint ?? input.date;
    const then = rowInForce(rows, on);
    if (!then && rowInForce(now, on)) {
      throw new FiscalError(
        "tax/no-rate",
        `${input.number} of ${on} would have no rate any more. Give that day a rate.`,
        "rows",
      );
    }
    return then?.rate !== rowInForce(now, on)?.rate;
  });
}
