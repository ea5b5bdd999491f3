import { textAt } from "../at.ts";
import type { When } from "./taxCode.ts";

/** What is known of a supply, by key, all as text; the keys stand at circumstancesOf. */
export type Circumstances = Readonly<Record<string, string>>;

/** Whether circumstances meet a condition: each key has one of the wanted values. */
export function meets(when: When | undefined, circumstances: Circumstances): boolean {
  if (when === undefined) return true;
  return Object.entries(when).every(([key, wanted]) => {
    const value = textAt(circumstances, key);
    return typeof wanted === "string" ? value === wanted : wanted.includes(value);
  });
}
