import clsx from "clsx";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import { isJournal } from "@fiscalon/core/tax/documentInput";
import { minorDigits } from "@fiscalon/core/money/currency";
import { displayAmount } from "@fiscalon/core/money/amount";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { boxDefinition } from "@fiscalon/core/returns/evaluateReturn";
import { showDate } from "../../kit/format.ts";
import { useScope } from "../../app/scope.ts";
import { formOfRegistration } from "../../kit/formBoxes.ts";
import type { Draft } from "./draft.ts";
import type { LiveEffect } from "./useEffectOf.ts";

/** What posting the document does: entries, boxes, reasons and the arithmetic of the line in hand. */
export function EffectPanel({
  draft,
  live,
  setup,
  line,
  posted,
}: {
  draft: Draft;
  live: LiveEffect;
  setup: EffectSetup;
  line: number;
  posted: boolean;
}) {
  const { client } = useScope();
  const { effect } = live;
  const { digits } = setup;
  const ownDigits = minorDigits(draft.currency || setup.currency);
  if (!effect) {
    return (
      <section aria-label="Effect" className="p-4">
        <h2>Effect</h2>
        <p className="quiet mt-2">
          {live.error
            ? live.error.message
            : "Type a line, and what it does to ledger and return appears here."}
        </p>
      </section>
    );
  }
  const accounts = new Map<string, number>();
  for (const posting of effect.postings)
    accounts.set(posting.account, (accounts.get(posting.account) ?? 0) + posting.amount);
  const rows = [...accounts].filter(([, amount]) => amount !== 0);
  const debit = rows.reduce((sum, [, amount]) => sum + Math.max(0, amount), 0);
  const boxes = boxMovements(effect.facts);
  const periodEnd = boxes[0]?.periodEnd;
  const owner = client?.registrations.find(({ id }) => id === boxes[0]?.registration);
  const form = owner ? formOfRegistration(owner, periodEnd) : undefined;
  const priced = effect.printed.lines[live.at.indexOf(line)];
  const reason = draft.lines[line]?.codeTyped ? "chosen by hand" : draft.lines[line]?.codeReason;
  return (
    <section aria-label="Effect" className="h-full overflow-y-auto px-4 pt-2 pb-8">
      <header className="mb-2 flex items-baseline justify-between">
        <h2>Effect</h2>
        <span className="quiet text-[12.5px]">{posted ? "of this document" : "of posting this"}</span>
      </header>
      <table className="sheet-table">
        <thead>
          <tr>
            <th className="!px-0">Ledger, {showDate(effect.ledgerDate)}</th>
            <th className="num">debit</th>
            <th className="num">credit</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([account, amount]) => (
            <tr key={account}>
              <td className="!px-0">
                {account} {setup.accounts.find((one) => one.code === account)?.name}
              </td>
              <td className="num">{amount > 0 ? displayAmount(amount, digits) : ""}</td>
              <td className="num">{amount < 0 ? displayAmount(-amount, digits) : ""}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td className="!px-0">in balance</td>
            <td className="num">{displayAmount(debit, digits)}</td>
            <td className="num">{displayAmount(debit, digits)}</td>
          </tr>
        </tbody>
      </table>
      <table className="sheet-table mt-5">
        <thead>
          <tr>
            <th className="!px-0" colSpan={2}>
              {form?.name ?? "Return"}
              {periodEnd ? `, period to ${showDate(periodEnd)}` : ""}
            </th>
            <th className="num">moves by</th>
          </tr>
        </thead>
        <tbody>
          {boxes.map((row) => (
            <tr key={`${row.registration} ${row.box}`}>
              <td className="!px-0 min-w-7 pr-2 font-semibold whitespace-nowrap text-secondary">{row.box}</td>
              <td className="!px-0">{form && boxDefinition(form, row.box).short}</td>
              <td className="num">
                {row.amount > 0 ? "+" : ""}
                {displayAmount(row.amount, digits)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {boxes.length === 0 && (
        <p className="quiet mt-1">
          Nothing on the return
          {effect.facts.some(({ held }) => held) ? " until it is paid: the cash basis applies." : "."}
        </p>
      )}
      {priced && !isJournal(draft) && (
        <>
          <h2 className="mt-5 mb-1">Line {line + 1}</h2>
          {priced.code && (
            <p className="quiet mb-1 text-[12.5px]">
              {priced.code.code}, {priced.code.name}: {(reason || "chosen by hand").replace(/\.$/, "")}.
            </p>
          )}
          <pre className="arithmetic">
            {priced.taxes
              .flatMap((_, index) =>
                explainTax(priced.amount, priced.mode, priced.taxes, index, priced.rounding, ownDigits),
              )
              .join("\n") || "no tax code"}
          </pre>
        </>
      )}
      {effect.warnings.length > 0 && (
        <ul className="mt-5 space-y-2" aria-label="Warnings">
          {effect.warnings.map((warning) => (
            <li key={`${warning.code} ${warning.line}`} className="note-row flex gap-2 text-[13px]">
              <span
                aria-hidden
                className={clsx(warning.code === "document/no-code" ? "text-error" : "text-warning")}
              >
                ◆
              </span>
              {warning.text}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
