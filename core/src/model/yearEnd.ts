/**
 * A share of what was deducted in a fiscal year that is added back on the first return after it, or on that of the year.
 * - `option`: the choice of a registration it holds for; `yearEnds`: the option that says the last month of the year.
 * - `topic`: accounts of this topic; `share`: percent of what was deducted of them in full; `boxes`: where it stands, by
 *   levy, several with a slash between.
 */
export interface YearEndRule {
  id: string;
  name: string;
  option: readonly [id: string, value: string];
  yearEnds: string;
  topic: string;
  share: string;
  boxes: Readonly<Record<string, string>>;
  says: string;
  source: string;
}
