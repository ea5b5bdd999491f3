import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { textAt } from "@fiscalon/core/at";
import { TAX_PAYMENT_KINDS } from "@fiscalon/core/model/taxPaymentKinds";
import { FiscalError } from "@fiscalon/core/errors";
import { dueAccounts } from "../../books/settlement/taxPayments.ts";
import type { TrailPart, TrailStep } from "@fiscalon/contract/trail";
import { registrationIn } from "../../books/loadSetup.ts";
import { settlementView } from "../../features/settle/queries.ts";
import type { TrailScope } from "./trailScope.ts";

const WORDS: Record<string, string> = {
  opening: "What was due after the period before.",
  declared: "What the return declared, from the day its closing entry was posted.",
  disclosed: "What was put right apart from the return, from the day its closing entry was posted.",
  charges: "Interest and penalties the authority charged.",
  paid: "Money that went to the authority.",
  refunded: "Money that came from the authority.",
  closing: "Opening + declared + put right separately + charges − paid + refunded.",
  ledger: "Balance of the account in the ledger, from every entry up to this period.",
};

/** One figure of the continuity table: what is due to the authority, period by period. */
export async function continuityStep(
  { work, setup }: TrailScope,
  parts: string[],
  ref: string,
): Promise<TrailStep> {
  const [rid = "", end = "", column = ""] = parts;
  const r = registrationIn(setup, rid);
  const view = await settlementView(work, setup, r, end);
  const row = view.continuity.find((one) => one.period === end);
  const amount = row?.[column as keyof typeof row];
  if (!row || typeof amount !== "number")
    throw new FiscalError("trail/not-found", `There is no trail for "${ref}".`, "ref");
  const step = (name: keyof typeof row, label: string): TrailPart => ({
    ref: `continuity/${rid}/${end}/${name}`,
    label,
    detail: "",
    amount: Number(row[name]),
  });
  const listed: Record<string, TrailPart[]> = {
    declared:
      view.posted === null
        ? []
        : [{ ref: `entry/${view.posted}`, label: "Closing entry", detail: displayDate(end), amount }],
    disclosed: view.late
      .filter(({ separately }) => separately)
      .map((one) => ({
        ref: `document/${one.document}`,
        label: one.number,
        detail: `of the period to ${displayDate(one.own)}`,
        amount: one.output - one.input,
      })),
    closing: [
      step("opening", "Opening"),
      step("declared", "Declared"),
      step("disclosed", "Put right separately"),
      step("charges", "Charges"),
      { ...step("paid", "Paid"), amount: -row.paid },
      step("refunded", "Refunded"),
    ],
    ledger: dueAccounts(setup, r).map((account) => ({
      ref: `account/${account}/1900-01-01/2999-12-31`,
      label: "Every entry of the account",
      detail: account,
      amount: null,
    })),
  };
  const payments = view.payments
    .filter(({ kind }) => TAX_PAYMENT_KINDS[kind].column === column)
    .map((payment): TrailPart => ({
      ref: `entry/${payment.entry}`,
      label: payment.reference || TAX_PAYMENT_KINDS[payment.kind].name,
      detail: displayDate(payment.date),
      amount: payment.amount,
    }));
  return {
    ref,
    title: `Due to ${displayDate(view.to)}: ${column}`,
    amount,
    digits: setup.plain.digits,
    words: [textAt(WORDS, column)],
    parts: listed[column] ?? payments,
    arithmetic: [],
    open: { label: "Settle", path: "settle" },
  };
}
