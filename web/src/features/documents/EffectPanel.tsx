import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { usePacks } from "../../api/packs.ts";
import clsx from "clsx";
import { movementsUnder } from "@fiscalon/core/schemes/movementsUnder";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import { isJournal } from "@fiscalon/core/model/document";
import { minorDigits } from "@fiscalon/core/money/currency";
import { displayAmount } from "@fiscalon/core/money/amount";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { TYPED } from "@fiscalon/core/supply/chooseCode";
import { useScope } from "../../app/scope.ts";
import { returnsMoved } from "./returnsMoved.ts";
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
  const packs = usePacks();
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
  const returns = returnsMoved(movementsUnder(effect.facts, setup), client?.registrations ?? [], packs);
  const priced = effect.printed.lines[live.at.indexOf(line)];
  const reason = draft.lines[line]?.codeReason;
  return (
    <section aria-label="Effect" tabIndex={0} className="h-full overflow-y-auto px-4 pt-2 pb-8">
      <header className="mb-2 flex items-baseline justify-between">
        <h2>Effect</h2>
        <span className="quiet text-[12.5px]">{posted ? "of this document" : "of posting this"}</span>
      </header>
      <table className="sheet-table">
        <thead>
          <tr>
            <th className="!px-0">Ledger, {displayDate(effect.ledgerDate)}</th>
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
      {returns.map(({ key, title, rows: boxes }) => (
        <table key={key} className="sheet-table mt-5">
          <thead>
            <tr>
              <th className="!px-0" colSpan={2}>
                {title}
              </th>
              <th className="num">{posted ? "moved by" : "moves by"}</th>
            </tr>
          </thead>
          <tbody>
            {boxes.map(({ box, name, amount }) => (
              <tr key={box}>
                <td className="min-w-7 !pl-0 !pr-2 font-semibold whitespace-nowrap text-secondary">{box}</td>
                <td className="!px-0">{name}</td>
                <td className="num">
                  {amount > 0 ? "+" : ""}
                  {displayAmount(amount, digits)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      {returns.length === 0 && (
        <p className="quiet mt-3">
          Nothing on the return
          {effect.facts.some(({ held }) => held) ? " until it is paid." : "."}
        </p>
      )}
      {priced && !isJournal(draft) && (
        <>
          <h2 className="mt-5 mb-1">Line {line + 1}</h2>
          {priced.code && (
            <p className="quiet mb-1 text-[12.5px]">
              {priced.code.code}, {priced.code.name}: {reasonWords(reason)}.
            </p>
          )}
          <pre className="arithmetic">
            {priced.taxes.flatMap((_, index) => explainTax(priced, index, ownDigits)).join("\n") ||
              "no tax code"}
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

/** Why a line has its code, as the end of a sentence. */
function reasonWords(reason: string | undefined): string {
  return reason && reason !== TYPED ? reason.replace(/\.$/, "") : "chosen by hand";
}
