import { ERRORS_OF_AGREEMENTS } from "./errorsOfAgreements.ts";
import { ERRORS_OF_FILES } from "./errorsOfFiles.ts";
import { ERRORS_OF_REQUESTS } from "./errorsOfRequests.ts";
import { ERRORS_OF_SERVER } from "./errorsOfServer.ts";
import { ERRORS_OF_STATEMENTS } from "./errorsOfStatements.ts";
import { ERRORS_OF_STOCK } from "./errorsOfStock.ts";

/** What can be refused: by its code the status it has over HTTP, and what it says ("…" stands for what it is about). */
export const ERRORS = {
  ...ERRORS_OF_AGREEMENTS,
  ...ERRORS_OF_FILES,
  ...ERRORS_OF_REQUESTS,
  ...ERRORS_OF_SERVER,
  ...ERRORS_OF_STATEMENTS,
  ...ERRORS_OF_STOCK,
  "account/duplicate-number": { status: 409, says: "Account … is there already: …. Choose another number." },
  "authority/no-answer": {
    status: 502,
    says: "The return was sent, and the authority does not say whether it has it. File again in a while: it is asked first, and nothing is sent twice.",
  },
  "authority/no-obligation": {
    status: 502,
    says: "The authority expects no return for a period ending …. Check the rhythm of the registration.",
  },
  "authority/refused": { status: 502, says: "The authority refused the return: … (…)" },
  "authority/unreachable": {
    status: 502,
    says: "The authority does not answer. Nothing was filed; try again in a while.",
  },
  "bank/consent": {
    status: 422,
    says: "The consent to read this account has ended. Connect the account again.",
  },
  "bank/currency": {
    status: 422,
    says: "The statement is in …, the books are kept in …. Only accounts in … are matched.",
  },
  "bank/no-proposal": {
    status: 422,
    says: "…, …: nothing in the books fits this line well enough. Choose what it is by hand.",
  },
  "bank/not-connected": { status: 422, says: "This account is not connected with a bank. Connect it first." },
  "bank/nothing": { status: 422, says: "Say what this line is." },
  "bank/other-amount": {
    status: 422,
    says: "The entry moved another amount on this account. Correct it, or choose another.",
  },
  "bank/refused": { status: 422, says: "The bank refused: …" },
  "bank/taken": { status: 422, says: "This entry is matched with another line of the bank already." },
  "bank/unreachable": { status: 502, says: "The bank does not answer. Try again in a while." },
  "bank/wrong-state": { status: 409, says: "This line is matched already. Take the match back first." },
  "bank/wrong-way": {
    status: 422,
    says: "The entry is the other way round: money in where the bank says out. Correct the entry, then match it.",
  },
  "calendar/not-a-date": { status: 422, says: '"…" is not a date. Write it like 2026-03-31.' },
  "law/dates": { status: 422, says: "It would end on …, before it begins on …." },
  "law/known": { status: 409, says: "This is on record already, from … by …." },
  "law/unknown": { status: 422, says: '… has no … "…". Choose one of the list.' },
  "stock/not-registered": {
    status: 422,
    says: "… has no registration with a number of its own on …. Add it under Places & registrations.",
  },
  "stock/one-registration": {
    status: 422,
    says: "Both places belong to one registration: nothing is supplied. Choose a place that is registered apart.",
  },
  "code/duplicate": { status: 422, says: "There is a code … already: …. Choose another name." },
  "code/in-use": {
    status: 422,
    says: "… is on documents, so its name, direction and levies stay. Archive it and make a new code.",
  },
  "code/wrong-side": { status: 422, says: "… is for …s." },
  "document/corrects-other-party": {
    status: 422,
    says: "… was issued to another party. Correct the number, or the contact.",
  },
  "document/currency": { status: 422, says: "Journals are kept in …. Type the amounts in it." },
  "credit/before-document": {
    status: 422,
    says: "… is of …. What it waits for cannot be there before.",
  },
  "credit/not-held": {
    status: 409,
    says: "No tax of … waits to be deducted. Say on the document what is missing first.",
  },
  "credit/sealed": {
    status: 409,
    says: "The return to … deducted it and is sealed. Open that one first.",
  },
  "document/duplicate-number": {
    status: 409,
    says: "Number … is already in the books, dated …. Correct the number, or say why there are two.",
  },
  "document/far-date": {
    status: 422,
    says: "… is far from today, … (…). Correct the date, or say why it is right.",
  },
  "document/no-exchange-rate": { status: 422, says: "Type the rate: how many … one … is." },
  "document/no-number": { status: 422, says: "Type the number that stands on the document." },
  "document/opening": {
    status: 422,
    says: "Only what is open can be there from before. … was paid at once.",
  },
  "document/paid": { status: 422, says: "… is settled by … of …. Take it off that payment first." },
  "document/sealed": {
    status: 409,
    says: "… is on the return to …, which is …. Enter a credit note or a new document instead; it is taken up as a late item.",
  },
  "document/unknown-contact": { status: 422, says: "There is no such contact with this client." },
  "document/unknown-place": { status: 422, says: "There is no such place with this client." },
  "document/unknown-attribute": { status: 422, says: 'A line has no attribute "…". Did you mean "…"?' },
  "document/unknown-hold": {
    status: 422,
    says: 'No registration knows the hold "…". …',
  },
  "document/wrong-state": {
    status: 409,
    says: "This version of … was already replaced or taken out. Open the current one.",
  },
  "findings/must-be-fixed": { status: 422, says: '"…" cannot be accepted; put it right first.' },
  "findings/not-found": { status: 404, says: "This finding is gone; the list has been brought up to date." },
  "formula/not-allowed": {
    status: 422,
    says: '"…" uses more than numbers, + − * /, comparisons, a ? b : c, ….',
  },
  "formula/not-understood": { status: 422, says: '"…" is not a formula: …. Write it like [1] + [2].' },
  "formula/too-long": { status: 422, says: "A formula has at most … characters. Split it." },
  "formula/unknown-name": { status: 422, says: '"…" needs …, and there is none here.' },
  "jurisdiction/correction": {
    status: 422,
    says: "The last case of the rule for corrections must have no test, so that every error has an answer.",
  },
  "jurisdiction/double-code": { status: 422, says: "There are two codes …. Give one another name." },
  "jurisdiction/empty": { status: 422, says: "A jurisdiction needs at least one entry here." },
  "jurisdiction/in-use": { status: 422, says: "… registrations use …. It stays." },
  "jurisdiction/not-json": {
    status: 422,
    says: "This file is no jurisdiction: it is not JSON. Choose the file that was exported.",
  },
  "jurisdiction/pattern": { status: 422, says: '"…" is no pattern. Leave it empty to accept any number.' },
  "jurisdiction/shipped": { status: 422, says: "… ships with Fiscalon. Choose another id." },
  "jurisdiction/unknown-pack": { status: 422, says: 'There is no pack "…". Known: ….' },
  "jobs/cancelled": { status: 409, says: "Cancelled. Nothing was changed." },
  "jobs/failed": { status: 500, says: "The work broke off on the server; nothing was changed. See the log." },
  "jobs/interrupted": {
    status: 409,
    says: "The server stopped before this was finished. Nothing was changed; start it again.",
  },
  "ledger/no-account": { status: 422, says: "Choose an account for this line." },
  "ledger/unbalanced": { status: 422, says: "Debits and credits differ by …: … are missing." },
  "ledger/unknown-account": { status: 422, says: "There is no account …. Choose one of the chart." },
  "money/bad-rate": { status: 422, says: "A rate of exchange is above zero." },
  "money/division-by-zero": { status: 422, says: "This would divide by zero." },
  "money/not-a-number": { status: 422, says: '"…" is not a number. Write it like 1234.50.' },
  "money/too-large": { status: 422, says: "This amount is too large to be kept exactly. Check the digits." },
  "money/too-precise": {
    status: 422,
    says: "… has more decimals than the currency; … are possible. Round it first.",
  },
  "money/unknown-currency": { status: 422, says: "… is not an ISO 4217 currency code." },
  "payment/amount": {
    status: 422,
    says: "Type the amount without a sign; receipt or payment says the direction.",
  },
  "payment/bank-amount": { status: 422, says: "Type what the bank made of it in …." },
  "payment/far-date": { status: 422, says: "… is far from today, … (…). Correct the date." },
  "payment/not-open": { status: 422, says: "… … was paid at once." },
  "payment/nothing": { status: 422, says: "Type the amount, or choose documents." },
  "payment/other-currency": {
    status: 422,
    says: "… is in …. Record this payment in …, with what the bank made of it.",
  },
  "payment/other-party": {
    status: 422,
    says: "… belongs to another party. Take it off, or leave the party of the payment open.",
  },
  "payment/over-allocated": {
    status: 422,
    says: "The documents take …, but only … …. Allocate less, or correct the amount.",
  },
  "payment/sealed": {
    status: 409,
    says: "What this payment made reportable is on the return to …, which is …. Enter a payment the other way instead.",
  },
  "payment/unknown-document": {
    status: 422,
    says: "This document is not in the books, or no longer. Choose another.",
  },
  "payment/wrong-state": {
    status: 409,
    says: "This version was already replaced or taken out. Open the current one.",
  },
  "place/unknown-region": { status: 422, says: '… has no region "…". Known: ….' },
  "price/no-setup": { status: 422, says: "Say whose set-up to price with: a client, or a pack." },
  "register/bad-number": { status: 422, says: "This cannot be a number of the register." },
  "register/busy": { status: 502, says: "The register of numbers is busy. Try again in a while." },
  "register/unreachable": { status: 502, says: "The register of numbers does not answer. Try again later." },
  "registration/no-carried-box": {
    status: 422,
    says: "Box … takes nothing over from a period before. Boxes that do: ….",
  },
  "registration/opening-sealed": {
    status: 409,
    says: "Periods to … are sealed with what was brought in. Reopen them first, or put an adjustment on the next return.",
  },
  "registration/bad-number": {
    status: 422,
    says: "… is no number of the levy: its check digits do not fit.",
  },
  "registration/basis": { status: 422, says: "… knows no … basis for this registration. Choose …." },
  "registration/dates": { status: 422, says: "The registration would end before it starts." },
  "registration/leaving": { status: 422, says: 'Nothing is left by "…" on …. …' },
  "registration/no-anchor": { status: 422, says: "Say on which month end a … period ends." },
  "registration/option": {
    status: 422,
    says: '… is one of …, not "…".',
  },
  "registration/other-region": {
    status: 422,
    says: "… is a number of …, and the registration is to be for …. Correct one of the two.",
  },
  "registration/overlap": {
    status: 422,
    says: "There is already a registration for … from …. End that one first.",
  },
  "registration/rest-sealed": {
    status: 409,
    says: "What is unpaid belongs on the return to …, which is sealed (…). Reopen it first, or let the change begin a period later.",
  },
  "registration/rhythm-change": {
    status: 422,
    says: "A change of rhythm on … does not fit: it must come after …, one a day.",
  },
  "registration/sealed": {
    status: 409,
    says: "Periods to … are sealed. A change must begin after that day.",
  },
  "registration/unknown-levy": { status: 422, says: "… is no levy of …." },
  "report/too-long": {
    status: 422,
    says: "… lines are too many for one … file of at most …. Choose fewer days, or a code.",
  },
  "returns/being-sent": {
    status: 409,
    says: "This return was sent and its answer is not known. File it again: the authority is asked first what it holds, and nothing is sent twice.",
  },
  "returns/circular-boxes": {
    status: 422,
    says: "These boxes are worked out from each other: …. Break the circle.",
  },
  "returns/computed-box": { status: 422, says: "Box … is worked out from others (…). Adjust one of those." },
  "returns/box-in-no-table": {
    status: 422,
    says: "Box … stands in no table of the form. Give it a row, or mark it as a step of the computation.",
  },
  "returns/double-box": { status: 422, says: "The form has two boxes …." },
  "returns/earlier-open": { status: 422, says: "The period to … is still open. Seal it first." },
  "returns/figures-moved": {
    status: 409,
    says: "Box … is … now; it was … when you looked. Look at the return again before it is ….",
  },
  "returns/findings-open": { status: 409, says: "… … open. Put each right, or accept it with a reason." },
  "returns/no-box": { status: 422, says: "The form has no box …." },
  "scheme/unknown": { status: 422, says: '… has no scheme "…". Known: ….' },
  "scheme/start": { status: 422, says: "… begins with a filing period; … is not the first day of one." },
  "scheme/end": {
    status: 422,
    says: "… ends with a filing period; … is not the last day of one after it began.",
  },
  "scheme/overlap": {
    status: 422,
    says: "From … on … is in force, which excludes it. Let … end on … or before.",
  },
  "scheme/setting": { status: 422, says: '… asks for "…". Choose one of: ….' },
  "scheme/no-rate": {
    status: 422,
    says: 'The scheme has no rate for "…" on …. Choose another setting, or add a rate for that day.',
  },
  "scheme/sealed": {
    status: 409,
    says: "Periods to … are sealed as they are. A scheme must begin or end after that day.",
  },
  "unpaid/no-code": { status: 422, says: "The client has no code …. Add it under Set up, Codes." },
  "unpaid/nothing-left": {
    status: 409,
    says: "Nothing is to be taken for document … in this period any more: it was paid, or taken, in between. Look at the list again.",
  },
  "returns/nothing-amended": {
    status: 422,
    says: "Nothing of this document stands in a table that has amendments on this form. Leave it where it is.",
  },
  "returns/not-late": {
    status: 422,
    says: "Document … is no late item of the return to …; only what belongs to an earlier period can be answered here.",
  },
  "returns/no-form": { status: 422, says: "The … pack has no form for … and a period ending …." },
  "returns/no-number": {
    status: 422,
    says: "The registration has no number yet. Add it under Set up, Places & registrations.",
  },
  "returns/no-period": { status: 422, says: "No filing period of this registration ends on …." },
  "returns/no-reference": {
    status: 422,
    says: "Key the figures into the authority's pages, then enter the reference it gave.",
  },
  "returns/not-ended": { status: 422, says: "The period runs to …. It can be sealed from the day after." },
  "returns/sealed": { status: 409, says: "The period to … is …; nothing in it can change." },
  "returns/unknown-schedule": { status: 422, says: "There is no schedule of rates …." },
  "returns/table-width": { status: 422, says: 'Row "…" has … cells, and its table … columns.' },
  "returns/unknown-box": { status: 422, says: "The form has no box …." },
  "returns/wrong-state": {
    status: 409,
    says: "Only a period that is sealed and not yet filed can be opened again.",
  },
  "settle/amount": { status: 422, says: "Type the amount without a sign; the kind says the direction." },
  "settle/no-instalments": {
    status: 409,
    says: "This registration pays no instalments for the period to …. Set them up under Places & registrations first.",
  },
  "settle/wrong-state": { status: 409, says: "A period is settled once it is filed. File the return first." },
  "settle/wrong-way": { status: 422, says: "The return reclaims …: money comes in. Record it as a refund." },
  "supply/unknown-class": { status: 422, says: "Rule … is for …, which is no tax class." },
  "supply/unknown-code": { status: 422, says: "Rule … leads to …, which is no code." },
  "tax/rate-parts": {
    status: 422,
    says: "Before the change at most the whole price can be delivered or paid. Type it without a sign.",
  },
  "tax/amount-mismatch": {
    status: 422,
    says: "… × … is …, not …. Correct one of the three, or leave the amount empty.",
  },
  "tax/bad-box-tag": { status: 422, says: '"…" does not say where to land. Write it like "6 +n".' },
  "tax/bad-discount": { status: 422, says: "A discount is between 0 and 100 percent." },
  "tax/bad-rate-row": { status: 422, says: "A row of … does not run from one day to a later one." },
  "tax/bad-share": { status: 422, says: '"…" is not a percentage between 0 and 100.' },
  "tax/code-not-active": { status: 422, says: "… is in use …; the tax point is …." },
  "tax/code-wrong-side": { status: 422, says: "… is for …s; this document is a …. Choose a … code." },
  "tax/missing-input": { status: 422, says: "This code needs the … on the line. Fill it in." },
  "tax/no-account": {
    status: 422,
    says: "No account is set for … of …. Add one under Set up, Accounts.",
  },
  "tax/no-amount": { status: 422, says: "Give an amount, or a quantity and a unit price." },
  "tax/no-price": {
    status: 422,
    says: "No price without tax gives this amount with the formula of the code. Type the amount tax-exclusive, or correct the formula.",
  },
  "tax/none-applies": {
    status: 422,
    says: "…: this code is for ….",
  },
  "tax/no-rate": {
    status: 422,
    says: "No rate of … is in force on … for this code. Check the tax point or add a rate for that day.",
  },
  "tax/overlapping-rates": {
    status: 422,
    says: "… has two rates on …: … and …. End the earlier row on the day before.",
  },
  "tax/share-range": { status: 422, says: "… is not between 0 and 100 percent." },
  "tax/shares": { status: 422, says: "The shares of the tax do not sum to 100." },
  "tax/typed-tax-without-levy": {
    status: 422,
    says: "Tax is typed for …, but code … does not bear it. Choose a code that bears ….",
  },
  "tax/unknown-box": { status: 422, says: "No form in use has a box …." },
  "tax/unknown-code": { status: 422, says: "There is no tax code …. Choose one of the list." },
  "tax/unknown-levy": { status: 422, says: "There is no levy …. Choose one of the list." },
  "tax/unknown-schedule": { status: 422, says: "There are no rates named …. Add them, or choose others." },
  "terminal/connected": { status: 422, says: "This terminal is connected already." },
  "terminal/differs": {
    status: 422,
    says: "Transaction … does not add up: its parts are not its total. Report it to the operator of the terminal.",
  },
  "terminal/not-authorised": {
    status: 422,
    says: "The operator does not know these books yet. Give the key of the terminal first.",
  },
  "terminal/payout-account": {
    status: 422,
    says: "Payouts cannot go to …. Choose the account of the bank they arrive at.",
  },
  "terminal/refused": { status: 422, says: "The operator refused: …" },
  "terminal/unmapped": { status: 422, says: "The terminal calls a tax “…”. Say which code it is." },
  "terminal/unreachable": { status: 502, says: "The operator does not answer. Try again in a while." },
  "trail/not-found": { status: 404, says: "The form has no box …." },
} as const satisfies Record<string, { status: number; says: string }>;

export type ErrorCode = keyof typeof ERRORS;

/** Whether a code is one of the catalogue. */
export function isErrorCode(code: string): code is ErrorCode {
  return code in ERRORS;
}
