import { kindOff } from "@fiscalon/core/model/stockBook";
import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import type { Work } from "../../base/work.ts";

/** Why a piece of this kind, bought on this line, is not on the scheme; null where it is. */
export async function whyOff(
  work: Work,
  rule: StockBookRule,
  kind: string,
  bought: { document: number; line: number } | null,
): Promise<string | null> {
  const byKind = kindOff(rule, kind);
  if (byKind !== undefined) return byKind;
  if (!bought) return null;
  const line = await work.row<{ code: string; tax: number }>(
    "SELECT coalesce(code, '') AS code, gross - net AS tax FROM lines WHERE document_id = $1 AND no = $2",
    [bought.document, bought.line],
  );
  return line && (line.tax !== 0 || !rule.purchases.includes(line.code)) ? "tax stands on the bill" : null;
}
