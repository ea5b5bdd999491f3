import type { FormRow, FormTable } from "../../model/returnForm.ts";
import { across, line, table } from "../shared/formTables.ts";

const VALUE_AND_HEADS = "Taxable value | Integrated tax | Central tax | State/UT tax | Cess";
const ALL = "txval igst cgst sgst cess";
const ACROSS_STATES = "txval igst - - cess";
const VALUE = "txval - - - -";

const row = (number: string, title: string, id: string, columns = ALL): FormRow =>
  line(number, title, across(`g1.${id}`, columns));
const totals = (title: string, rows: readonly FormRow[], heading?: string): FormTable =>
  table(title, VALUE_AND_HEADS, rows, heading);

/** The totals of the outward register by table; its documents are the register itself. Source: Form GSTR-1; from memory. */
export const outwardTables: FormTable[] = [
  totals(
    "4, 5 Supplies to registered persons, and large ones to others across states",
    [
      row("4A", "To registered persons", "4A"),
      row("4B", "To registered persons, the recipient pays the tax", "4B"),
      row("5A", "To unregistered persons across states, above the limit", "5A"),
    ],
    "Form GSTR-1, totals by table",
  ),
  totals("6 Zero rated and deemed exports", [
    row("6A", "Exports", "6A", ACROSS_STATES),
    row("6B", "To special economic zones", "6B", ACROSS_STATES),
    row("6C", "Deemed exports", "6C"),
  ]),
  totals("7 To unregistered persons", [
    row("7A(1)", "Inside the State", "7A1"),
    row("7B(1)", "Across states, up to the limit", "7B1"),
  ]),
  table("8 Nil rated, exempted and non-GST outward supplies", "Nil rated | Exempted | Non-GST", [
    line("8A", "Inter-State, to registered persons", across("g1.8A", "nil exempt nongst")),
    line("8B", "Intra-State, to registered persons", across("g1.8B", "nil exempt nongst")),
    line("8C", "Inter-State, to unregistered persons", across("g1.8C", "nil exempt nongst")),
    line("8D", "Intra-State, to unregistered persons", across("g1.8D", "nil exempt nongst")),
  ]),
  totals("9 Notes, and what is amended of earlier periods", [
    row("9A", "Amended: invoices to registered persons", "9A.b2ba"),
    row("9A", "Amended: large invoices to unregistered persons across states", "9A.b2cla"),
    row("9A", "Amended: exports", "9A.expa", ACROSS_STATES),
    row("9B", "Notes to registered persons", "9B.cdnr"),
    row("9B", "Notes to unregistered persons", "9B.cdnur"),
    row("9C", "Amended: notes to registered persons", "9C.cdnra"),
    row("9C", "Amended: notes to unregistered persons", "9C.cdnura"),
  ]),
  totals("10 Amended: to unregistered persons", [
    row("10A", "Inside the State", "10A"),
    row("10B", "Across states", "10B"),
  ]),
  totals("11 Advances", [
    row("11A(1)", "Received, inside the State", "11A1"),
    row("11A(2)", "Received, across states", "11A2"),
    row("11B(1)", "Adjusted, inside the State", "11B1"),
    row("11B(2)", "Adjusted, across states", "11B2"),
    row("11 II", "Amended: received, inside the State", "11IIA1"),
    row("11 II", "Amended: received, across states", "11IIA2"),
    row("11 II", "Amended: adjusted, inside the State", "11IIB1"),
    row("11 II", "Amended: adjusted, across states", "11IIB2"),
  ]),
  totals("14, 15 Through electronic commerce operators", [
    row("14(b)", "Supplies on which the operator pays the tax", "14b", VALUE),
    row("14A(b)", "Amended: supplies on which the operator pays the tax", "14Ab", VALUE),
    row("15", "The operator's own, registered to registered", "15.b2b"),
    row("15", "The operator's own, registered to unregistered", "15.b2c"),
    row("15", "The operator's own, unregistered to registered", "15.urp2b"),
    row("15", "The operator's own, unregistered to unregistered", "15.urp2c"),
    { ...row("15", "The operator's own in all", "15"), level: "sum" },
    row("15A", "Amended: the operator's own", "15A"),
  ]),
];
