import { FiscalError } from "@fiscalon/core/errors";
import { checkSchedules } from "@fiscalon/core/tax/checkSchedules";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import { parseFormula } from "@fiscalon/core/formula/parseFormula";
import type { RateRow, TaxCode } from "@fiscalon/core/model/taxCode";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { TouchedDocuments } from "@fiscalon/contract/views";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";
import { recomputeDocuments } from "../../books/documents/postDocuments.ts";

/** Which open documents a change of rates touches, without changing anything. */
export async function touchedBy(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return summary(await touched(work, clientId, ref, rows));
}

/** Keeps the rows of a schedule for this client and works the documents they touch out anew. */
export async function saveSchedule(
  work: Work,
  clientId: number,
  ref: string,
  rows: RateRow[],
): Promise<TouchedDocuments> {
  checkSchedules({ [ref]: rows });
  return work.write(async (work) => {
    const documents = await touched(work, clientId, ref, rows);
    const before = (await loadSetup(work, clientId)).plain.schedules[ref];
    const known = await work.models.schedules.findOne({ where: { clientId, ref }, ...work.options });
    if (known) await known.update({ rows }, work.options);
    else await work.models.schedules.create({ clientId, ref, rows, ...work.made }, work.options);
    await work.record({
      client: clientId,
      action: "change",
      entity: "schedule",
      id: null,
      before: { ref, rows: before },
      after: { ref, rows, documents: documents.length },
    });
    await recomputeDocuments(work, await loadSetup(work, clientId), documents);
    return summary(documents);
  });
}

async function touched(
  work: Work,
  clientId: number,
  ref: string,
  rows: readonly RateRow[],
): Promise<StoredDocument[]> {
  const { plain } = await loadSetup(work, clientId);
  const codes = plain.codes.flatMap(expandCode).filter((code) => reads(code, ref));
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

function reads(code: TaxCode, ref: string): boolean {
  return code.components.some(({ rate }) => {
    if ("schedule" in rate) return rate.schedule === ref;
    if (rate.kind !== "formula") return false;
    return [rate.formula, rate.base ?? "0"].some((text) => parseFormula(text).rates.includes(ref));
  });
}

function summary(documents: readonly StoredDocument[]): TouchedDocuments {
  return {
    count: documents.length,
    first: documents
      .slice(0, 20)
      .map(({ id, input, gross }) => ({ id, number: input.number, date: input.date, gross })),
  };
}
