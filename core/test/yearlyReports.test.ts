import { describe, expect, test } from "vitest";
import { boxTags } from "@fiscalon/core/model/boxTags";
import type { Boxes, TaxCode } from "@fiscalon/core/model/taxCode";
import { yearlyTags } from "@fiscalon/core/model/yearlyReport";
import type { ReportedGroup, YearlyReport } from "@fiscalon/core/model/yearlyReport";
import { findBox } from "@fiscalon/core/returns/findBox";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import { PACKS } from "./support/packs.ts";

const REPORTS = PACKS.all.flatMap((pack) =>
  pack.yearly ? [[pack.yearly.form.name, pack, pack.yearly] as const] : [],
);

/** Every way in which lines of a code can land, also as amendments of an earlier return, as groups of the year hold them. */
function groupsOf(code: TaxCode, forms: readonly ReturnForm[]): ReportedGroup[] {
  const amended = forms.flatMap((form) => form.amended ?? []);
  const ways = (boxes: Boxes | undefined) =>
    boxes === undefined ? [""] : typeof boxes === "string" ? [boxes] : boxes.map(({ tags }) => tags);
  const asAmended = (tags: string) => [
    tags,
    ...amended.flatMap(({ from, to }) =>
      from.filter((row) => tags.includes(`${row}.`)).map((row) => tags.replaceAll(`${row}.`, `${to}.`)),
    ),
  ];
  return code.components.flatMap(({ charged, boxes }) =>
    (["sale", "purchase"] as const).flatMap((direction) =>
      [false, true].flatMap((credit) => {
        const own =
          direction === "sale" ? [boxes.sale, boxes.saleCredit] : [boxes.purchase, boxes.purchaseCredit];
        return own
          .flatMap(ways)
          .flatMap(asAmended)
          .flatMap((tags) =>
            ["23", "13.5", "0", null].map((rate) => ({
              code: code.code,
              direction,
              rate,
              recoverable: 100,
              credit,
              tags,
              treatment: code.treatment,
              charged,
            })),
          );
      }),
    ),
  );
}

/** The boxes a formula reads. */
const read = (formula: string) => [...formula.matchAll(/\[([^\]]+)\]/g)].map(([, box]) => box ?? "");

describe.each(REPORTS)("%s", (_, pack, report: YearlyReport) => {
  const forms = pack.forms.filter(({ id }) => report.beside.includes(id));

  test("whatever a code of the country lands in, the report has a box for it", () => {
    const lost = pack.codes
      .flatMap(expandCode)
      .flatMap((code) => groupsOf(code, forms))
      .flatMap((group) =>
        boxTags(yearlyTags(report, group))
          .filter(({ box }) => findBox(report.form, box) === undefined)
          .map(({ box }) => `${group.code} ${group.direction} ${group.tags}: ${box}`),
      );
    expect([...new Set(lost)]).toEqual([]);
  });

  test("rules and ties speak of boxes that the returns and the report have", () => {
    expect(forms.length).toBeGreaterThan(0);
    const onReturns = (box: string) => forms.some((form) => findBox(form, box) !== undefined);
    for (const { lands, landsNot, moves } of report.rules) {
      for (const box of [lands, landsNot])
        if (box !== undefined) expect([box, onReturns(box)]).toEqual([box, true]);
      if (moves) {
        const rows = forms.flatMap(({ boxes }) => boxes.map(({ id }) => id));
        expect([moves[0], rows.some((id) => id.startsWith(`${moves[0]}.`))]).toEqual([moves[0], true]);
      }
    }
    for (const { report: own, returns } of report.ties) {
      expect(read(own).filter((box) => findBox(report.form, box) === undefined)).toEqual([]);
      expect(read(returns).filter((box) => !onReturns(box))).toEqual([]);
    }
  });

  test("a box that no rule fills is worked out from others", () => {
    const filled = new Set(
      pack.codes
        .flatMap(expandCode)
        .flatMap((code) => groupsOf(code, forms))
        .flatMap((group) => boxTags(yearlyTags(report, group)).map(({ box }) => box)),
    );
    const rowOf = (box: string) => box.split(".").slice(0, 2).join(".");
    const rows = new Set([...filled].map(rowOf));
    const empty = report.form.boxes.filter(({ kind, id }) => kind === "sum" && !rows.has(rowOf(id)));
    expect(empty.map(({ id }) => id)).toEqual([]);
  });
});
