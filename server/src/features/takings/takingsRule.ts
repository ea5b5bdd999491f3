import { FiscalError } from "@fiscalon/core/errors";
import { schemesOf, takingsCodesOf } from "@fiscalon/core/model/scheme";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TakingsSheet } from "@fiscalon/contract/takings";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** The codes of takings of a client: those of the scheme of shops it is on, or was. */
export function takingsCodes({ packs }: Work, { registrations }: ClientSetup): TakingsSheet["codes"] {
  for (const { pack, schemes } of registrations) {
    const offered = schemesOf(packs.byId(pack)).filter(({ id }) =>
      schemes.some(({ scheme }) => scheme === id),
    );
    const wanted = offered.flatMap(({ rule }) => takingsCodesOf(rule));
    if (wanted.length === 0) continue;
    const known = packs.byId(pack).codes.flatMap(expandCode);
    return wanted.flatMap((code) =>
      known.filter((one) => one.code === code).map(({ name }) => ({ code, name })),
    );
  }
  throw new FiscalError(
    "takings/no-scheme",
    "A takings sheet belongs to a scheme of shops. Join one in Set up, Places & registrations.",
  );
}
