import type { FormRow, FormTable } from "../../model/returnForm.ts";
import { line, table } from "../shared/formTables.ts";

const COLUMNS = "Base, whole € | Tax, €";

/**
 * The preliminary return as the authority draws it, numbers of base and tax at the left.
 * @param last the rows at its end
 * Source: UStG § 18, form of 2023 and later; from memory
 */
export function tablesOf(last: readonly FormRow[]): FormTable[] {
  return [
    table("General", "1: it is so", [
      line("10", "Corrected return", "10"),
      line("22", "Documents are sent apart", "22"),
      line("26", "Direct debit is not to be used", "26"),
      line("29", "Refund to be set off, or given to another", "29"),
      line("23", "More is said in a letter", "23"),
    ]),
    table("Taxable supplies", COLUMNS, [
      line("81", "At 19 %", "81 81.tax"),
      line("86", "At 7 %", "86 86.tax"),
      line("87", "At 0 %", "87 -"),
      line("35, 36", "At other rates", "35 36"),
      line("77", "Farm and forestry, to other members", "77 -"),
      line("76, 80", "Farm and forestry, with tax", "76 80"),
    ]),
    table("Exempt supplies", COLUMNS, [
      line("41", "Intra-union, to buyers with VAT id", "41 -"),
      line("44", "New vehicles, to buyers without VAT id", "44 -"),
      line("49", "New vehicles, by private sellers", "49 -"),
      line("43", "Others with input credit", "43 -"),
      line("48", "Without input credit", "48 -"),
    ]),
    table("Intra-union acquisitions", COLUMNS, [
      line("91", "Exempt", "91 -"),
      line("89", "At 19 %", "89 89.tax"),
      line("93", "At 7 %", "93 93.tax"),
      line("90", "At 0 %", "90 -"),
      line("95, 98", "At other rates", "95 98"),
      line("94, 96", "New vehicles, from sellers without VAT id", "94 96"),
    ]),
    table("The recipient owes the tax (§ 13b)", COLUMNS, [
      line("46, 47", "Services of a business in another member state", "46 47"),
      line("73, 74", "Land transfer tax cases", "73 74"),
      line("84, 85", "Others", "84 85"),
    ]),
    table("Further supplies", COLUMNS, [
      line("42", "Triangular supplies", "42 -"),
      line("60", "The recipient owes the tax, supplier side", "60 -"),
      line("21", "Services taxed in another member state", "21 -"),
      line("45", "Others not taxable in Germany", "45 -"),
      line("", "Tax", "- T1", "sum"),
    ]),
    table("Input tax", COLUMNS, [
      line("66", "From invoices", "- 66"),
      line("61", "On acquisitions", "- 61"),
      line("62", "Import VAT", "- 62"),
      line("67", "On reverse charges", "- 67"),
      line("63", "By average rates", "- 63"),
      line("64", "Correction of input tax", "- 64"),
      line("59", "On new vehicles", "- 59"),
      line("", "Remaining amount", "- T2", "sum"),
    ]),
    table("Other tax, and what is to be paid", COLUMNS, [
      line("65", "After a change of the form of taxation", "- 65"),
      line("69", "Tax wrongly shown", "- 69"),
      line("", "Before prepayments", "- T3", "sum"),
      ...last,
    ]),
  ];
}
