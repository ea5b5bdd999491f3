import { useState } from "react";
import { FiscalError } from "@fiscalon/core/errors";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { DocumentKind, PriceMode } from "@fiscalon/core/tax/documentInput";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { ROUND_EACH_LINE } from "@fiscalon/core/tax/rounding";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";
import type { TrailStep } from "@fiscalon/contract/trail";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { today } from "../../kit/format.ts";

const NEVER = "0001-01-01";

/** The trial calculation of a code: an amount in both modes, with arithmetic, accounts and boxes. */
export function CodeBench({
  code,
  setup,
}: {
  code: TaxCode;
  setup: { plain: PlainSetup; effect: EffectSetup };
}) {
  const [amount, setAmount] = useState("100.00");
  const [date, setDate] = useState(today());
  const [side, setSide] = useState<"sale" | "purchase">(code.direction === "purchase" ? "purchase" : "sale");
  const effect = alwaysRegistered(setup.effect);
  const results = (["exclusive", "inclusive"] as const).map((mode) =>
    attempt(code, amount, date, side, mode, effect),
  );
  const [exclusive, inclusive] = results;
  const failed = results.find((result) => result instanceof FiscalError);
  return (
    <section aria-label="Code bench" className="h-full overflow-y-auto px-4 pt-3 pb-8">
      <header className="mb-3 flex items-center justify-between">
        <h2>Code bench</h2>
        <span className="code-chip">{code.code}</span>
      </header>
      <p className="quiet mb-3 text-[12.5px]">
        {code.name}. {code.note} Source: {code.source}.
      </p>
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Amount"
          value={amount}
          onChange={(event) => setAmount(event.target.value.replaceAll(",", ""))}
          inputMode="decimal"
          className="font-mono"
        />
        <DateField label="Tax point" value={date} onChange={setDate} className="w-full" />
        {code.direction === "both" && (
          <SelectField
            label="As"
            value={side}
            onChange={(event) => setSide(event.target.value as "sale" | "purchase")}
          >
            <option value="sale">sale</option>
            <option value="purchase">purchase</option>
          </SelectField>
        )}
      </div>
      {failed instanceof FiscalError && (
        <p role="alert" className="mt-4 text-error">
          {failed.message}
        </p>
      )}
      {exclusive &&
        inclusive &&
        !(exclusive instanceof FiscalError) &&
        !(inclusive instanceof FiscalError) && (
          <Results
            exclusive={exclusive}
            inclusive={inclusive}
            digits={setup.plain.digits}
            setup={setup}
            amount={amount}
            code={code}
          />
        )}
    </section>
  );
}

/** The bench tries codes out also where no registration is in force yet. */
function alwaysRegistered(setup: EffectSetup): EffectSetup {
  const [first] = setup.registrations;
  const registration = first
    ? { ...first, from: NEVER, to: null }
    : {
        id: 0,
        pack: "gb",
        levies: ["VAT"],
        basis: "accrual" as const,
        rounding: ROUND_EACH_LINE,
        frequency: "quarterly" as const,
        anchor: "2026-03-31",
        from: NEVER,
        to: null,
      };
  return { ...setup, registrations: [registration], sealed: new Map() };
}

function attempt(
  code: TaxCode,
  amount: string,
  date: string,
  side: "sale" | "purchase",
  mode: PriceMode,
  setup: EffectSetup,
): DocumentEffect | FiscalError {
  const kind: DocumentKind = side === "sale" ? "sales-invoice" : "purchase-bill";
  try {
    return documentEffect(
      { kind, date, prices: mode, lines: [{ amount, code: code.code, text: "trial" }] },
      setup,
    );
  } catch (error) {
    if (error instanceof FiscalError) return error;
    throw error;
  }
}

