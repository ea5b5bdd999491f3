import { FiscalError } from "../../errors.ts";
import type { BoxResult } from "../../returns/evaluateReturn.ts";

/** The body of a VAT return as the authority publishes it (VAT (MTD) API 1.0). Amounts in pounds. */
export interface GbReturnBody {
  periodKey: string;
  vatDueSales: number;
  vatDueAcquisitions: number;
  totalVatDue: number;
  vatReclaimedCurrPeriod: number;
  netVatDue: number;
  totalValueSalesExVAT: number;
  totalValuePurchasesExVAT: number;
  totalValueGoodsSuppliedExVAT: number;
  totalAcquisitionsExVAT: number;
  finalised: true;
}

type MoneyField = Exclude<keyof GbReturnBody, "periodKey" | "finalised">;

/** Which field carries which box. */
export const FIELD_OF_BOX: Readonly<Record<string, MoneyField>> = {
  "1": "vatDueSales",
  "2": "vatDueAcquisitions",
  "3": "totalVatDue",
  "4": "vatReclaimedCurrPeriod",
  "5": "netVatDue",
  "6": "totalValueSalesExVAT",
  "7": "totalValuePurchasesExVAT",
  "8": "totalValueGoodsSuppliedExVAT",
  "9": "totalAcquisitionsExVAT",
};

/**
 * The return as the authority's JSON. Amounts of whole pence divide exactly enough for a JSON number of two
 * decimals: below 10^13 pounds a double is within a hundredth of a penny.
 * @throws FiscalError `formats/missing-box`
 */
export function gbReturnBody(
  periodKey: string,
  boxes: readonly Pick<BoxResult, "box" | "amount">[],
): GbReturnBody {
  const body: Partial<GbReturnBody> = { periodKey };
  for (const [box, field] of Object.entries(FIELD_OF_BOX)) {
    const result = boxes.find((one) => one.box === box);
    if (!result) throw new FiscalError("formats/missing-box", `The return has no box ${box}.`);
    body[field] = result.amount / 100;
  }
  return { ...(body as Omit<GbReturnBody, "finalised">), finalised: true };
}
