import type { FormTable } from "../../model/returnForm.ts";
import { across, heading, line, table } from "../shared/formTables.ts";

const VALUE_AND_HEADS = "Taxable value | Integrated tax | Central tax | State/UT tax | Cess";
const HEADS = "Integrated tax | Central tax | State/UT tax | Cess";
const ALL = "txval igst cgst sgst cess";
const TAXES = "igst cgst sgst cess";

/** The summary return as the portal draws it. Source: Form GSTR-3B, CGST R.61(5); from memory. */
export const summaryTables: FormTable[] = [
  table(
    "3.1 Outward supplies, and inward supplies liable to reverse charge",
    VALUE_AND_HEADS,
    [
      line(
        "(a)",
        "Outward taxable supplies (other than zero rated, nil rated and exempted)",
        across("3.1a", ALL),
      ),
      line("(b)", "Outward taxable supplies (zero rated)", across("3.1b", "txval igst - - cess")),
      line("(c)", "Other outward supplies (nil rated, exempted)", across("3.1c", "txval - - - -")),
      line("(d)", "Inward supplies (liable to reverse charge)", across("3.1d", ALL)),
      line("(e)", "Non-GST outward supplies", across("3.1e", "txval - - - -")),
    ],
    "Form GSTR-3B",
  ),
  table("3.1.1 Supplies notified under section 9(5)", VALUE_AND_HEADS, [
    line("(i)", "Taxable supplies on which the operator pays the tax", across("3.1.1i", ALL)),
    line(
      "(ii)",
      "Taxable supplies made through an operator who pays the tax",
      across("3.1.1ii", "txval - - - -"),
    ),
  ]),
  table(
    "3.2 Of 3.1(a) and 3.1.1(i), inter-State supplies by place of supply",
    "Taxable value | Integrated tax",
    [
      line("", "To unregistered persons", across("3.2.unreg.*", "txval igst")),
      line("", "To composition taxable persons", across("3.2.comp.*", "txval igst")),
      line("", "To UIN holders", across("3.2.uin.*", "txval igst")),
    ],
  ),
  table("4 Eligible credit", HEADS, [
    heading("(A)", "Credit available, in full or in part"),
    line("(1)", "Import of goods", across("4A1", "igst - - cess")),
    line("(2)", "Import of services", across("4A2", "igst - - cess")),
    line("(3)", "Inward supplies liable to reverse charge (other than 1 and 2)", across("4A3", TAXES)),
    line("(4)", "Inward supplies from the service distributor", across("4A4", TAXES)),
    line("(5)", "All other credit", across("4A5", TAXES)),
    heading("(B)", "Credit reversed"),
    line("(1)", "Rules 38, 42 and 43, and section 17(5)", across("4B1", TAXES)),
    line("(2)", "Others", across("4B2", TAXES)),
    line("(C)", "Net credit available (A) − (B)", across("4C", TAXES), "sum"),
    heading("(D)", "Other details"),
    line("(1)", "Reclaimed, which was reversed under (B)(2) earlier", across("4D1", TAXES)),
    line("(2)", "Barred by section 16(4) or by the place of supply", across("4D2", TAXES)),
  ]),
  table("5 Exempt, nil rated and non-GST inward supplies", "Inter-State | Intra-State", [
    line("", "From composition taxpayers, exempt and nil rated", across("5.r1", "inter intra")),
    line("", "Non-GST", across("5.r2", "inter intra")),
  ]),
  table("5.1 Interest and late fee", HEADS, [
    line("", "Interest", across("5.1.interest", TAXES)),
    line("", "Late fee", across("5.1.latefee", "- cgst sgst -")),
  ]),
];

const paid = (head: string, credits: string, fee: string) =>
  [
    across(`6.1A.${head}`, "tax negadj payable"),
    across(`6.1A.${head}.itc`, credits),
    across(`6.1A.${head}`, "cash"),
    across(`6.1.${head}`, `interest ${fee}`),
    across(`6.1A.${head}`, "negout"),
  ].join(" ");

const REVERSE = "tax negadj payable cash negout";

/** How the liability is paid, with what is carried on where it is negative. */
export const paymentTables: FormTable[] = [
  table(
    "6.1 (A) Payment of tax other than under reverse charge",
    "Tax | Negative, from before | Payable | By integrated credit | By central credit | By State/UT credit | By cess credit | In cash | Interest in cash | Late fee in cash | Negative, carried on",
    [
      line("", "Integrated tax", paid("igst", "igst cgst sgst -", "-")),
      line("", "Central tax", paid("cgst", "igst cgst - -", "fee")),
      line("", "State/UT tax", paid("sgst", "igst - sgst -", "fee")),
      line("", "Cess", paid("cess", "- - - cess", "-")),
    ],
  ),
  table(
    "6.1 (B) Reverse charge, and supplies under section 9(5)",
    "Tax | Negative, from before | Payable | In cash | Negative, carried on",
    [
      line("", "Integrated tax", across("6.1B.igst", REVERSE)),
      line("", "Central tax", across("6.1B.cgst", REVERSE)),
      line("", "State/UT tax", across("6.1B.sgst", REVERSE)),
      line("", "Cess", across("6.1B.cess", REVERSE)),
    ],
  ),
];
