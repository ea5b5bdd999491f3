import { FiscalError } from "@fiscalon/core/errors";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { formOn } from "@fiscalon/core/returns/formOn";
import type { Packs } from "@fiscalon/core/model/packs";
import { displayAmount } from "@fiscalon/core/money/amount";
import { boxDefinition } from "@fiscalon/core/returns/findBox";
import type { PriceMode } from "@fiscalon/core/model/document";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { TrailStep } from "@fiscalon/contract/trail";
import { Figure } from "../../kit/Figure.tsx";
import { inOtherOrder, isLawfulOrder, tryCode } from "./codeBenchInputs.ts";
import type { Trial } from "./codeBenchInputs.ts";

interface Results {
  code: TaxCode;
  trial: Trial;
  exclusive: DocumentEffect;
  inclusive: DocumentEffect;
  setup: { plain: PlainSetup; effect: EffectSetup };
}

/** Both modes beside each other, the arithmetic, the other order, accounts and boxes. */
export function BenchResults({ code, trial, exclusive, inclusive, setup }: Results) {
  const { digits } = setup.plain;
  const { packs } = setup.effect;
  const arithmetic = (effect: DocumentEffect, mode: PriceMode) =>
    effect.priced.lines.flatMap((line) =>
      line.taxes.flatMap((tax, index) => [
        ...(line.taxes.length > 1 ? [`${packs.levyName(tax.component.levy)}:`] : []),
        ...explainTax({ ...line, mode }, index, digits),
      ]),
    );
  const step = (name: string, value: number, effect: DocumentEffect, mode: PriceMode): TrailStep => ({
    ref: `bench/${code.code}/${mode}/${name}`,
    title: `${name} of ${trial.amount}, tax-${mode}`,
    amount: value,
    digits,
    words: [`Trial with code ${code.code}, ${code.name}.`, `Source: ${code.source}.`],
    parts: [],
    arithmetic: arithmetic(effect, mode),
  });
  const rows = resultRows(exclusive, packs);
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
              {([exclusive, inclusive] as const).map((effect, index) => {
                const mode = index === 0 ? "exclusive" : "inclusive";
                return (
                  <td key={mode} className="num">
                    <Figure
                      amount={value(effect)}
                      digits={digits}
                      of={step(name, value(effect), effect, mode)}
                      label={name}
                    />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <pre className="arithmetic mt-3">
        {[...arithmetic(exclusive, "exclusive"), "", ...arithmetic(inclusive, "inclusive")].join("\n").trim()}
      </pre>
      {exclusive.priced.gross !== exclusive.priced.net && inclusive.priced.net !== exclusive.priced.net && (
        <p className="quiet mt-2 text-[12.5px]">
          Agreed as {trial.amount} including tax,{" "}
          {displayAmount(exclusive.priced.net - inclusive.priced.net, digits)} less is left than agreed as{" "}
          {trial.amount} plus tax.
        </p>
      )}
      <OtherOrder code={code} trial={trial} setup={setup} right={exclusive} />
      <Accounts effect={exclusive} setup={setup} />
      <Landing effect={exclusive} code={code} trial={trial} setup={setup} />
    </>
  );
}

function resultRows(
  effect: DocumentEffect,
  packs: Packs,
): [string, (effect: DocumentEffect) => number, boolean][] {
  const taxes = effect.priced.lines[0]?.taxes ?? [];
  return [
    ["Net", (one) => one.priced.net, false],
    ...taxes.map((tax, index): [string, (one: DocumentEffect) => number, boolean] => [
      `${packs.levyName(tax.component.levy)}${rateWords(tax)}${tax.component.charged === "self-assessed" ? ", self-assessed" : ""}`,
      (one) => one.priced.lines[0]?.taxes[index]?.tax ?? 0,
      false,
    ]),
    ["Gross", (one) => one.priced.gross, true],
  ];
}

function rateWords(tax: DocumentEffect["priced"]["lines"][number]["taxes"][number]): string {
  if (tax.rate === null) return "";
  const { kind } = tax.component.rate;
  return kind === "percent"
    ? ` ${tax.rate} %`
    : ` ${tax.rate} ${kind === "per-unit" ? "a unit" : "a document"}`;
}

/** What charging the levies in the opposite order would give, and which of the two the law has. */
function OtherOrder({
  code,
  trial,
  setup,
  right: shown,
}: Pick<Results, "code" | "trial" | "setup"> & { right: DocumentEffect }) {
  const turned = inOtherOrder(code);
  const other = turned ? tryCode(turned, trial, "exclusive", setup) : undefined;
  if (!turned || !other || other instanceof FiscalError) return null;
  const { digits } = setup.plain;
  const taxes = other.priced.lines[0]?.taxes ?? [];
  const { packs } = setup.effect;
  const lawful = isLawfulOrder(turned, packs);
  const same = other.priced.gross === shown.priced.gross;
  const verdict = lawful
    ? "This is the order of the law; the one above splits the tax wrongly."
    : same
      ? "The same total, but both labels wrong."
      : "Another total, too.";
  return (
    <>
      <h2 className="mt-5 mb-1">{lawful ? "In the lawful order" : "In the other order"}</h2>
      <p className="note-row text-[12.5px]">
        {taxes
          .map((tax) => `${packs.levyName(tax.component.levy)} ${displayAmount(tax.tax, digits)}`)
          .join(", ")}
        . {verdict} {code.order}
      </p>
    </>
  );
}

function Accounts({ effect, setup }: { effect: DocumentEffect; setup: Results["setup"] }) {
  return (
    <>
      <h2 className="mt-5 mb-1">Accounts, tax-exclusive</h2>
      <ul>
        {effect.postings.map((posting, index) => (
          <li key={index} className="flex justify-between gap-2 border-b border-base-300 py-1">
            <span>
              {posting.account}{" "}
              {setup.plain.accounts.find((account) => account.code === posting.account)?.name}
            </span>
            <span className="num">
              {displayAmount(Math.abs(posting.amount), setup.plain.digits)} {posting.amount < 0 ? "Cr" : "Dr"}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Landing({
  effect,
  code,
  trial,
  setup,
}: Pick<Results, "code" | "trial" | "setup"> & { effect: DocumentEffect }) {
  const rows = boxMovements(effect.facts).filter((row) => row.amount !== 0);
  return (
    <>
      <h2 className="mt-5 mb-1">Lands on</h2>
      <ul>
        {rows.map((row) => (
          <li key={row.box} className="flex justify-between gap-2 border-b border-base-300 py-1">
            <span>
              <span className="font-bold text-secondary">{row.box}</span>{" "}
              {boxWords(setup.effect.packs, code, trial.date, row.box)}
            </span>
            <span className="num">{displayAmount(row.amount, setup.plain.digits)}</span>
          </li>
        ))}
        {rows.length === 0 && <li className="quiet">No box.</li>}
      </ul>
    </>
  );
}

/** The box's short title on the first form of the pack that has it. */
function boxWords(packs: Packs, code: TaxCode, date: string, box: string): string {
  if (code.pack === undefined) return "";
  const pack = packs.byId(code.pack);
  const ofForms = pack.forms.map(({ levies }) => ({ levies }));
  for (const choice of [...ofForms, undefined]) {
    try {
      return boxDefinition(formOn(pack, date, choice), box).short;
    } catch (error) {
      if (!(error instanceof FiscalError)) throw error;
    }
  }
  return "";
}
