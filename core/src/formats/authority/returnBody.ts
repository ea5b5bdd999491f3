import { FiscalError } from "../../errors.ts";
import type { ReturnForm } from "../../model/returnForm.ts";

/** The body of an electronic return: its period's key, and a number a field in major units. */
export type ReturnBody = { periodKey: string; finalised: true } & Record<string, string | number | boolean>;

/**
 * The return as the authority's JSON. Amounts of whole pence divide exactly enough for a JSON number of two
 * decimals: below 10^13 major units a double is within a hundredth of the smallest unit.
 * @param boxes amounts in minor units of a currency with two decimals
 * @throws FiscalError `formats/missing-box`
 * @source HMRC Developer Hub, VAT (MTD) API 1.0; from memory
 */
export function returnBody(
  { fields = {} }: Pick<ReturnForm, "fields">,
  periodKey: string,
  boxes: readonly { box: string; amount: number }[],
): ReturnBody {
  const amounts = Object.entries(fields).map(([box, field]) => {
    const result = boxes.find((one) => one.box === box);
    if (!result) throw new FiscalError("formats/missing-box", `The return has no box ${box}.`);
    return [field, result.amount / 100] as const;
  });
  return { periodKey, ...Object.fromEntries(amounts), finalised: true };
}
