import { FiscalError } from "@fiscalon/core/errors";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { CarriedBox, ReturnForm } from "@fiscalon/core/model/returnForm";
import { parseAmount } from "@fiscalon/core/money/amount";

/** What a registration brings into its first return, decimal text by box. */
export type OpeningFigures = Readonly<Record<string, string>>;

/** Opening figures of a registration: of boxes that take something over from the period before. Noughts are left out. */
export function checkedOpening(pack: JurisdictionPack, opening: OpeningFigures): Record<string, string> {
  const boxes = new Set(pack.forms.flatMap(carriedBoxes).map(({ id }) => id));
  for (const box of Object.keys(opening)) {
    if (boxes.has(box)) continue;
    const which = boxes.size === 0 ? "none" : [...boxes].join(", ");
    throw new FiscalError(
      "registration/no-carried-box",
      `Box ${box} takes nothing over from a period before. Boxes that do: ${which}.`,
      "opening",
    );
  }
  return Object.fromEntries(Object.entries(opening).filter(([, amount]) => Number(amount) !== 0));
}

/** The boxes of a period before the first one, as far as they are carried into it. Minor units. */
export function openingBoxes(
  form: ReturnForm,
  opening: OpeningFigures,
  digits: number,
): ReadonlyMap<string, number> {
  return new Map(
    carriedBoxes(form).flatMap(({ id, of }) => {
      const amount = opening[id];
      return amount === undefined ? [] : [[of, parseAmount(amount, digits)]];
    }),
  );
}

function carriedBoxes({ boxes }: ReturnForm): CarriedBox[] {
  return boxes.filter((box) => box.kind === "carried");
}
