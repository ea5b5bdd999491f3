import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { FiscalError } from "@fiscalon/core/errors";
import type { RateChangeRule } from "@fiscalon/core/model/rateChange";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { rateParts } from "@fiscalon/core/tax/rateChange";
import type { MoveNear, RateChange, RatePart } from "@fiscalon/core/tax/rateChange";
import { usePacks } from "../../api/packs.ts";
import { Field, SelectField } from "../../kit/Field.tsx";
import type { DraftLine } from "./draft.ts";

/**
 * Under a line whose rate changed close to its day: what of it was delivered and paid before, and the parts that the law
 * makes of it.
 */
export function RateChangeParts({
  row,
  line,
  amount,
  rule,
  change: found,
  invoiced,
  digits,
  onSplit,
}: {
  row: number;
  line: DraftLine;
  /** What the line comes to, also where it is quantity times price; minor units. */
  amount: number;
  rule: RateChangeRule;
  change: RateChange | MoveNear;
  invoiced: string;
  digits: number;
  onSplit: (lines: DraftLine[]) => void;
}) {
  const packs = usePacks();
  const [delivered, setDelivered] = useState("");
  const [paid, setPaid] = useState("");
  const [chosen, setChosen] = useState("");
  const move = "own" in found ? moveTo(found, chosen) : null;
  const change = "own" in found ? (move?.change ?? null) : found;
  const asked = change !== null;
  const said = asked && (delivered !== "" || paid !== "" || invoiced < change.on);
  const parts = said ? partsOf(change) : null;

  function partsOf(change: RateChange): RatePart[] | FiscalError {
    try {
      return rateParts(rule, change, {
        amount,
        invoiced,
        delivered: parseAmount(delivered || "0", digits),
        paid: parseAmount(paid || "0", digits),
      });
    } catch (error) {
      if (error instanceof FiscalError) return error;
      throw error;
    }
  }
  return (
    <tr>
      <td colSpan={12} className="!py-1.5">
        <div role="group" aria-label={`Change of rate on line ${row + 1}`} className="text-[13px]">
          <p>
            <span aria-hidden className="mr-2 text-warning">
              ◆
            </span>
            {"own" in found
              ? `Rates of goods and services moved on ${displayDate(found.on)}. If this is ${found.own.rate} % only ${found.isOld ? "before" : "from"} that day, say the other rate.`
              : `${packs.rateName(found.schedule)} changed on ${displayDate(found.on)} from ${found.before} to ${found.after} %. Was something of it delivered or paid before?`}
          </p>
          <div className="mt-1 flex flex-wrap items-end gap-4">
            {"own" in found && (
              <SelectField
                label={found.isOld ? "Rate from that day" : "Rate before"}
                value={chosen}
                onChange={({ target }) => setChosen(target.value)}
              >
                <option value="">the same</option>
                {found.others.map(({ code, rate }) => (
                  <option key={code} value={code}>
                    {rate} %, {code}
                  </option>
                ))}
              </SelectField>
            )}
            {asked && (
              <>
                <Field
                  className="w-[130px] text-right font-mono"
                  label="Delivered before"
                  inputMode="decimal"
                  value={delivered}
                  onChange={({ target }) => setDelivered(target.value.replaceAll(",", ""))}
                />
                <Field
                  className="w-[130px] text-right font-mono"
                  label="Paid before"
                  inputMode="decimal"
                  value={paid}
                  onChange={({ target }) => setPaid(target.value.replaceAll(",", ""))}
                />
              </>
            )}
            {parts instanceof FiscalError && <span className="text-error">{parts.message}</span>}
            {change && parts && !(parts instanceof FiscalError) && (
              <>
                <span className="pb-1.5">
                  {parts
                    .map(
                      ({ amount, rateOn }) =>
                        `${displayAmount(amount, digits)} at ${rateOn < change.on ? change.before : change.after} %`,
                    )
                    .join(", ")}
                  : {rule.says}
                  {rule.election ? ", by choice of the supplier" : ""}{" "}
                  <span className="quiet">({rule.source})</span>
                </span>
                <button
                  type="button"
                  className="action !py-0.5"
                  onClick={() =>
                    onSplit(
                      parts.map((part) => ({
                        ...lineOf(line, amount, part, digits),
                        ...(move ? { code: part.rateOn < change.on ? move.before : move.after } : {}),
                      })),
                    )
                  }
                >
                  {parts.length > 1 ? "Make two lines of it" : "Take that rate"}
                </button>
              </>
            )}
          </div>
        </div>
      </td>
    </tr>
  );
}

/** A move between codes as a change of rate, once it is said where to or where from. */
function moveTo(
  { on, own, isOld, others }: MoveNear,
  chosen: string,
): { change: RateChange; before: string; after: string } | null {
  const other = others.find(({ code }) => code === chosen);
  if (!other) return null;
  const [before, after] = isOld ? [own, other] : [other, own];
  return {
    change: { schedule: "", on, before: before.rate, after: after.rate },
    before: before.code,
    after: after.code,
  };
}

/** The part as a line of its own; quantity and price a unit belong to the whole. */
function lineOf(
  line: DraftLine,
  whole: number,
  { amount, rateOn, why }: RatePart,
  digits: number,
): DraftLine {
  return {
    ...line,
    ...(amount === whole
      ? {}
      : { amount: formatAmount(amount, digits), quantity: "", unitPrice: "", discount: "" }),
    attributes: { ...line.attributes, rateOn, rateReason: why },
  };
}
