import { FiscalError } from "../../errors.ts";
import { isCalendarDate } from "../../calendar/date.ts";
import { formatAmount, parseAmount } from "../../money/amount.ts";
import { minorDigits } from "../../money/currency.ts";
import { attribute, element, elements, textAt } from "../xml/readXml.ts";
import type { XmlElement } from "../xml/readXml.ts";
import { node, textNode, writeXml } from "../xml/writeXml.ts";
import type { XmlNode } from "../xml/writeXml.ts";
import type { BankStatement, StatementLine } from "./bankStatement.ts";

/**
 * Reads statements of ISO 20022 camt.053 (bank to customer statement), any version of the message.
 * @throws FiscalError `formats/camt-missing`, `formats/bad-date`, and what reading amounts throws
 * @source ISO 20022, camt.053.001: Stmt, Ntry, CdtDbtInd, Sts, Bal (OPBD, CLBD); from memory
 */
export function readCamt053(xml: XmlElement): BankStatement[] {
  const statements = elements(xml, "Document.BkToCstmrStmt.Stmt");
  if (statements.length === 0) {
    throw new FiscalError("formats/camt-missing", "There is no statement in this file.", "file");
  }
  return statements.map(statementOf);
}

function statementOf(statement: XmlElement): BankStatement {
  const account = textAt(statement, "Acct.Id.IBAN") || textAt(statement, "Acct.Id.Othr.Id");
  const entries = elements(statement, "Ntry");
  const currency =
    textAt(statement, "Acct.Ccy") ||
    attribute(element(entries[0], "Amt"), "Ccy") ||
    balanceCurrency(statement);
  if (currency === "") {
    throw new FiscalError("formats/camt-missing", `The statement of ${account} names no currency.`, "file");
  }
  const digits = minorDigits(currency);
  const seen = new Map<string, number>();
  return {
    account,
    currency,
    opening: balanceOf(statement, ["OPBD", "PRCD"], digits),
    closing: balanceOf(statement, ["CLBD"], digits),
    lines: entries.flatMap((entry) => linesOf(entry, digits, seen)),
  };
}

function balanceCurrency(statement: XmlElement): string {
  return attribute(element(statement, "Bal.Amt"), "Ccy");
}

function balanceOf(statement: XmlElement, codes: readonly string[], digits: number): number | null {
  const balance = elements(statement, "Bal").find((one) => codes.includes(textAt(one, "Tp.CdOrPrtry.Cd")));
  return balance ? signed(balance, digits) : null;
}

function signed(of: XmlElement, digits: number): number {
  const amount = parseAmount(trimmedZeros(textAt(of, "Amt")), digits);
  const side = textAt(of, "CdtDbtInd");
  if (side !== "CRDT" && side !== "DBIT")
    throw new FiscalError("formats/camt-missing", "An amount is neither a credit nor a debit.", "file");
  // The indicator is the direction of the money, also of a reversal.
  return side === "CRDT" ? amount : -amount || 0;
}

/** `12.500` of a two-digit currency is `12.50`. */
function trimmedZeros(text: string): string {
  return text.includes(".") ? text.replace(/0+$/, "").replace(/\.$/, "") : text;
}

/** A booked entry; where it bundles several payments that are told one by one, a line each. */
function linesOf(entry: XmlElement, digits: number, seen: Map<string, number>): StatementLine[] {
  // What is pending, or only told for information, has not moved.
  const status = textAt(entry, "Sts.Cd") || textAt(entry, "Sts");
  if (status === "PDNG" || status === "INFO" || status === "FUTR") return [];
  const date = (
    textAt(entry, "BookgDt.Dt") ||
    textAt(entry, "BookgDt.DtTm") ||
    textAt(entry, "ValDt.Dt")
  ).slice(0, 10);
  if (!isCalendarDate(date))
    throw new FiscalError("formats/bad-date", `"${date}" is no date of an entry.`, "file");
  const whole = signed(entry, digits);
  const details = elements(entry, "NtryDtls.TxDtls");
  const parts = details.flatMap((one) => {
    const amount = partAmount(one, whole, digits);
    return amount === null ? [] : [{ one, amount }];
  });
  const allTold = parts.length > 1 && parts.length === details.length;
  const told = allTold && parts.reduce((sum, { amount }) => sum + amount, 0) === whole;
  const list = told ? parts : [{ one: details[0], amount: whole }];
  const reference = textAt(entry, "AcctSvcrRef") || textAt(entry, "NtryRef");
  return list.map(({ one, amount }, index) => {
    const party = whole < 0 ? "Cdtr" : "Dbtr";
    const line = {
      date,
      amount,
      party: textAt(one, `RltdPties.${party}.Nm`) || textAt(one, `RltdPties.${party}.Pty.Nm`),
      text: [textAt(one, "RmtInf.Ustrd"), textAt(entry, "AddtlNtryInf")].filter(Boolean).join(" · "),
      reference: textAt(one, "RmtInf.Strd.CdtrRefInf.Ref") || endToEnd(one),
    };
    return {
      id: uniqueId(reference === "" ? "" : `${reference}${told ? `/${index + 1}` : ""}`, line, seen),
      ...line,
    };
  });
}

