import type { CalendarDate } from "../../calendar/date.ts";
import type { AccountType } from "../../model/account.ts";

export interface AuditParty {
  id: string;
  name: string;
  taxNumber: string;
  country: string;
}

export interface AuditAccount {
  code: string;
  name: string;
  type: AccountType;
  /** Minor units, debit positive. */
  opening: number;
  closing: number;
}

export interface AuditTax {
  levy: string;
  code: string;
  name: string;
  percentage: string;
}

/** An entry of the ledger; `amount` in minor units, debit positive. */
export interface AuditTransaction {
  id: string;
  date: CalendarDate;
  text: string;
  lines: { account: string; text: string; amount: number }[];
}

/** A line of an invoice. Amounts in minor units as they count in the invoice or credit note: a discount is negative. */
export interface AuditLine {
  account: string;
  text: string;
  quantity: string;
  net: number;
  taxes: { levy: string; code: string; percentage: string; amount: number }[];
}

export interface AuditInvoice {
  number: string;
  date: CalendarDate;
  taxPoint: CalendarDate | null;
  party: string;
  credit: boolean;
  /** Taken back by who issued it; it counts nowhere. */
  annulled: boolean;
  lines: AuditLine[];
  net: number;
  gross: number;
}

/** The parts of an OECD standard audit file that hold ledger and tax. Money in minor units of `currency`. */
export interface AuditFile {
  country: string;
  currency: string;
  made: CalendarDate;
  company: AuditParty;
  from: CalendarDate;
  to: CalendarDate;
  accounts: AuditAccount[];
  customers: AuditParty[];
  suppliers: AuditParty[];
  taxes: AuditTax[];
  transactions: AuditTransaction[];
  sales: AuditInvoice[];
  purchases: AuditInvoice[];
}