function Results({
  exclusive,
  inclusive,
  digits,
  setup,
  amount,
  code,
}: {
  exclusive: DocumentEffect;
  inclusive: DocumentEffect;
  digits: number;
  setup: { plain: PlainSetup; effect: EffectSetup };
  amount: string;
  code: TaxCode;
}) {
  const rounding = setup.plain.registrations[0]?.rounding ?? ROUND_EACH_LINE;
  const arithmetic = (effect: DocumentEffect, mode: PriceMode) =>
    effect.priced.lines.flatMap((line) =>
      line.taxes.flatMap((_, index) => explainTax(line.amount, mode, line.taxes, index, rounding, digits)),
    );
  const step = (name: string, value: number, effect: DocumentEffect, mode: PriceMode): TrailStep => ({
    ref: `bench/${code.code}/${mode}/${name}`,
    title: `${name} of ${amount}, tax-${mode}`,
    amount: value,
    digits,
    words: [`Trial with code ${code.code}, ${code.name}.`, `Source: ${code.source}.`],
    parts: [],
    arithmetic: arithmetic(effect, mode),
  });
  const taxes = exclusive.priced.lines[0]?.taxes ?? [];
  const rows: [string, (effect: DocumentEffect) => number, boolean][] = [
    ["Net", (effect) => effect.priced.net, false],
    ...taxes.map((tax, index): [string, (effect: DocumentEffect) => number, boolean] => [
      `${tax.component.levy}${tax.rate === null ? "" : ` ${tax.rate} %`}${tax.component.charged === "self-assessed" ? ", self-assessed" : ""}`,
      (effect) => effect.priced.lines[0]?.taxes[index]?.tax ?? 0,
      false,
    ]),
    ["Gross", (effect) => effect.priced.gross, true],
  ];
  return (
    <>
      <table className="sheet-table mt-4">
        <thead>
          <tr>
            <th />
            <th className="num">exclusive</th>
            <th className="num">inclusive</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, value, total]) => (
            <tr key={name} className={total ? "total" : ""}>
              <td className="!px-0">{name}</td>
              <td className="num">
                <Figure
                  amount={value(exclusive)}
                  digits={digits}
                  of={step(name, value(exclusive), exclusive, "exclusive")}
                  label={name}
                />
              </td>
              <td className="num">
                <Figure
                  amount={value(inclusive)}
                  digits={digits}
                  of={step(name, value(inclusive), inclusive, "inclusive")}
                  label={name}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <pre className="arithmetic mt-3">
        {[...arithmetic(exclusive, "exclusive"), "", ...arithmetic(inclusive, "inclusive")].join("\n").trim()}
      </pre>
      {exclusive.priced.gross !== exclusive.priced.net && (
        <p className="quiet mt-2 text-[12.5px]">
          Agreed as {amount} including tax,{" "}
          {displayAmount(exclusive.priced.net - inclusive.priced.net, digits)} less is left than agreed as{" "}
          {amount} plus tax.
        </p>
      )}
      <h2 className="mt-5 mb-1">Accounts, tax-exclusive</h2>
      <ul>
        {exclusive.postings.map((posting, index) => (
          <li key={index} className="flex justify-between border-b border-base-300 py-1">
            <span>
              {posting.account}{" "}
              {setup.plain.accounts.find((account) => account.code === posting.account)?.name}
            </span>
            <span className="num">
              {displayAmount(Math.abs(posting.amount), digits)} {posting.amount < 0 ? "Cr" : "Dr"}
            </span>
          </li>
        ))}
      </ul>
      <h2 className="mt-5 mb-1">Lands on</h2>
      <ul>
        {boxMovements(exclusive.facts).map((row) => (
          <li key={row.box} className="flex justify-between border-b border-base-300 py-1">
            <span>Box {row.box}</span>
            <span className="num">{displayAmount(row.amount, digits)}</span>
          </li>
        ))}
        {boxMovements(exclusive.facts).length === 0 && <li className="quiet">No box.</li>}
      </ul>
    </>
  );
}
