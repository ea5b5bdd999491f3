import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import { packOfCountry } from "@fiscalon/core/jurisdictions/packs";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { DocumentKind } from "@fiscalon/core/tax/documentInput";
import { Field, SelectField } from "../../kit/Field.tsx";
import type { DraftLine } from "./draft.ts";
import type { LiveEffect } from "./useEffectOf.ts";

const INPUT_WORDS: Readonly<Record<string, string>> = {
  cost: "Purchase price of it",
  averagePrice: "Average wholesale price of a unit",
  customsDuty: "Customs duty and charges",
  taxableShare: "Taxable share of use, percent",
};

/** What of a line is not in the grid: its tax class, goods or services, and the figures its code asks for. */
export function LineDetails({
  index,
  line,
  live,
  setup,
  country,
  kind,
  readOnly,
  onChange,
}: {
  index: number;
  line: DraftLine;
  live: LiveEffect;
  setup: EffectSetup;
  country: string;
  kind: DocumentKind;
  readOnly: boolean;
  onChange: (change: Partial<DraftLine>) => void;
}) {
  const classes = packOfCountry(country)?.classes ?? [];
  const inputs = setup.codes.get(line.code)?.inputs ?? [];
  const taxes = live.effect?.priced.lines[live.at.indexOf(index)]?.taxes ?? [];
  const levies = [
    ...new Set(taxes.filter((tax) => tax.rate !== null).map(({ component }) => component.levy)),
  ];
  const { direction } = DOCUMENT_KINDS[kind];
  const untaxed = [...setup.codes.values()].find(
    (code) =>
      code.treatment === "out-of-scope" && (code.direction === "both" || code.direction === direction),
  );
  const leftOut = setup.codes.get(line.code)?.treatment === "out-of-scope";
  const taxOnly = line.tax !== "" && Number(line.amount || "0") === 0;
  const attribute = (name: string, label: string, placeholder = "") => (
    <Field
      key={name}
      className="w-[200px]"
      label={label}
      value={line.attributes[name] ?? ""}
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
      {untaxed && (
        <label className="mt-6 flex cursor-pointer items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={!leftOut}
            disabled={readOnly}
            onChange={({ target }) =>
              onChange(
                target.checked ? { code: "", codeTyped: false } : { code: untaxed.code, codeTyped: true },
              )
            }
          />
          taxable
        </label>
      )}
      {inputs.map((name) => attribute(name, INPUT_WORDS[name] ?? name))}
      {taxOnly && attribute("document", `Tax document of line ${index + 1}`, "customs entry or certificate")}
      {line.tax !== "" && levies.length > 1 && (
        <SelectField
          className="w-[140px]"
          label="The typed tax is"
          value={line.taxLevy || levies[0]}
          disabled={readOnly}
          onChange={(event) => onChange({ taxLevy: event.target.value })}
        >
          {levies.map((levy) => (
            <option key={levy}>{levy}</option>
          ))}
        </SelectField>
      )}
    </div>
  );
}
