import { Field } from "../../kit/Field.tsx";
import type { BuilderPart } from "./builderPart.ts";

const FIELDS = [
  ["name", "Name", ""],
  ["id", "Short id", "small letters, digits, dashes"],
  ["country", "Country, two letters", "a client of that country is offered it"],
  ["currency", "Currency, three letters", ""],
  ["authority", "Authority", ""],
  ["numberName", "What its tax number is called", ""],
  ["numberHint", "What the number looks like", ""],
  ["numberPattern", "Pattern of the number", "a regular expression; empty for any"],
] as const;

/** Who the jurisdiction is. */
export function HeadSection({ draft, set, error }: BuilderPart) {
  return (
    <section aria-label="Jurisdiction" className="grid grid-cols-4 gap-4">
      {FIELDS.map(([key, label, hint]) => (
        <Field
          key={key}
          label={label}
          value={draft[key]}
          hint={hint}
          error={error(key)}
          onChange={(event) =>
            set({
              [key]:
                key === "country" || key === "currency"
                  ? event.target.value.toUpperCase()
                  : event.target.value,
            })
          }
        />
      ))}
    </section>
  );
}