function partAmount(part: XmlElement, whole: number, digits: number): number | null {
  const text = textAt(part, "Amt") || textAt(part, "AmtDtls.TxAmt.Amt");
  if (text === "") return null;
  const amount = parseAmount(trimmedZeros(text), digits);
  // A part of a bundle may go the other way; where it does not say, it goes the way of the whole.
  const side = textAt(part, "CdtDbtInd");
  return side === "DBIT" || (side === "" && whole < 0) ? -amount || 0 : amount;
}

function endToEnd(part: XmlElement | undefined): string {
  const id = textAt(part, "Refs.EndToEndId");
  return id === "NOTPROVIDED" ? "" : id;
}

/** Banks that give no reference repeat themselves: the same line twice a day is told apart by its count. */
export function uniqueId(own: string, line: Omit<StatementLine, "id">, seen: Map<string, number>): string {
  const key = own || [line.date, line.amount, line.party, line.text, line.reference].join("|");
  const count = (seen.get(key) ?? 0) + 1;
  seen.set(key, count);
  return count === 1 ? key : `${key}#${count}`;
}

/** Writes a statement as camt.053.001.08, as the simulated bank serves it. */
export function writeCamt053(statement: BankStatement, made: string): string {
  const digits = minorDigits(statement.currency);
  const money = (amount: number) =>
    node("Amt", formatAmount(Math.abs(amount), digits), { Ccy: statement.currency });
  const side = (amount: number) => node("CdtDbtInd", amount < 0 ? "DBIT" : "CRDT");
  const balance = (code: string, amount: number | null, date: string): XmlNode | null =>
    amount === null
      ? null
      : node("Bal", [
          node("Tp", [node("CdOrPrtry", [node("Cd", code)])]),
          money(amount),
          side(amount),
          node("Dt", [node("Dt", date)]),
        ]);
  const [first, last] = [
    statement.lines[0]?.date ?? made.slice(0, 10),
    statement.lines.at(-1)?.date ?? made.slice(0, 10),
  ];
  const entries = statement.lines.map((line) => {
    const party = line.amount < 0 ? "Cdtr" : "Dbtr";
    return node("Ntry", [
      money(line.amount),
      side(line.amount),
      node("Sts", [node("Cd", "BOOK")]),
      node("BookgDt", [node("Dt", line.date)]),
      node("AcctSvcrRef", line.id),
      node("NtryDtls", [
        node("TxDtls", [
          line.reference === "" ? null : node("Refs", [node("EndToEndId", line.reference)]),
          line.party === ""
            ? null
            : node("RltdPties", [node(party, [node("Pty", [node("Nm", line.party)])])]),
          line.text === "" ? null : node("RmtInf", [textNode("Ustrd", line.text)]),
        ]),
      ]),
    ]);
  });
  return writeXml(
    node(
      "Document",
      [
        node("BkToCstmrStmt", [
          node("GrpHdr", [node("MsgId", `S${made.replace(/\D/g, "")}`), node("CreDtTm", made)]),
          node("Stmt", [
            node("Id", `${statement.account}-${last}`),
            node("Acct", [
              node("Id", [node("Othr", [node("Id", statement.account)])]),
              node("Ccy", statement.currency),
            ]),
            balance("OPBD", statement.opening, first),
            balance("CLBD", statement.closing, last),
            ...entries,
          ]),
        ]),
      ],
      { xmlns: "urn:iso:std:iso:20022:tech:xsd:camt.053.001.08" },
    ),
  );
}
