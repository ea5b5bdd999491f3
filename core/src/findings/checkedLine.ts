import type { CalendarDate } from "../calendar/date.ts";
import type { AccountType } from "../model/account.ts";
import type { Finding } from "../model/finding.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import type { ReturnForm } from "../model/returnForm.ts";
import type { Component, Direction, Treatment } from "../model/taxCode.ts";
import { documentKey, finding } from "./catalogue.ts";
import type { CheckId } from "./catalogue.ts";

/** A fact of the period with what a check says about it: its line, document, party and account. Minor units. */
export interface CheckedLine {
  document: number;
  line: number;
  number: string;
  taxPoint: CalendarDate;
  party: string;
  partyCountry: string | null;
  partyNumber: string | null;
  partyRegistered: boolean | null;
  code: string;
  levy: string;
  rate: string | null;
  direction: Direction;
  charged: Component["charged"];
  treatment: Treatment;
  tags: string;
  net: number;
  tax: number;
  calculated: number;
  recoverable: number;
  accountName: string | null;
  accountType: AccountType | null;
  topic: string | null;
  /** Whether figures of the line or its document come from the paper. */
  typed: boolean;
  attributes: Readonly<Record<string, string>>;
  documentGross: number;
}

/** What the checks on lines need to know of the period. */
export interface LineContext {
  pack: JurisdictionPack;
  form: ReturnForm;
  digits: number;
  /** Gross in minor units above which the supplier's number is looked at. */
  numberAbove: number;
}

/** The document a sentence is about: its number, and whose it is. */
export function whereOf({ number, party }: Pick<CheckedLine, "number" | "party">): string {
  return `${number}${party === "" ? "" : `, ${party}`}`;
}

/** A finding about a line. */
export function about(check: CheckId, line: CheckedLine, text: string): Finding {
  return finding(check, [documentKey(line.document), line.line], text, line);
}
