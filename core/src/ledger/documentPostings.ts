import { FiscalError, withinField } from "../errors.ts";
import { displayAmount, parseAmount } from "../money/amount.ts";
import { DOCUMENT_KINDS } from "../tax/documentInput.ts";
import type { DocumentInput } from "../tax/documentInput.ts";
import type { ComponentTax } from "../tax/priceLine.ts";
import type { PricedDocument, PricedLine } from "../tax/priceDocument.ts";
import { accountInRole } from "./account.ts";
import type { Account } from "./account.ts";
import { imbalance } from "./posting.ts";
import type { Posting } from "./posting.ts";

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
  if (document.kind === "journal") return journalPostings(document, accounts, digits);
  const kind = DOCUMENT_KINDS[document.kind];
  const credit = kind.direction === "sale" ? -kind.sign : kind.sign;
  const postings = priced.lines.flatMap((line, index) =>
    withinField(`lines[${index}]`, () => linePostings(document, line, accounts)),
  );
  const signed = postings.map((posting) => ({ ...posting, amount: posting.amount * credit }));
  const counter: Posting = {
    account: accountInRole(accounts, kind.counter),
    amount: -imbalance(signed),
    line: null,
    levy: null,
    text: kind.name,
  };
  return [...signed, counter].filter((posting) => posting.amount !== 0);
}

/** Postings of one line as if debits were positive on a purchase and credits positive on a sale. */
function linePostings(document: DocumentInput, line: PricedLine, accounts: readonly Account[]): Posting[] {
  const isSale = DOCUMENT_KINDS[document.kind].direction === "sale";
  const input = document.lines[line.no - 1];
  const account = lineAccount(input?.account, isSale ? "sales" : "purchases", accounts);
  const text = input?.text ?? "";
  const main: Posting = { account, amount: line.net, line: line.no, levy: null, text };
  const rest = line.taxes.flatMap((tax) =>
    isSale ? saleTax(tax, line, accounts) : purchaseTax(tax, line, accounts, main),
  );
  return [main, ...rest];
}

function saleTax(tax: ComponentTax, line: PricedLine, accounts: readonly Account[]): Posting[] {
  if (tax.component.charged !== "charged" || tax.tax === 0) return [];
  return [taxPosting(accountInRole(accounts, "output-tax", tax.component.levy), tax.tax, line, tax)];
}

/** The tax that is not deducted is added to `cost`, the posting of the line itself. */
function purchaseTax(
  tax: ComponentTax,
  line: PricedLine,
  accounts: readonly Account[],
  cost: Posting,
): Posting[] {
  const { levy, charged } = tax.component;
  if (charged === "declared-only" || tax.tax === 0) return [];
  const postings: Posting[] = [];
  if (tax.recoverable !== 0) {
    postings.push(taxPosting(accountInRole(accounts, "input-tax", levy), tax.recoverable, line, tax));
  }
  cost.amount += tax.tax - tax.recoverable;
  if (charged === "self-assessed") {
    postings.push(taxPosting(accountInRole(accounts, "output-tax", levy), -tax.tax, line, tax));
  }
  return postings;
}

function taxPosting(account: string, amount: number, line: PricedLine, tax: ComponentTax): Posting {
  const rate = tax.rate === null ? "" : ` ${tax.rate} %`;
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

function journalPostings(document: DocumentInput, accounts: readonly Account[], digits: number): Posting[] {
  const postings = document.lines.map((line, index) =>
    withinField(`lines[${index}]`, (): Posting => {
      if (!line.account)
        throw new FiscalError("ledger/no-account", "Choose an account for this line.", "account");
      return {
        account: lineAccount(line.account, "sales", accounts),
        amount: withinField("amount", () => parseAmount(line.amount ?? "", digits)),
        line: index + 1,
        levy: null,
        text: line.text ?? "",
      };
    }),
  );
  const open = imbalance(postings);
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
