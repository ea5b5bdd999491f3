import { describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { FormTable, ReturnForm } from "@fiscalon/core/model/returnForm";
import { computed, sum } from "@fiscalon/core/packs/shared/formBoxes";
import { across, heading, line, table } from "@fiscalon/core/packs/shared/formTables";
import { boxesWithMembers, isFamily } from "@fiscalon/core/returns/boxFamily";
import { checkForm } from "@fiscalon/core/returns/checkForm";
import { drawnTables, titleOfRow } from "@fiscalon/core/returns/drawnTables";
import { SHIPPED } from "@fiscalon/core/packs/shipped";

const FORMS = SHIPPED.flatMap((pack) =>
  pack.forms.map((form) => [`${form.id} from ${form.from}`, pack, form] as const),
);
const DRAWN = FORMS.filter(([, , form]) => form.tables);

const drawnOf = (form: ReturnForm, moved: readonly string[] = []) => {
  const boxes = boxesWithMembers(form.boxes, new Set(moved));
  return drawnTables(form.tables ?? [], boxes, form.net.shown);
};
const titlesAndCells = (form: ReturnForm, title: string, moved?: readonly string[]) =>
  drawnOf(form, moved)
    .filter((one) => one.title.startsWith(title))
    .flatMap(({ rows }) => rows.map((row) => [row.number, row.cells.map((box) => box?.id ?? null)]));
const formNamed = (id: string) =>
  at(
    FORMS.filter(([, , form]) => form.id === id),
    0,
  )[2];

describe("forms as their authorities draw them", () => {
  test("forms with several columns of figures are drawn", () => {
    const ids = new Set(DRAWN.map(([, , form]) => form.id.replace(/^us-.*/, "us")));
    expect([...ids].sort()).toEqual([
      "ae-vat201",
      "au-bas",
      "au-bas-simpler",
      "eu-de-oss",
      "eu-de-ust2a",
      "eu-de-ustva",
      "ie-oss",
      "ie-vat3",
      "in-cmp08-manufacturer",
      "in-cmp08-restaurant",
      "in-cmp08-services",
      "in-cmp08-trader",
      "in-gstr",
      "ph-2550q",
      "us",
      "za-vat201",
    ]);
  });

  test.each(DRAWN)("%s: what it comes to stands once, every box is where a figure can be", (_, __, form) => {
    const boxes = boxesWithMembers(form.boxes, new Set());
    const cells = drawnOf(form).flatMap(({ rows }) => rows.flatMap((row) => row.cells));
    expect(cells.filter((box) => box?.id === form.net.shown)).toHaveLength(1);
    const shown = new Set(cells.map((box) => box?.id));
    expect(boxes.filter(({ id, helper }) => !helper && !isFamily(id) && !shown.has(id))).toEqual([]);
  });

  /** Form GSTR-3B, CGST R.61(5): the fields the form shades; from memory. */
  test("GSTR-3B leaves no field for tax of what is exempt, and none for central and state tax of imports", () => {
    const gstr = formNamed("in-gstr");
    expect(titlesAndCells(gstr, "3.1 ")).toEqual([
      ["(a)", ["3.1a.txval", "3.1a.igst", "3.1a.cgst", "3.1a.sgst", "3.1a.cess"]],
      ["(b)", ["3.1b.txval", "3.1b.igst", null, null, "3.1b.cess"]],
      ["(c)", ["3.1c.txval", null, null, null, null]],
      ["(d)", ["3.1d.txval", "3.1d.igst", "3.1d.cgst", "3.1d.sgst", "3.1d.cess"]],
      ["(e)", ["3.1e.txval", null, null, null, null]],
    ]);
    expect(titlesAndCells(gstr, "4 ").slice(0, 3)).toEqual([
      ["(A)", []],
      ["(1)", ["4A1.igst", null, null, "4A1.cess"]],
      ["(2)", ["4A2.igst", null, null, "4A2.cess"]],
    ]);
    expect(titlesAndCells(gstr, "6.1 (A)").map(([, cells]) => at(cells as (string | null)[], 6))).toEqual([
      null,
      null,
      null,
      "6.1A.cess.itc.cess",
    ]);
  });

  /** VAT Returns User Guide of the authority: adjustments are for boxes 1 and 9 only; from memory. */
  test("VAT201 of the Emirates: a row for each emirate, adjustments only where the form takes them", () => {
    const rows = titlesAndCells(formNamed("ae-vat201"), "VAT on");
    expect(
      rows.filter(([, cells]) => at(cells as (string | null)[], 2) !== null).map(([number]) => number),
    ).toEqual(["1a", "1b", "1c", "1d", "1e", "1f", "1g", "8", "9", "11"]);
  });

  test("a row repeats for each state or member of which anything is told, and says which", () => {
    const moved = ["3.2.unreg.27.txval", "3.2.unreg.27.igst", "3.2.unreg.07.txval"];
    const gstr = formNamed("in-gstr");
    const india = at(
      SHIPPED.filter(({ forms }) => forms.includes(gstr)),
      0,
    );
    const rows = drawnOf(gstr, moved).flatMap((one) => (one.title.startsWith("3.2") ? one.rows : []));
    expect(
      rows.map((row) => [titleOfRow(row, india.regions ?? []), row.cells.map((box) => box?.id)]),
    ).toEqual([
      ["To unregistered persons, 07 Delhi", ["3.2.unreg.07.txval", undefined]],
      ["To unregistered persons, 27 Maharashtra", ["3.2.unreg.27.txval", "3.2.unreg.27.igst"]],
    ]);
    const [first] = drawnOf(formNamed("ie-oss"), ["FR.S", "FR.C", "PL.D.DE"]);
    expect(first?.rows.map((row) => titleOfRow(row, []))).toEqual(["France", "Poland"]);
    expect(drawnOf(formNamed("ie-oss"), ["FR.S"]).map(({ title }) => title)).not.toContain(
      "Supplied from other members",
    );
    const second = at(drawnOf(formNamed("ie-oss"), ["PL.D.DE"]), 1);
    expect(second.rows.map((row) => titleOfRow(row, []))).toEqual([
      "Goods sent from another member, Poland from Germany",
    ]);
  });
});

describe("tables of a form that do not fit it", () => {
  const boxes = [sum("1", "One"), sum("2", "Two"), computed("h", "Step", "[1] + [2]", { helper: true })];
  const refused = (tables: FormTable[]) => {
    const form: ReturnForm = {
      id: "f",
      name: "Form",
      levies: ["TAX"],
      from: "2000-01-01",
      to: null,
      boxes,
      tables,
      net: { output: "[1]", input: "[2]", due: "[h]", shown: "h" },
      source: "invented for the test",
    };
    checkForm(form, {});
    return form;
  };

  test("a box nobody would see, one that is not there, cells beside the columns", () => {
    expect(() => refused([table("T", "a", [line("", "Row", "1")])])).toThrow(/Box 2 stands in no table/);
    expect(() => refused([table("T", "a | b", [line("", "Row", "1 3")])])).toThrow(/no box 3/);
    expect(() => refused([table("T", "a | b", [line("", "Row", "1 2 -")])])).toThrow(
      /3 cells, and its table 2/,
    );
  });

  test("what the form comes to is added where the form does not show it", () => {
    const form = refused([table("T", "a | b", [heading("", "Head"), line("", "Row", "1 2")])]);
    expect(drawnOf(form).map(({ rows }) => rows.map((row) => row.cells.map((box) => box?.id)))).toEqual([
      [[], ["1", "2"]],
      [["h"]],
    ]);
    expect(across("3.1a", "txval - cess")).toBe("3.1a.txval - 3.1a.cess");
  });
});
