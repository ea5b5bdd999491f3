/** What can be refused of schemes, of the stock book and of sales from it. */
export const ERRORS_OF_STOCK = {
  "capital/amount": { status: 422, says: "The cost and the tax of an item are nought or more." },
  "capital/by-turnover": {
    status: 422,
    says: "The share of such an item is that of turnover; none is typed.",
  },
  "capital/ended": { status: 422, says: "An item ends on or after the day of its first use." },
  "capital/kind": {
    status: 422,
    says: 'There is no kind "…" of capital items. Choose one of: ….',
  },
  "capital/levy": { status: 422, says: "No tax called … follows the use of capital items." },
  "capital/no-rule": {
    status: 409,
    says: "The law of this registration adjusts no tax on capital items over years.",
  },
  "capital/sealed": {
    status: 409,
    says: "This changes what the sealed return to … holds. Reopen it first, or put the adjustment on a later return with a document.",
  },
  "capital/too-cheap": {
    status: 422,
    says: "An item of this kind has a … of … or more; the tax of a smaller one is deducted once.",
  },
  "capital/uses": {
    status: 422,
    says: "No stretch of its time ends on …: they end on … and so on.",
  },
  "collection/nothing-left": {
    status: 409,
    says: "Nothing is left to charge to customer …: it was charged, or its receipts changed, in between. Look at the list again.",
  },
  "jurisdiction/unknown-name": {
    status: 422,
    says: "… is no … of this jurisdiction. Add it, or correct the rule.",
  },
  "scheme/amount": {
    status: 422,
    says: '"…" is an amount of nought or more, such as 1250.00, and not ….',
  },
  "stock/bought": {
    status: 409,
    says: "Piece … of the stock book comes from …. Remove it from the book, or put it back in stock, before.",
  },
  "stock/cost": {
    status: 422,
    says: "Piece … cost … by the stock book, and the line says …. Correct one of them.",
  },
  "stock/csv": { status: 422, says: "Row …: …. Export the book once to see the shape." },
  "stock/ended": { status: 409, says: "Piece … is not in stock." },
  "stock/kind": { status: 422, says: 'There is no kind "…" of pieces. Choose one of the list.' },
  "stock/no-purchase": {
    status: 409,
    says: "Line … of document … is no purchase for the scheme, or is in a piece already.",
  },
  "stock/off": {
    status: 422,
    says: "Piece … is not on the scheme: …. Sell it with an ordinary code, tax on the whole price.",
  },
  "stock/price": { status: 422, says: "A piece has a price of nought or more." },
  "stock/purchase": {
    status: 422,
    says: "Type the day and the price, so that the purchase can be booked.",
  },
  "stock/set": {
    status: 422,
    says: "A set is made of single pieces with a price each, all on the scheme or all off it.",
  },
  "stock/sold": { status: 409, says: "Piece … was sold with … already." },
  "stock/unknown": { status: 422, says: "The stock book has no piece …. Choose one of the list." },
  "takings/code": { status: 422, says: "… is no code of takings here. Columns are …." },
  "takings/columns": {
    status: 422,
    says: "The file needs a column Date and one of takings. Columns are ….",
  },
  "takings/csv": { status: 422, says: "Row …: …. Correct the file and read it again." },
  "takings/overtaken": {
    status: 409,
    says: "… of … was changed to … after you opened the sheet. Look at it, and keep yours again if it is right.",
  },
  "takings/no-scheme": {
    status: 409,
    says: "A takings sheet belongs to a scheme of shops. Join one in Set up, Places & registrations.",
  },
} as const satisfies Record<string, { status: number; says: string }>;
