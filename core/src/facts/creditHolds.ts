import { FiscalError } from "../errors.ts";
import type { DocumentInput } from "../model/document.ts";
import type { CreditHold } from "../model/pack.ts";
import type { FactSetup } from "./factSetup.ts";

/** The holds a client's registrations know, each once. */
export function creditHolds({
  registrations,
  packs,
}: Pick<FactSetup, "registrations" | "packs">): CreditHold[] {
  const all = registrations.flatMap(({ pack }) => packs.byId(pack).creditHolds ?? []);
  return all.filter((hold, index) => all.findIndex(({ id }) => id === hold.id) === index);
}

/** @throws FiscalError `document/unknown-hold` where no registration knows the hold of a document */
export function checkHold({ creditHold }: DocumentInput, setup: FactSetup): void {
  if (creditHold === undefined) return;
  const known = creditHolds(setup).map(({ id }) => id);
  if (known.includes(creditHold)) return;
  throw new FiscalError(
    "document/unknown-hold",
    `No registration knows the hold "${creditHold}". ${known.length === 0 ? "Leave it out." : `Choose ${known.join(" or ")}.`}`,
    "creditHold",
  );
}
