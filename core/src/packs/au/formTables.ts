import type { FormTable } from "../../model/returnForm.ts";
import { line, table } from "../shared/formTables.ts";

/** What a statement asks for beside GST, and its summary: what is owed at the left, what the authority owes at the right. */
const beside: FormTable[] = [
  table("PAYG tax withheld", "$", [
    line("W1", "Total of salary, wages and other payments", "W1"),
    line("W2", "Amounts withheld from W1", "W2"),
    line("W4", "Amounts withheld where no ABN is quoted", "W4"),
    line("W3", "Other amounts withheld", "W3"),
    line("W5", "Total amounts withheld (W2 + W4 + W3)", "W5", "sum"),
  ]),
  table("PAYG income tax instalment", "By amount | By income and rate", [
    line("T7, T1", "Instalment amount / instalment income", "T7 T1"),
    line("T8, T2", "Estimated tax for the year / rate of the authority, %", "T8 T2"),
    line("T9, T3", "Varied amount / varied rate, %", "T9 T3"),
    line("T11", "Income times rate", "- T11"),
    line("T4", "Reason code for varying", "T4 -"),
  ]),
  table("FBT instalment", "$", [
    line("F1", "Instalment amount of the authority", "F1"),
    line("F2", "Estimated FBT for the year", "F2"),
    line("F3", "Varied amount", "F3"),
    line("F4", "Reason code for varying", "F4"),
  ]),
  table("Summary", "You owe the ATO | The ATO owes you", [
    line("1A, 1B", "GST on sales / on purchases", "1A 1B"),
    line("1C, 1D", "Wine equalisation tax / refundable", "1C 1D"),
    line("1E, 1F", "Luxury car tax / refundable", "1E 1F"),
    line("4", "PAYG tax withheld", "4 -"),
    line("5A, 5B", "PAYG income tax instalment / credit from varying it", "5A 5B"),
    line("6A, 6B", "FBT instalment / credit from varying it", "6A 6B"),
    line("7", "Deferred company or fund instalment", "7 -"),
    line("7A", "Deferred GST on imports", "7A -"),
    line("7C, 7D", "Fuel tax credit over claim / fuel tax credit", "7C 7D"),
    line("8A, 8B", "Totals", "8A 8B", "sum"),
  ]),
  table("Payment or refund", "$", [
    line("9", "Payment or refund: the difference of 8A and 8B", "9", "result"),
  ]),
];

/** The worksheet is kept, sales at the left and purchases at the right. */
const worksheet: FormTable = table(
  "",
  "Sales | Purchases",
  [
    line("G1, G10", "Total sales / capital purchases", "G1 G10"),
    line("G2, G11", "Export sales / non-capital purchases", "G2 G11"),
    line("G3, G12", "Other GST-free sales / G10 + G11", "G3 G12"),
    line("G4, G13", "Input-taxed sales / purchases for making them", "G4 G13"),
    line("G5, G14", "G2 + G3 + G4 / purchases without GST in the price", "G5 G14"),
    line("G6, G15", "Sales subject to GST / private and non-deductible part", "G6 G15"),
    line("G7, G16", "Adjustments / G13 + G14 + G15", "G7 G16"),
    line("G8, G17", "After adjustments / purchases subject to GST", "G8 G17"),
    line("G9, G18", "GST on sales / adjustments", "G9 G18"),
    line("G19", "Purchases after adjustments", "- G19"),
    line("G20", "GST on purchases", "- G20"),
  ],
  "Calculation worksheet (kept, not lodged)",
);

const G1 = line("G1", "Total sales", "G1");

/** The statement as the authority draws it. Source: ATO, activity statement and GST worksheet; from memory. */
export const tables: FormTable[] = [
  table("Goods and services tax (GST)", "$", [
    G1,
    line("G2", "Export sales", "G2"),
    line("G3", "Other GST-free sales", "G3"),
    line("G10", "Capital purchases", "G10"),
    line("G11", "Non-capital purchases", "G11"),
  ]),
  ...beside,
  worksheet,
];

export const simplerTables: FormTable[] = [
  table("Goods and services tax (GST)", "$", [G1]),
  ...beside,
  worksheet,
];
