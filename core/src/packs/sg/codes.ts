import { codesOfLevy } from "../shared/codeRows.ts";
import type { CodeRow } from "../shared/codeRows.ts";

const SELF = "6 +t, 7 +r";

// prettier-ignore
const rows: CodeRow[] = [
  { code: "S", name: "Standard-rated", direction: "sale", treatment: "standard", schedule: "STD", sale: "1 +n, 6 +t", source: "GSTA s 16" },
  { code: "Z", name: "Zero-rated: export, international service", direction: "sale", treatment: "zero", schedule: "ZERO", sale: "2 +n", source: "GSTA s 21" },
  { code: "E33", name: "Exempt, incidental to the business", direction: "sale", treatment: "exempt", sale: "3 +n", source: "Regs reg. 33" },
  { code: "EN33", name: "Exempt, other", direction: "sale", treatment: "exempt", sale: "3 +n", source: "Fourth Schedule" },
  { code: "D", name: "Deemed supply", direction: "sale", treatment: "standard", schedule: "STD", sale: "1 +n, 6 +t", source: "GSTA s 10" },
  { code: "O", name: "Out of scope", direction: "sale", treatment: "out-of-scope", source: "GSTA s 8" },
  { code: "CA", name: "Customer accounting, supplier", direction: "sale", treatment: "reverse-charge-supplier", supply: "goods", schedule: "STD", charged: "declared-only", sale: "1 +n", source: "GSTA s 38A; from memory" },
  { code: "CB", name: "Customer accounting, recipient", direction: "purchase", treatment: "reverse-charge", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: `1 +n, 5 +n, ${SELF}`, source: "GSTA s 38A; from memory" },
  { code: "RS", name: "Reverse charge, imported services", direction: "purchase", treatment: "reverse-charge", supply: "services", schedule: "STD", charged: "self-assessed", purchase: `1 +n, 14 +n, 5 +n, ${SELF}`, inputs: ["recoverable"], note: "The attribute recoverable holds the claimable share.", source: "GSTA s 14" },
  { code: "RG", name: "Reverse charge, low-value goods", direction: "purchase", treatment: "reverse-charge", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: `1 +n, 14 +n, 5 +n, ${SELF}`, from: "2023-01-01", source: "GSTA s 14" },
  { code: "OS1", name: "Overseas vendor, own remote services or low-value goods", direction: "sale", treatment: "standard", schedule: "STD", sale: [{ when: { supply: "goods" }, tags: "1 +n, 6 +t, 17 +n" }, { tags: "1 +n, 6 +t" }], source: "GSTA Seventh Schedule; from memory" },
  { code: "OS2", name: "Marketplace or redeliverer for third parties", direction: "sale", treatment: "standard", schedule: "STD", sale: [{ when: { supply: "goods" }, tags: "1 +n, 6 +t, 16 +n" }, { tags: "1 +n, 6 +t, 15 +n" }], source: "GSTA Seventh Schedule; from memory" },
  { code: "MS", name: "Second-hand goods sold on margin", direction: "sale", treatment: "margin", amountIs: "gross", supply: "goods", formula: "max(0, gross - cost) * {STD} / (100 + {STD})", formulaBase: "max(0, gross - cost) * 100 / (100 + {STD})", inputs: ["cost"], sale: "1 +b, 6 +t", note: "The line's attribute `cost` holds the purchase price.", source: "GST (General) Regulations, gross margin scheme", doubt: "whether box 1 holds the margin or the price was not seen" },
  { code: "MSP", name: "Bought for the gross margin scheme", direction: "purchase", treatment: "margin", supply: "goods", source: "GST (General) Regulations, gross margin scheme" },
  { code: "P", name: "Standard-rated", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "5 +n, 7 +r", source: "GSTA s 19" },
  { code: "PZ", name: "Zero-rated", direction: "purchase", treatment: "zero", schedule: "ZERO", purchase: "5 +n", source: "GSTA s 21" },
  { code: "PI", name: "Import, GST paid to Customs", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", purchase: "5 +n, 7 +r", note: "The amount is the value on the permit.", source: "GSTA s 8(4)" },
  { code: "PM", name: "Import under a suspension scheme", direction: "purchase", treatment: "import", supply: "goods", schedule: "ZERO", purchase: "5 +n, 9 +n", source: "Regs, major exporter scheme; from memory" },
  { code: "PD", name: "Import under the deferment scheme", direction: "purchase", treatment: "import", supply: "goods", schedule: "STD", charged: "self-assessed", purchase: "5 +n, 21 +n, 19 +t, 7 +r", source: "Regs, import GST deferment scheme; from memory" },
  { code: "PX", name: "Directly for exempt sales", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", purchase: "5 +n, 7 +r", note: "Where the de minimis limits hold, or the sales are those of regulation 33, use PX33.", source: "Regs reg. 29; from memory" },
  { code: "PX33", name: "Directly for exempt sales of regulation 33", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "5 +n, 7 +r", source: "Regs reg. 33" },
  { code: "PRM", name: "Residual, shared on the return", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "5 +n, 7 +r", note: "Under partial exemption.", source: "Regs reg. 29; from memory" },
  { code: "PR", name: "Residual, apportioned", direction: "purchase", treatment: "standard", schedule: "STD", purchase: "5 +n, 7 +r", inputs: ["recoverable"], note: "The attribute recoverable holds the claimable share.", source: "Regs reg. 29; from memory" },
  { code: "BL", name: "Disallowed", direction: "purchase", treatment: "blocked", schedule: "STD", recoverable: "0", source: "Regs reg. 26, 27" },
  { code: "NR", name: "Supplier not registered", direction: "purchase", treatment: "out-of-scope", source: "GSTA s 19" },
  { code: "EP", name: "Exempt", direction: "purchase", treatment: "exempt", source: "Fourth Schedule" },
  { code: "OP", name: "Out of scope", direction: "purchase", treatment: "out-of-scope", source: "GSTA s 8" },
  { code: "BD", name: "Bad debt relief", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "7 +r, 11 +r", note: "The amount is the tax.", source: "GSTA s 25; from memory" },
  { code: "BR", name: "Bad debt recovered", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "6 +t", note: "The amount is the tax.", source: "GSTA s 25; from memory" },
  { code: "UO", name: "Input tax repaid, unpaid for 12 months", direction: "sale", treatment: "adjustment", amountIs: "tax", schedule: "typed", sale: "6 +t", note: "The amount is the tax.", source: "GSTA s 19(13); from memory" },
  { code: "UI", name: "Input tax of such a bill, paid later", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "7 +r", note: "The amount is the tax.", source: "GSTA s 19(13); from memory" },
  { code: "TR", name: "Tourist refund", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "7 +r, 10 +r", note: "The amount is the tax.", source: "Regs, tourist refund scheme; from memory" },
  { code: "PG", name: "Pre-registration input tax", direction: "purchase", treatment: "adjustment", amountIs: "tax", schedule: "typed", purchase: "7 +r, 12 +r", note: "The amount is the tax.", source: "Regs reg. 40; from memory" },
];

export const codes = codesOfLevy("sg", "GST", rows);
