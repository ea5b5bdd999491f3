import { found } from "@fiscalon/core/at";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { factGroups } from "../../books/returns/queries.ts";
import { schemeContent } from "../../books/returns/schemes.ts";
import { groupBy } from "@fiscalon/core/groupBy";
import { tableCsv } from "../../exports/tableCsv.ts";

/** The workpaper of the scheme that is in force in a period; null where none is. */
export async function schemeView(
  work: Work,
  { plain }: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<SchemeView | null> {
  periodEnding(r, end);
  const { scheme, gain } = await schemeContent(work, r, end, await factGroups(work, r.id, end));
  if (!scheme) return null;
  const { definition, inForce, result, setAside } = scheme;
  const byCode = groupBy(setAside, ({ code, direction }) => JSON.stringify([code, direction]));
  return {
    id: definition.id,
    name: definition.name,
    note: definition.note,
    source: definition.source,
    digits: plain.digits,
    from: inForce.from,
    to: inForce.to,
    settings: definition.settings.map(({ id, name, values }) => ({
      name,
      value: found(values, ({ value }) => value === inForce.settings[id], `answer to ${id}`).name,
    })),
    steps: result.steps.map(({ box, ...step }) => ({ ...step, box: box ?? null })),
    setAside: [...byCode.values()].map((groups) =>
      groups.reduce((sum, one) => ({
        ...sum,
        count: sum.count + one.count,
        net: sum.net + one.net,
        tax: sum.tax + one.tax,
        recoverable: sum.recoverable + one.recoverable,
      })),
    ),
    gain,
  };
}

/** The same as CSV. */
export function schemeCsv(client: string, end: string, view: SchemeView): string {
  return tableCsv({
    title: view.name,
    about: `${client}, period to ${end}`,
    digits: view.digits,
    columns: [
      { name: "Box", amount: false },
      { name: "Step", amount: false },
      { name: "Worked out", amount: false },
      { name: "Amount", amount: true },
    ],
    rows: [
      ...view.steps.map(({ box, words, arithmetic, amount }) => ({
        cells: [box ?? "", words, arithmetic, amount],
      })),
      ...view.setAside.map(({ code, direction, count, tax, recoverable }) => ({
        cells: [
          "",
          `Set aside: ${code}, ${direction === "sale" ? "charged" : "not deducted"}`,
          `${count} lines`,
          direction === "sale" ? tax : recoverable,
        ],
      })),
    ],
  });
}
