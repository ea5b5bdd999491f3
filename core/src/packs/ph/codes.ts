import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

// prettier-ignore
const rows: CodeRow[] = [
  { code: "V12", name: "VATable", direction: "sale", treatment: "standard", schedule: "STD", sale: "31A +n, 31B +t", source: "NIRC s. 106, 108" },
  { code: "VZ", name: "Zero-rated", direction: "sale", treatment: "zero", schedule: "ZERO", sale: "32A +n", source: "NIRC s. 106(A)(2), 108(B)" },
  { code: "VX", name: "Exempt", direction: "sale", treatment: "exempt", sale: "33A +n", note: "To senior citizens and persons with disability the price without VAT, less 20 %.", source: "NIRC s. 109" },
  { code: "VO", name: "Out of scope", direction: "sale", treatment: "out-of-scope", source: "NIRC s. 105" },
  { code: "UR", name: "Uncollected receivable", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "35 -t", from: "2024-01-22", note: "Entered as a credit note once the agreed time of payment is over; the amount is the tax.", source: "NIRC s. 110(D), RA 11976" },
  { code: "UV", name: "Uncollected receivable recovered", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "36 +t", from: "2024-01-22", note: "The amount is the tax.", source: "NIRC s. 110(D), RA 11976" },
  { code: "D12", name: "Domestic, for taxable sales", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "44A +n, 44B +r", source: "NIRC s. 110(A)" },
  { code: "D12M", name: "Domestic, for taxable and exempt sales", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "44A +n, 44B +r, common +r", note: "The share of exempt sales leaves in item 53.", source: "NIRC s. 110(A)(3)" },
  { code: "D12X", name: "Domestic, for exempt sales only", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", purchase: "44A +n, 44B +t, direct +t", note: "All of its tax leaves in item 53.", source: "NIRC s. 110(A)(3)" },
  { code: "DB", name: "Private, or without a VAT invoice", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "NIRC s. 110(A), 113" },
  { code: "DN", name: "No input tax", direction: "purchase", treatment: "exempt", purchase: "48A +n", source: "NIRC s. 109, 116" },
  { code: "DO", name: "Out of scope", direction: "purchase", treatment: "out-of-scope", source: "NIRC s. 105" },
  { code: "NR12", name: "Services of a non-resident, VAT withheld", direction: "purchase", treatment: "import", supply: "services", amountIs: "base", schedule: "STD", purchase: "45A +b, 45B +r", note: "The amount is the fee; the tax is what goes to the BIR with form 1600-VT.", source: "NIRC s. 108, 114(C)" },
  { code: "IM12", name: "Import", direction: "purchase", treatment: "import", supply: "goods", amountIs: "base", schedule: "STD", purchase: "46A +b, 46B +r", note: "The amount is the value for customs with duties; the tax is paid to customs.", source: "NIRC s. 107" },
  { code: "IMX", name: "Exempt import", direction: "purchase", treatment: "exempt", supply: "goods", purchase: "49A +n", source: "NIRC s. 109" },
  { code: "IG", name: "Overseas bill for imported goods", direction: "purchase", treatment: "out-of-scope", supply: "goods", source: "NIRC s. 107" },
  { code: "UP", name: "Input tax of a bill not paid in time", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "55 -r", from: "2024-01-22", note: "Entered as a credit note; the amount is the tax.", source: "NIRC s. 110(D), RA 11976" },
  { code: "SP", name: "Such a bill paid", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "58 +r", from: "2024-01-22", note: "The amount is the tax.", source: "NIRC s. 110(D), RA 11976" },
];

export const codes = codesOfLevy("ph", "VAT", rows);
