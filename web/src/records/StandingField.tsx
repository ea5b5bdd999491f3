import type { StandingBody } from "@fiscalon/contract/setup";
import type { StandingAsked } from "@fiscalon/core/supply/standingsAsked";
import { DateField } from "../kit/DateField.tsx";
import { Field, SelectField } from "../kit/Field.tsx";

/** What a contact is for a levy, with the reason it is asked, and the paper an exemption needs. */
export function StandingField({
  asked,
  value,
  onChange,
}: {
  asked: StandingAsked;
  value: StandingBody | undefined;
  onChange: (value: StandingBody | undefined) => void;
}) {
  const now = typeof value === "string" ? { value } : (value ?? { value: "" });
  const needs = asked.answers.find(({ id }) => id === now.value)?.needs ?? null;
  const paper = "certificate" in now ? (now.certificate ?? "") : "";
  const until = "until" in now ? (now.until ?? "") : "";
  const set = (certificate: string, end: string) =>
    onChange({ value: now.value, certificate, ...(end === "" ? {} : { until: end }) });
  return (
    <div className="col-span-2 grid grid-cols-2 gap-4">
      <SelectField
        className="col-span-2"
        label={`Standing for ${asked.levy}`}
        value={now.value}
        hint={`Asked ${asked.reason}.`}
        onChange={(event) => onChange(event.target.value === "" ? undefined : event.target.value)}
      >
        <option value="">not known</option>
        {asked.answers.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      {needs !== null && (
        <>
          <Field label={capital(needs)} value={paper} onChange={(event) => set(event.target.value, until)} />
          <DateField
            label="Valid until"
            value={until}
            optional
            className="w-full"
            onChange={(end) => set(paper, end)}
          />
        </>
      )}
    </div>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
