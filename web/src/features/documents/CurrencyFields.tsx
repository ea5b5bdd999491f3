import { currencyName } from "../../kit/countries.ts";
import { currencies } from "@fiscalon/core/money/currency";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import type { Draft } from "./draft.ts";

/** The document's currency and, where it is not the one of the books, the rate with its source and day. */
export function CurrencyFields({
  draft,
  base,
  readOnly,
  onChange,
}: {
  draft: Draft;
  base: string;
  readOnly: boolean;
  onChange: (change: Partial<Draft>) => void;
}) {
  return (
    <>
      <SelectField
        className="w-[76px]"
        label="Currency"
        value={draft.currency || base}
        disabled={readOnly}
        onChange={(event) =>
          onChange({
            currency: event.target.value === base ? "" : event.target.value,
            rateDate: draft.rateDate || draft.date,
          })
        }
      >
        {currencies().map((code) => (
          <option key={code} value={code} title={currencyName(code)}>
            {code} {currencyName(code)}
          </option>
        ))}
      </SelectField>
      {draft.currency !== "" && (
        <>
          <Field
            className="w-[120px] [&_input]:num"
            label={`1 ${draft.currency} in ${base}`}
            value={draft.rate}
            readOnly={readOnly}
            inputMode="decimal"
            placeholder="0.8734"
            onChange={(event) => onChange({ rate: event.target.value })}
          />
          <Field
            className="w-[170px]"
            label="Source of the rate"
            value={draft.rateSource}
            readOnly={readOnly}
            placeholder="whose rate it is"
            onChange={(event) => onChange({ rateSource: event.target.value })}
          />
          <DateField
            label="Rate of"
            value={draft.rateDate}
            optional
            placeholder="as the date"
            onChange={(rateDate) => onChange({ rateDate })}
            disabled={readOnly}
            className="w-[112px]"
          />
        </>
      )}
    </>
  );
}
