import { useMemo } from "react";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { Direction } from "@fiscalon/core/model/taxCode";
import type { ItemView } from "@fiscalon/contract/views";

/** What the cells of a line offer. The same lists as long as the set-up is the same. */
export function useChoices(plain: PlainSetup, items: readonly ItemView[], direction: Direction | null) {
  return useMemo(
    () => ({
      accountChoices: plain.accounts.map(({ code, name }) => ({ value: code, label: name })),
      codeChoices: plain.codes
        .filter(({ code }) => !plain.archived.includes(code))
        .filter((code) => direction === null || code.direction === "both" || code.direction === direction)
        .map(({ code, name }) => ({ value: code, label: name })),
      itemChoices: items.map(({ ref, name }) => ({ value: ref, label: name })),
    }),
    [plain, items, direction],
  );
}
