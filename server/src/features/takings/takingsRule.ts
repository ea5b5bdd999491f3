import { FiscalError } from "@fiscalon/core/errors";
import type { RetailTakings } from "@fiscalon/core/model/retailTakings";
import { schemesOf } from "@fiscalon/core/model/scheme";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { TakingsSheet } from "@fiscalon/contract/takings";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

/** The codes of takings of a client: those of the retail scheme it is on, or was. */
export function takingsCodes({ packs }: Work, { registrations }: ClientSetup): TakingsSheet["codes"] {
  for (const { pack, schemes } of registrations) {
    const offered = schemesOf(packs.byId(pack)).filter(({ id }) =>
      schemes.some(({ scheme }) => scheme === id),
    );
    const rule = offered
      .map((one) => one.rule)
      .find((one): one is RetailTakings => one.kind === "retail-takings");
    if (!rule) continue;
    const wanted = [rule.takings, ...rule.rates.map(({ takings }) => takings)];
    const known = packs.byId(pack).codes.flatMap(expandCode);
    return wanted.flatMap((code) =>
      known.filter((one) => one.code === code).map(({ name }) => ({ code, name })),
    );
  }
  throw new FiscalError(
    "takings/no-scheme",
    "A takings sheet belongs to a retail scheme. Join one in Set up, Places & registrations.",
  );
}
