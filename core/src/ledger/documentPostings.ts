import { at } from "../at.ts";
import { FiscalError, withinField } from "../errors.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";
import { DOCUMENT_KINDS, kindOf } from "../model/documentKinds.ts";
import type { CounterRole } from "../model/documentKinds.ts";
import type { DocumentInput } from "../model/document.ts";
import { allocate } from "../money/allocate.ts";
import { exactFromDecimal } from "../money/exact.ts";
import { onOneDenominator } from "../money/onOneDenominator.ts";
import type { LineTax, PricedDocument, PricedLine } from "../model/pricedDocument.ts";
import { accountInRole } from "../model/account.ts";
import type { Account } from "../model/account.ts";
import { imbalance } from "../model/posting.ts";
import type { Posting } from "../model/posting.ts";

/**
 * The journal entry of a document: net to the account of each line, tax to the accounts of its levy, the gross
 * to debtors, creditors or bank. Tax that is not recoverable goes with the cost. Self-assessed tax is both
 * output and input. Credit notes mirror.
 * @returns postings that balance, in minor units, debit positive
 * @throws FiscalError `ledger/no-account`, `ledger/unknown-account`, `ledger/unbalanced`
 */
export function documentPostings(
  document: DocumentInput,
  priced: PricedDocument,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const kind = DOCUMENT_KINDS[document.kind];
  if (kind.counter === null) return journalPostings(document, priced, accounts, digits);
  if (document.opening) return openingPostings(document, priced, accounts);
  const signed = priced.lines.flatMap((line, index) =>
    withinField(`lines[${index}]`, () => signedLine(line, document, accounts, digits)),
  );
  const counter: Posting = {
    account: counterAccount(document, kind.counter, accounts),
    amount: -imbalance(signed) || 0,
    line: null,
    levy: null,
    text: kind.name,
  };
  return [...signed, counter].filter((posting) => posting.amount !== 0);
}

/** A document from before the books: what it leaves open, against opening balances. */
function openingPostings(
  document: DocumentInput,
  { gross }: PricedDocument,
  accounts: readonly Account[],
): Posting[] {
  const { direction, sign, counter, name } = DOCUMENT_KINDS[document.kind];
  if (counter !== "receivable" && counter !== "payable") {
    throw new FiscalError(
      "document/opening",
      `Only what is open can be there from before. ${name} was paid at once.`,
      "opening",
    );
  }
  const amount = (direction === "sale" ? sign : -sign) * gross;
  const posting = (account: string, value: number): Posting => ({
    account,
    amount: value || 0,
    line: null,
    levy: null,
    text: name,
  });
  return [
    posting(accountInRole(accounts, counter), amount),
    posting(accountInRole(accounts, "opening"), -amount),
  ].filter((one) => one.amount !== 0);
}

function counterAccount(
  { paidThrough }: DocumentInput,
  role: CounterRole,
  accounts: readonly Account[],
): string {
  if (!paidThrough || role !== "bank") return accountInRole(accounts, role);
  if (accounts.some((account) => account.code === paidThrough)) return paidThrough;
  throw new FiscalError(
    "ledger/unknown-account",
    `There is no account ${paidThrough}. Choose one of the chart.`,
    "paidThrough",
  );
}

/** Postings of a line, debit positive. */
function signedLine(
  line: PricedLine,
  document: DocumentInput,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const factor = line.direction === "sale" ? -line.sign : line.sign;
  return linePostings(document, line, accounts, digits).map((posting) => ({
    ...posting,
    amount: posting.amount * factor || 0,
  }));
}

/** Postings of one line as if debits were positive on a purchase and credits positive on a sale. */
function linePostings(
  document: DocumentInput,
  line: PricedLine,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const isSale = line.direction === "sale";
  const input = at(document.lines, line.no - 1);
  const account = mainAccount(line, input.account, isSale, accounts);
  const main: Posting = { account, amount: line.net, line: line.no, levy: null, text: input.text ?? "" };
  const rest = line.taxes.flatMap((tax) =>
    isSale
      ? saleTax(tax, line, accounts, main)
      : purchaseTax(tax, holdOf(document, line, tax), line, accounts, main),
  );
  return [main, ...rest, ...stockPostings(line, input.attributes ?? {}, isSale, accounts, digits)];
}

/** What is sold from a stock book leaves the stock at its cost, where the chart has accounts for it. */
function stockPostings(
  { no, code }: PricedLine,
  { piece, cost }: Readonly<Record<string, string>>,
  isSale: boolean,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const stock = accounts.find(({ role }) => role === "stock");
  const sold = accounts.find(({ role }) => role === "stock-cost");
  const fromStock = piece !== undefined || (code?.treatment === "margin" && code.supply === "goods");
  if (!isSale || !cost || !stock || !sold || !fromStock) return [];
  const amount = withinField("attributes.cost", () => parseAmount(cost, digits));
  const posting = { line: no, levy: null, text: "Cost of what was sold" };
  return [
    { account: stock.code, amount, ...posting },
    { account: sold.code, amount: -amount, ...posting },
  ];
}

