import { boxTags } from "../model/boxTags.ts";
import type { Finding } from "../model/finding.ts";
import type { PackCheck } from "../model/pack.ts";
import { taxOf } from "./catalogue.ts";
import type { CheckId } from "./catalogue.ts";
import { about, whereOf } from "./checkedLine.ts";
import type { CheckedLine, LineContext } from "./checkedLine.ts";

/** The checks that only some places need, as their packs describe them. */
export function packChecks(lines: readonly CheckedLine[], { pack, digits }: LineContext): Finding[] {
  return (pack.checks ?? []).flatMap((check) =>
    lines
      .filter((line) => fails(check, line))
      .map((line) =>
        about(
          check.id as CheckId,
          line,
          filledIn(check.says, {
            where: whereOf(line),
            code: line.code,
            tax: taxOf(line.levy, line.tax, digits),
          }),
        ),
      ),
  );
}

/** A sentence of a pack with what was found in the place of its braces. */
export function filledIn(says: string, found: Readonly<Record<string, string>>): string {
  return says.replace(/\{(\w+)\}/g, (name, key: string) => found[key] ?? name);
}

function fails(check: PackCheck, line: CheckedLine): boolean {
  const lands = boxTags(line.tags.includes("?") ? "" : line.tags);
  switch (check.kind) {
    case "both-sides": {
      if (line.charged !== "self-assessed" || line.tax === 0) return false;
      const due = lands.some(({ measure, sign }) => measure === "t" && sign > 0);
      const deducted = lands.some(({ measure, sign }) => measure === "r" && sign > 0);
      return !due || (line.recoverable !== 0 && !deducted);
    }
    case "not-in-box":
      return (
        line.direction === check.direction &&
        line.treatment === check.treatment &&
        lands.some(({ box }) => box === check.box)
      );
    case "attribute":
      return check.codes.includes(line.code) && !line.attributes[check.attribute];
    case "only-from":
    case "average-price":
    case "turnover":
    case "distance-sales":
      return false;
  }
}
