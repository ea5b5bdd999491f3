import type Joi from "joi";

/** The schema of a body, for who checks it without knowing how it is written. */
export type BodySchema = Joi.Schema;

/** What does not fit about a body: one sentence, and the path of the field as `registrations[0].from`. */
export interface Problem {
  message: string;
  field: string | undefined;
}

/** What a schema found, in sentences: the same where a form is typed and where it is received. */
export function problemsOf({ details }: Joi.ValidationError): Problem[] {
  return details.map(({ message, path }) => ({
    message: sentence(message.replaceAll('"', "")),
    field: path.length === 0 ? undefined : pathOf(path),
  }));
}

function pathOf(path: readonly (string | number)[]): string {
  return path.reduce<string>(
    (text, part) => (typeof part === "number" ? `${text}[${part}]` : text === "" ? part : `${text}.${part}`),
    "",
  );
}

function sentence(text: string): string {
  const known = text
    .replace(/ is (required|not allowed to be empty)$/, " is missing")
    .replace(/ is not allowed$/, " is not known here; remove it or check its spelling")
    .replace(/ must be one of \[(.*)\]$/, (_, list: string) => ` must be ${choiceOf(list.split(", "))}`)
    .replace(/ with value .* fails to match the (.*) pattern$/, " must be $1");
  return known.endsWith(".") ? known : `${known}.`;
}

/** What may be chosen, in words; that nothing may be chosen, too, is not told. */
function choiceOf(values: readonly string[]): string {
  const named = values.filter((value) => value !== "null" && value !== "");
  const last = named.at(-1) ?? "";
  return named.length < 2 ? last : `${named.slice(0, -1).join(", ")} or ${last}`;
}
