import { groupBy } from "../groupBy.ts";
import type { Finding } from "../model/finding.ts";

/** More of one check in one list help nobody: what is behind them is one finding more. */
export const MOST_OF_A_CHECK = 500;

/**
 * The findings of each check, the first of them one by one; how many stand behind those is told by one finding more, of
 * the same check, so that none is passed over in silence. It may be accepted as such where the check may.
 * @param found in the order in which they are to be shown
 * @param fingerprint short text that is another one where the keys are others: an acceptance holds for these alone
 * @param most how many of a check are shown one by one
 */
export function boundedFindings(
  found: readonly Finding[],
  fingerprint: (keys: readonly string[]) => string,
  most = MOST_OF_A_CHECK,
): Finding[] {
  return [...groupBy(found, ({ check }) => check).values()].flatMap((ofCheck) => {
    const behind = ofCheck.slice(most);
    const rest = behind.length;
    const [first] = behind;
    if (!first) return ofCheck;
    const more: Finding = {
      key: `${first.check}:more:${rest}:${fingerprint(behind.map(({ key }) => key))}`,
      check: first.check,
      severity: first.severity,
      text: `${rest} more of this kind stand behind these ${most}. Put these right, and the next are shown${first.severity === "check" ? "; or accept the rest with one reason" : ""}.`,
      document: null,
      line: null,
    };
    return [...ofCheck.slice(0, most), more];
  });
}
