import { usePacks } from "../api/packs.ts";
import { SelectField } from "../kit/Field.tsx";

/** The countries with a pack, then any other by its two letters. */
export function CountryField({ value, onChange }: { value: string; onChange: (country: string) => void }) {
  const packs = usePacks().all;
  const known = packs.some((pack) => pack.country === value);
  return (
    <SelectField
      label="Country"
      value={known ? value : "?"}
      onChange={(event) => onChange(event.target.value)}
    >
      {[...new Map(packs.map((pack) => [pack.country, pack])).values()].map(({ country, name }) => (
        <option key={country} value={country}>
          {name}
        </option>
      ))}
      {!known && <option value="?">{value || "choose"}</option>}
    </SelectField>
  );
}

export function RegionField({
  country,
  value,
  onChange,
}: {
  country: string;
  value: string;
  onChange: (region: string) => void;
}) {
  const packs = usePacks();
  const regions = packs.ofCountry(country)?.regions ?? [];
  if (regions.length === 0) return null;
  return (
    <SelectField label="Region" value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{packs.ofCountry(country)?.elsewhere ?? "choose"}</option>
      {regions.map(({ code, name }) => (
        <option key={code} value={code}>
          {name}
        </option>
      ))}
    </SelectField>
  );
}
