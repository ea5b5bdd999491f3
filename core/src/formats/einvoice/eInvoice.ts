import type { CalendarDate } from "../../calendar/date.ts";

/** Categories of VAT in an e-invoice (UNCL 5305, the part EN 16931 uses). */
export type TaxCategory = "S" | "Z" | "E" | "AE" | "K" | "G" | "O" | "L" | "M";

export interface EInvoiceParty {
  name: string;
  taxNumber: string;
  country: string;
  region: string;
}

/** A line. Amounts in minor units; `quantity` and `price` (for `per` units) as decimal strings, `rate` a percentage. */
export interface EInvoiceLine {
  id: string;
  name: string;
  quantity: string;
  unit: string;
  price: string;
  per: string;
  net: number;
  category: TaxCategory;
  rate: string;
}

/** An allowance (or a charge) on the whole document. `amount` in minor units, positive. */
export interface EInvoiceAllowance {
  charge: boolean;
  amount: number;
  reason: string;
  category: TaxCategory;
  rate: string;
}

export interface EInvoiceTax {
  category: TaxCategory;
  rate: string;
  taxable: number;
  tax: number;
  reason: string;
}

/** What the invoice says of its sums, minor units. */
export interface EInvoiceTotals {
  lines: number;
  allowances: number;
  charges: number;
  exclusive: number;
  tax: number;
  inclusive: number;
  prepaid: number;
  payable: number;
}

/** An invoice or credit note as EN 16931 has it, as far as tax and posting need it. Amounts in minor units. */
export interface EInvoice {
  credit: boolean;
  number: string;
  date: CalendarDate;
  taxPoint: CalendarDate | null;
  due: CalendarDate | null;
  currency: string;
  note: string;
  /** Number of the invoice a credit note corrects. */
  corrects: string;
  seller: EInvoiceParty;
  buyer: EInvoiceParty;
  lines: EInvoiceLine[];
  allowances: EInvoiceAllowance[];
  taxes: EInvoiceTax[];
  totals: EInvoiceTotals;
}
