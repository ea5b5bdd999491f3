import { dueInWords } from "../calendar/dueInWords.ts";
import type { DueRule } from "../calendar/dueDate.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import { schemesOf } from "../model/scheme.ts";
import type { RateRow } from "../model/taxCode.ts";
import { doubtsOf } from "./doubts.ts";

/** The rules of jurisdictions as a page in Markdown: what is worked out, what is not, sources, what to look up. */
export function rulesInWords(packs: readonly JurisdictionPack[]): string {
  return packs.map(rulesOfPack).join("\n\n");
}

function rulesOfPack(pack: JurisdictionPack): string {
  const { law } = pack;
  return [
    `## ${pack.name}`,
    law ? `Law as of ${law.asOf}. ${law.checked}` : "",
    `**Worked out**: ${[...new Set(pack.forms.map(({ name }) => name))].join("; ")}; ${pack.codes.length} codes, ${pack.rules.length} supply rules; reporting ${pack.bases.map(({ name }) => name).join(", ")}.`,
    law ? `**Not worked out**: ${law.leftOut.join("; ")}.` : "",
    table(
      ["rate, limit or amount", "by date", "source"],
      Object.entries(pack.schedules).map(([id, rows]) => [
        pack.rateNames[id] ?? id,
        rows.map(rowInWords).join(", "),
        [...new Set(rows.map(({ source }) => source))].join("; "),
      ]),
    ),
    table(
      ["due day of", "is", "source"],
      [
        ...pack.due.map((rule) => [whose(rule), dueInWords(rule), rule.source]),
        ...(pack.furtherDays ?? []).map((one) => [
          `${one.name}${one.frequencies ? `, ${one.frequencies.join(", ")}` : ""}`,
          one.months < 0 ? `day ${one.day} of a month within it` : dueInWords(one),
          one.source,
        ]),
      ],
    ),
    table(
      ["form", "from", "source"],
      pack.forms.map((form) => [`${form.name}${chosen(form)}`, form.from, form.source]),
    ),
    table(
      ["special scheme", "what it does", "source"],
      schemesOf(pack).map(({ name, note, source }) => [name, note, source]),
    ),
    table(
      ["documents that stay unpaid", "rule", "source"],
      (pack.unpaid ?? []).map(({ name, option, says, source }) => [
        `${name}${option === undefined ? "" : ` (${option.join(" ")})`}`,
        says,
        source,
      ]),
    ),
    table(
      ["to be looked up", "as it stands", "where"],
      doubtsOf(pack).map(({ about, days, figure, says, source }) => [
        `${about}${days === undefined ? "" : `, from ${days.from}`}`,
        figure === "" ? says : `${figure}: ${says}`,
        source,
      ]),
    ),
  ]
    .filter((part) => part !== "")
    .join("\n\n");
}

function rowInWords({ rate, from, to }: RateRow): string {
  return `${rate} from ${from}${to === null ? "" : ` to ${to}`}`;
}

function whose({ frequencies, levies, regions, option, endMonths, ends }: DueRule): string {
  const parts = [
    frequencies?.join(", "),
    levies?.join(", "),
    option?.join(" "),
    regions === undefined ? undefined : `${regions.length} regions`,
    endMonths === undefined ? undefined : `periods ending in month ${endMonths.join(", ")}`,
    ends === undefined ? undefined : `periods ending from ${ends.from}`,
  ].filter((one) => one !== undefined);
  return parts.length === 0 ? "every other return" : parts.join("; ");
}

function chosen({
  option,
  frequencies,
}: Pick<JurisdictionPack["forms"][number], "option" | "frequencies">): string {
  const parts = [frequencies?.join(", "), option?.join(" ")].filter((one) => one !== undefined);
  return parts.length === 0 ? "" : ` (${parts.join("; ")})`;
}

function table(head: readonly string[], rows: readonly (readonly string[])[]): string {
  if (rows.length === 0) return "";
  const line = (cells: readonly string[]) => `| ${cells.map(escaped).join(" | ")} |`;
  return [line(head), line(head.map(() => "---")), ...rows.map(line)].join("\n");
}

/** In a cell of Markdown a bar ends it, and a star or an underline is a mark. */
function escaped(text: string): string {
  return text.replace(/([|*_<])/g, "\\$1");
}
