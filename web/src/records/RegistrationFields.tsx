import { basisOffer } from "@fiscalon/core/model/basis";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import { basesFor, rhythmsFor } from "@fiscalon/core/model/registration";
import type { RegistrationBody } from "@fiscalon/contract/setup";
import { DateField } from "../kit/DateField.tsx";
import { Field, SelectField } from "../kit/Field.tsx";

export interface RegistrationDraft {
  levies: readonly string[] | null;
  number: string;
  from: string;
  rhythm: string;
  rounding: string;
  basis: RegistrationBody["basis"];
}

export function blankRegistration(pack: JurisdictionPack): RegistrationDraft {
  return {
    levies: null,
    number: "",
    from: "",
    rhythm: pack.rhythms[0]?.id ?? "",
    rounding: pack.roundings[0]?.id ?? "",
    basis: "accrual",
  };
}

export function registrationBody(pack: JurisdictionPack, draft: RegistrationDraft): RegistrationBody {
  const offered = rhythmsFor(pack, draft.levies ?? pack.defaultLevies ?? []);
  const rhythm = offered.find((one) => one.id === draft.rhythm) ?? offered[0];
  const bases = basesFor(pack, draft.levies ?? pack.defaultLevies ?? []);
  const basis = bases.find((one) => one.basis === draft.basis) ?? bases[0];
  const rounding = pack.roundings.find((one) => one.id === draft.rounding);
  return {
    pack: pack.id,
    ...(draft.levies ? { levies: [...draft.levies] } : {}),
    number: draft.number,
    from: draft.from,
    to: null,
    frequency: rhythm?.frequency ?? "quarterly",
    ...(rhythm ? { anchor: rhythm.anchor } : {}),
    basis: basis?.basis ?? draft.basis,
    ...(rounding ? { rounding: rounding.rounding } : {}),
  };
}

/** What is wrong with the number as typed so far, checked in the browser; undefined while nothing is typed. */
export function useNumberCheck(pack: JurisdictionPack, number: string): string | undefined {
  if (number.trim() === "") return undefined;
  const check = pack.checkNumber(number);
  return check.ok ? undefined : check.message;
}

export function RegistrationFields({
  pack,
  value,
  onChange,
  error,
  numberCheck,
}: {
  pack: JurisdictionPack;
  value: RegistrationDraft;
  onChange: (value: RegistrationDraft) => void;
  error: (field: "number" | "from") => string | undefined;
  numberCheck: string | undefined;
}) {
  const valid = value.number.trim() !== "" && numberCheck === undefined;
  const offered = basesFor(pack, value.levies ?? pack.defaultLevies ?? []);
  const offer = basisOffer(offered, value.basis);
  const longEnough = value.number.replace(/\W/g, "").length >= 9;
  return (
    <div className="grid grid-cols-2 gap-5">
      <Field
        label={pack.numberName}
        value={value.number}
        onChange={(event) => onChange({ ...value, number: event.target.value })}
        error={error("number") ?? (longEnough ? numberCheck : undefined)}
        hint={
          valid
            ? "✓ The check digits fit."
            : `${pack.numberHint.charAt(0).toUpperCase()}${pack.numberHint.slice(1)}. Leave empty while it is being applied for.`
        }
        className="font-mono"
      />
      <DateField
        label="Registered from"
        value={value.from}
        onChange={(from) => onChange({ ...value, from })}
        error={error("from")}
        className="w-full"
      />
      <SelectField
        label="Filing periods"
        value={value.rhythm}
        onChange={(event) => onChange({ ...value, rhythm: event.target.value })}
      >
        {rhythmsFor(pack, value.levies ?? pack.defaultLevies ?? []).map((rhythm) => (
          <option key={rhythm.id} value={rhythm.id}>
            {rhythm.name}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="Rounding of tax"
        value={value.rounding}
        onChange={(event) => onChange({ ...value, rounding: event.target.value })}
        hint={pack.roundings.find((one) => one.id === value.rounding)?.source}
      >
        {pack.roundings.map((rounding) => (
          <option key={rounding.id} value={rounding.id}>
            {rounding.name}
          </option>
        ))}
      </SelectField>
      {offered.length > 1 ? (
        <SelectField
          className="col-span-2"
          label="Basis"
          value={value.basis}
          hint={offer.who}
          onChange={(event) =>
            onChange({ ...value, basis: event.target.value as RegistrationDraft["basis"] })
          }
        >
          {offered.map(({ basis, name }) => (
            <option key={basis} value={basis}>
              {name}
            </option>
          ))}
        </SelectField>
      ) : (
        <p className="quiet col-span-2">{offer.name}.</p>
      )}
    </div>
  );
}
