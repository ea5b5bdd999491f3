import type { FormTable } from "../../model/returnForm.ts";
import { line, table } from "../shared/formTables.ts";

const AMOUNT_AND_TAX = "A. Amount | B. Tax";

/** The quarterly return as the authority draws it. Source: BIR form 2550Q, version of April 2024; from memory. */
export const tables: FormTable[] = [
  table("Total tax payable", "", [
    line("15", "Net VAT payable", "15"),
    line("16", "Creditable VAT withheld", "16"),
    line("17", "Advance VAT payments", "17"),
    line("18", "VAT paid in the return that is amended", "18"),
    line("19", "Other credits or payment made", "19"),
    line("20", "Total tax credits and payments", "20", "sum"),
    line("21", "Tax still payable or overpayment", "21", "sum"),
    line("22", "Surcharge", "22"),
    line("23", "Interest", "23"),
    line("24", "Compromise", "24"),
    line("25", "Total penalties", "25", "sum"),
    line("26", "Total amount payable or overpayment", "26", "result"),
  ]),
  table("Sales and output tax", AMOUNT_AND_TAX, [
    line("31", "VATable sales", "31A 31B"),
    line("32", "Zero-rated sales", "32A -"),
    line("33", "Exempt sales", "33A -"),
    line("34", "Total sales and output tax", "34A 34B", "sum"),
    line("35", "Less: output VAT on uncollected receivables", "- 35"),
    line("36", "Add: output VAT on recovered receivables", "- 36"),
    line("37", "Total adjusted output tax", "- 37", "sum"),
  ]),
  table("Allowable input tax", "Tax", [
    line("38", "Carried over from the previous quarter", "38"),
    line("39", "Deferred on capital goods from the previous quarter", "39"),
    line("40", "Transitional input tax", "40"),
    line("41", "Presumptive input tax", "41"),
    line("42", "Others", "42"),
    line("43", "Total", "43", "sum"),
  ]),
  table("Current purchases", AMOUNT_AND_TAX, [
    line("44", "Domestic purchases", "44A 44B"),
    line("45", "Services rendered by non-residents", "45A 45B"),
    line("46", "Importations", "46A 46B"),
    line("47", "Others", "47A 47B"),
    line("48", "Domestic purchases with no input tax", "48A -"),
    line("49", "VAT-exempt importations", "49A -"),
    line("50", "Total current purchases and input tax", "50A 50B", "sum"),
    line("51", "Total available input tax (43 + 50B)", "- 51", "sum"),
  ]),
  table("Deductions from input tax", "Tax", [
    line("52", "On capital goods, deferred to the next period", "52"),
    line("53", "Attributable to VAT-exempt sales", "53"),
    line("54", "VAT refund or tax credit certificate claimed", "54"),
    line("55", "On unpaid payables", "55"),
    line("56", "Others", "56"),
    line("57", "Total", "57", "sum"),
    line("58", "Add: on settled unpaid payables previously deducted", "58"),
    line("59", "Adjusted deductions", "59", "sum"),
    line("60", "Total allowable input tax (51 − 59)", "60", "sum"),
    line("61", "Net VAT payable or excess input tax (37 − 60)", "61", "sum"),
  ]),
];
