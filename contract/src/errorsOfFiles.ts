/** What can be refused of files that come in or go out: registers, e-invoices, audit files, book files, papers. */
export const ERRORS_OF_FILES = {
  "attachments/too-large": { status: 413, says: "Papers of up to 20 MB can be kept. Scan it smaller." },
  "attachments/type": {
    status: 422,
    says: "Only PDF, PNG, JPEG and XML can stand beside a document. Save it as one of these.",
  },
  "book/ambiguous": {
    status: 422,
    says: "Several documents have the number …. Name the kind, or the contact of the payment.",
  },
  "book/box-differs": { status: 422, says: "Box … comes out as … from the documents, but the file says …." },
  "book/double-id": { status: 422, says: "The id … is used twice." },
  "book/file-differs": {
    status: 422,
    says: "This content does not have the SHA-256 it is filed under; the book file was changed or cut.",
  },
  "book/jurisdiction-differs": {
    status: 422,
    says: "There is another jurisdiction … here. Give that of the file another id, in its registrations too.",
  },
  "book/not-json": {
    status: 422,
    says: "This file is no book file: it is not JSON. Choose the file that was exported.",
  },
  "book/payment-without-return": {
    status: 422,
    says: "No filed return of the file belongs to this payment. Correct the registration or the period.",
  },
  "book/too-large": {
    status: 413,
    says: "Papers and imported files are more than a book file can hold (140 MB). Save it without papers.",
  },
  "book/too-many-documents": {
    status: 413,
    says: "These books have … documents, and a book file holds up to …. Take a copy under Copies, or the books as CSV.",
  },
  "book/unknown-file": { status: 422, says: "The content of this file is not under files." },
  "book/unknown-id": { status: 422, says: 'The file has no "…" to refer to.' },
  "book/unknown-row": { status: 422, says: "The file has no row …. Rows are counted from 0." },
  "codes/bad-row": { status: 422, says: "Row …: what is wrong in it." },
  "codes/columns": { status: 422, says: "The file has no column …. Export the codes once to see the shape." },
  "codes/csv": { status: 422, says: "Row …: the file is no CSV there." },
  "export/not-sales": { status: 422, says: "A … is not written by this business." },
  "formats/auditfile-code": {
    status: 422,
    says: "The set-up has no code …. Choose one under “How the file is read”.",
  },
  "formats/auditfile-missing": { status: 422, says: "The audit file has no header." },
  "formats/bad-amount": { status: 422, says: 'Row …: "…" is not an amount.' },
  "formats/bad-date": { status: 422, says: '"…" in … is no date that exists.' },
  "formats/camt-missing": { status: 422, says: "There is no statement in this file." },
  "formats/columns-missing": { status: 422, says: "Say which column holds …." },
  "formats/einvoice-category": { status: 422, says: '"…" is no category of VAT an e-invoice may carry.' },
  "formats/einvoice-code": {
    status: 422,
    says: "No tax code fits category … at … % on …. Choose one under “How the file is read”.",
  },
  "formats/einvoice-kind": { status: 422, says: "…s are not sent as e-invoices; sales documents are." },
  "formats/einvoice-levies": { status: 422, says: "Line … bears …; an e-invoice tells one tax a line." },
  "formats/einvoice-missing": {
    status: 422,
    says: "The e-invoice lacks …. Ask whoever sent it for a complete one.",
  },
  "formats/einvoice-mixed": {
    status: 422,
    says: "A line not subject to VAT cannot share an e-invoice with others (BR-O-11). Put it on a document of its own.",
  },
  "formats/einvoice-rate": { status: 422, says: '"…" is no rate of tax.' },
  "formats/empty-file": { status: 422, says: "The file is empty. Export it again." },
  "formats/missing-box": { status: 422, says: "The return has no box …." },
  "formats/no-header": {
    status: 422,
    says: "No row of headings was found. A statement needs one that names the date and the amount, or money in and out.",
  },
  "formats/not-a-table": {
    status: 422,
    says: "This is no table: no columns can be told apart. Save it as CSV or as a workbook with one record a row.",
  },
  "formats/ofx-missing": { status: 422, says: "There is no OFX in this file." },
  "formats/unknown-xml": {
    status: 422,
    says: "This XML is no bank statement that is known. camt.053, OFX and CSV can be read.",
  },
  "formats/xml-depth": { status: 422, says: "This XML is nested too deeply to be genuine." },
  "formats/xml-doctype": {
    status: 422,
    says: "This XML declares a document type or entities, which no invoice, audit file or bank statement needs. It is not read; ask for the file without them.",
  },
  "formats/xml-malformed": { status: 422, says: "This XML is broken in line …: … Ask for the file again." },
  "imports/bank-statement": {
    status: 422,
    says: "This is a bank statement. Read it under Books, Bank: its lines are matched there.",
  },
  "imports/currency": { status: 422, says: "The audit file is in …, the books are kept in …." },
  "imports/no-date": { status: 422, says: "Say on which day these balances stood." },
  "imports/no-file": { status: 422, says: "Choose a file." },
  "imports/not-xml": { status: 422, says: "This is no XML. … For a table, choose what it holds." },
  "imports/other-side": {
    status: 422,
    says: "This e-invoice is … this business itself. Drop it as a file of ….",
  },
  "imports/pdf": { status: 422, says: "This is a PDF. Export the register as CSV instead." },
  "imports/problems": {
    status: 422,
    says: "… … mending before anything is posted. Mend them, or leave those rows out.",
  },
  "imports/sealed": {
    status: 409,
    says: "… of its documents are on the return to …, which is sealed. This import stays.",
  },
  "imports/too-large": {
    status: 413,
    says: "Row … of the sheet has … columns; … rows of … columns can be read. Split it.",
  },
  "imports/unknown-xml": {
    status: 422,
    says: "An XML file that begins with … is not known here. E-invoices in UBL and audit files (SAF-T) can be read.",
  },
  "imports/workbook": {
    status: 422,
    says: "This is a workbook or an archive. Save the sheet as CSV and drop that.",
  },
  "imports/wrong-state": { status: 409, says: "This file is posted. Undo it first, or drop a new one." },
} as const satisfies Record<string, { status: number; says: string }>;
