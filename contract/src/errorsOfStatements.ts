/** What can be refused of lists of others and their matching. */
export const ERRORS_OF_STATEMENTS = {
  "formats/not-furnished": {
    status: 422,
    says: "This file is neither the JSON of the statement nor its workbook. Download it again and drop it as it is.",
  },
  "register/dimension": {
    status: 422,
    says: 'This register has no column for "…". Choose one that is offered.',
  },
  "register/no-amounts": {
    status: 422,
    says: "No column of amounts was found. Export the register as CSV or as a workbook, one row a document, with headings.",
  },
  "register/not-amounts": {
    status: 422,
    says: "Only columns of amounts can make up a value. Choose others.",
  },
  "statements/decision": { status: 422, says: "This cannot be said of these lines." },
  "statements/line-gone": {
    status: 409,
    says: "One of these lines was matched anew meanwhile. Look at the list again.",
  },
  "statements/no-hold": {
    status: 422,
    says: "The law of this registration lets nobody hold credit back for such a list.",
  },
  "statements/no-rows": {
    status: 422,
    says: "No document could be read from this file…. Check that it is the right one.",
  },
  "statements/other-registration": {
    status: 422,
    says: "The list is made for …; this registration is …. Choose the registration it belongs to.",
  },
  "statements/unknown-kind": { status: 404, says: 'There is no list "…" here. Choose one that is offered.' },
  "statements/whose": { status: 422, says: "Say whose statement it is: choose the …." },
} as const satisfies Record<string, { status: number; says: string }>;
