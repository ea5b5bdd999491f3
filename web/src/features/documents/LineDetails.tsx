import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { textAt } from "@fiscalon/core/at";
import { usePacks } from "../../api/packs.ts";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { attributeName } from "@fiscalon/core/model/lineAttributes";
import { displayAmount } from "@fiscalon/core/money/amount";
import { Field, SelectField } from "../../kit/Field.tsx";
import { PieceChoice, SpentOnPiece } from "./PieceChoice.tsx";
import type { DraftLine } from "./draft.ts";
import type { LiveEffect } from "./useEffectOf.ts";

/** What of a line is not in the grid: its tax class, goods or services, and the figures its code asks for. */
export function LineDetails({
  index,
  line,
  live,
  setup,
  country,
  digits,
  kind,
  readOnly,
  onChange,
}: {
  index: number;
  line: DraftLine;
  live: LiveEffect;
  setup: EffectSetup;
  country: string;
  digits: number;
  kind: DocumentKind;
  readOnly: boolean;
  onChange: (change: Partial<DraftLine>) => void;
}) {
  const packs = usePacks();
  const classes = packs.ofCountry(country)?.classes ?? [];
  const inputs = setup.codes.get(line.code)?.inputs ?? [];
  const rule = packs.ofCountry(country)?.goodsShare;
  const share =
    rule && (rule.services.includes(line.code) || (line.code === rule.goods && line.supply === "services"));
  const priced = live.effect?.printed.lines[live.at.indexOf(index)];
  const taxes = priced?.taxes ?? [];
  const stockBook = packs.ofCountry(country)?.stockBook;
  const borne = taxes.filter((tax) => tax.rate !== null);
  const { direction } = DOCUMENT_KINDS[kind];
  const untaxed = [...setup.codes.values()].find(
    (code) =>
      code.treatment === "out-of-scope" && (code.direction === "both" || code.direction === direction),
  );
  const leftOut = setup.codes.get(line.code)?.treatment === "out-of-scope";
  const typed = line.tax !== "" || Object.values(line.taxes).some((text) => text !== "");
  const taxOnly = typed && Number(line.amount || "0") === 0;
  const attribute = (name: string, label: string, placeholder = "") => (
    <Field
      key={name}
      className="w-[200px]"
      label={label}
      value={textAt(line.attributes, name)}
      readOnly={readOnly}
      placeholder={placeholder}
      onChange={(event) => onChange({ attributes: { ...line.attributes, [name]: event.target.value } })}
    />
  );
  return (
    <div className="mt-3 flex flex-wrap items-start gap-4" role="group" aria-label={`Line ${index + 1}`}>
      <SelectField
        className="w-[170px]"
        label={`Line ${index + 1}, tax class`}
        value={line.taxClass}
        disabled={readOnly}
        onChange={(event) => onChange({ taxClass: event.target.value })}
      >
        <option value="">as the code says</option>
        {classes.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <SelectField
        className="w-[140px]"
        label="Supply"
        value={line.supply}
        disabled={readOnly}
        onChange={(event) => onChange({ supply: event.target.value as DraftLine["supply"] })}
      >
        <option value="">as the code says</option>
        <option>goods</option>
        <option>services</option>
      </SelectField>
      {setup.codes.get(line.code)?.amountIs !== "gross" && (
        <SelectField
          className="w-[150px]"
          label="Price of the line"
          value={line.prices}
          disabled={readOnly}
          onChange={(event) => onChange({ prices: event.target.value as DraftLine["prices"] })}
        >
          <option value="">as the document</option>
          <option value="exclusive">tax-exclusive</option>
          <option value="inclusive">tax-inclusive</option>
        </SelectField>
      )}
      {untaxed && (
        <label className="mt-6 flex cursor-pointer items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={!leftOut}
            disabled={readOnly}
            onChange={({ target }) =>
              onChange(
                target.checked
                  ? { code: "", codeTyped: false, codeReason: "" }
                  : { code: untaxed.code, codeTyped: true, codeReason: "", asks: null },
              )
            }
          />
          taxable
        </label>
      )}
      {share &&
        !inputs.includes("goodsCost") &&
        attribute("goodsCost", "Goods in it, their cost", "without tax")}
      {stockBook && direction === "sale" && (
        <PieceChoice
          line={line}
          priced={priced && { gross: priced.gross, tax: taxes.reduce((sum, { tax }) => sum + tax, 0) }}
          rule={stockBook}
          digits={digits}
          readOnly={readOnly}
          onChange={onChange}
        />
      )}
      {stockBook && direction === "purchase" && !stockBook.purchases.includes(line.code) && (
        <SpentOnPiece line={line} readOnly={readOnly} onChange={onChange} />
      )}
      {inputs
        .filter((name) => name !== "cost" || !line.attributes["piece"])
        .map((name) => attribute(name, capital(attributeName(name))))}
      {taxOnly && attribute("document", `Tax document of line ${index + 1}`, "customs entry or certificate")}
      {borne.length > 1 &&
        borne.map(({ component: { levy }, calculated }) => (
          <Field
            key={levy}
            className="w-[130px]"
            label={`${levy} on the paper`}
            value={line.taxes[levy] ?? (line.taxOf === levy ? line.tax : "")}
            readOnly={readOnly}
            placeholder={displayAmount(calculated, digits)}
            onChange={({ target }) =>
              onChange({
                tax: "",
                taxOf: "",
                taxes: {
                  ...(line.taxOf === "" ? {} : { [line.taxOf]: line.tax }),
                  ...line.taxes,
                  [levy]: target.value,
                },
              })
            }
          />
        ))}
      <RateDay attributes={line.attributes} readOnly={readOnly} onChange={onChange} />
    </div>
  );
}

/** Of a line that bears the rate of another day: which, why, and the way back to its own day's. */
function RateDay({
  attributes,
  readOnly,
  onChange,
}: Pick<Parameters<typeof LineDetails>[0], "readOnly" | "onChange"> & Pick<DraftLine, "attributes">) {
  const { rateOn, rateReason, ...rest } = attributes;
  if (!rateOn) return null;
  return (
    <p className="mt-6 flex items-baseline gap-3 text-[13px]">
      <span>
        Bears the rate of {displayDate(rateOn)}
        {rateReason && <>: {rateReason}</>}
      </span>
      {!readOnly && (
        <button type="button" className="action" onClick={() => onChange({ attributes: rest })}>
          Take its own day&rsquo;s rate
        </button>
      )}
    </p>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