/** A line that is nothing but tax needs no account of its own. */
function mainAccount(
  line: PricedLine,
  named: string | undefined,
  isSale: boolean,
  accounts: readonly Account[],
): string {
  if (!named && line.code?.amountIs === "tax") {
    const levy = line.taxes[0]?.component.levy ?? null;
    return accountInRole(accounts, isSale ? "output-tax" : "input-tax", levy);
  }
  const forStock = !isSale && line.code?.treatment === "margin" && line.taxes.every(({ tax }) => tax === 0);
  if (!named && forStock && accounts.some(({ role }) => role === "stock"))
    return accountInRole(accounts, "stock");
  return lineAccount(named, isSale ? "sales" : "purchases", accounts);
}

function saleTax(tax: LineTax, line: PricedLine, accounts: readonly Account[], main: Posting): Posting[] {
  if (tax.component.charged !== "charged" || tax.tax === 0) return [];
  return splitPostings(tax.tax, "output-tax", tax, line, accounts, main);
}

/** The hold under which tax of a line is charged and not deducted yet: that of its code, or of the document. */
export function holdOf(document: DocumentInput, line: PricedLine, tax: LineTax): string | null {
  if (line.direction !== "purchase" || tax.component.charged !== "charged" || tax.recoverable === 0)
    return null;
  return line.code?.hold ?? document.creditHold ?? null;
}

/** The tax that is not deducted is added to `cost`, the posting of the line itself. */
function purchaseTax(
  tax: LineTax,
  hold: string | null,
  line: PricedLine,
  accounts: readonly Account[],
  cost: Posting,
): Posting[] {
  const { levy, charged } = tax.component;
  if (charged === "declared-only" || tax.tax === 0) return [];
  const postings: Posting[] = [];
  if (tax.recoverable !== 0) {
    postings.push(
      ...splitPostings(
        tax.recoverable,
        hold === null ? "input-tax" : "held-credit",
        tax,
        line,
        accounts,
        cost,
      ),
    );
  }
  cost.amount += tax.tax - tax.recoverable;
  if (charged === "self-assessed") {
    postings.push(taxPosting(accountInRole(accounts, "output-tax", levy), -tax.tax, line, tax));
  }
  return postings;
}

/** A tax on its account, or shared out as the component says; what is left over goes to the largest remainders. */
function splitPostings(
  amount: number,
  usual: "output-tax" | "input-tax" | "held-credit",
  tax: LineTax,
  line: PricedLine,
  accounts: readonly Account[],
  main: Posting,
): Posting[] {
  const { levy, splits } = tax.component;
  const rows = (line.sign < 0 ? splits?.credit : undefined) ?? splits?.invoice;
  if (!rows) return [taxPosting(accountInRole(accounts, usual, levy), amount, line, tax)];
  const shares = allocate(amount, onOneDenominator(rows.map((row) => exactFromDecimal(row.share))));
  return rows.flatMap((row, index) => {
    const share = at(shares, index);
    if (row.role === "cost") {
      main.amount += share;
      return [];
    }
    const role = row.role === "input-tax" ? usual : (row.role ?? usual);
    const account = row.account
      ? lineAccount(row.account, "sales", accounts)
      : accountInRole(accounts, role, levy);
    return [taxPosting(account, share, line, tax)];
  });
}

function taxPosting(account: string, amount: number, line: PricedLine, tax: LineTax): Posting {
  const percent = tax.component.rate.kind === "percent" && tax.rate !== null;
  const rate = percent ? ` ${tax.rate} %` : "";
  return { account, amount, line: line.no, levy: tax.component.levy, text: `${tax.component.levy}${rate}` };
}

function lineAccount(
  code: string | undefined,
  role: "sales" | "purchases",
  accounts: readonly Account[],
): string {
  if (!code) return accountInRole(accounts, role);
  if (accounts.some((account) => account.code === code)) return code;
  throw new FiscalError(
    "ledger/unknown-account",
    `There is no account ${code}. Choose one of the chart.`,
    "account",
  );
}

/** Lines with a code post their tax too: out of the amount where prices include tax, on top where they do not. */
function journalPostings(
  document: DocumentInput,
  priced: PricedDocument,
  accounts: readonly Account[],
  digits: number,
): Posting[] {
  const postings = document.lines.flatMap((line, index) =>
    withinField(`lines[${index}]`, (): Posting[] => {
      const pricedLine = priced.lines[index];
      if (pricedLine?.code) return signedLine(pricedLine, document, accounts, digits);
      if (!line.account)
        throw new FiscalError("ledger/no-account", "Choose an account for this line.", "account");
      return [
        {
          account: lineAccount(line.account, "sales", accounts),
          amount: withinField("amount", () => parseAmount(line.amount ?? "", digits)),
          line: index + 1,
          levy: null,
          text: line.text ?? "",
        },
      ];
    }),
  );
  const open = imbalance(postings);
  const { restTo } = kindOf(document.kind);
  if (open !== 0 && restTo !== null) {
    const account = accountInRole(accounts, restTo);
    postings.push({ account, amount: -open, line: null, levy: null, text: "What is left to enter" });
    return postings.filter((posting) => posting.amount !== 0);
  }
  if (open !== 0) {
    throw new FiscalError(
      "ledger/unbalanced",
      `Debits and credits differ by ${displayAmount(Math.abs(open), digits)}: ` +
        `${open > 0 ? "credits" : "debits"} are missing.`,
      "lines",
    );
  }
  return postings.filter((posting) => posting.amount !== 0);
}
