/** What a column of a sales or purchase register can hold. */
export const REGISTER_FIELDS = {
  number: "Document number",
  date: "Date",
  taxPoint: "Tax point",
  party: "Customer or supplier",
  partyNumber: "Their tax number",
  partyCountry: "Their country",
  partyRegion: "Their region, place of supply",
  text: "Text",
  kind: "Kind (invoice or credit note)",
  net: "Net",
  tax: "Tax",
  gross: "Gross",
  rate: "Rate",
  code: "Tax code",
  account: "Account",
} as const;

export type RegisterField = keyof typeof REGISTER_FIELDS;

/** By field, the position of its column from 0. */
export type ColumnMapping = Readonly<
  Partial<Record<RegisterField, number>> & Record<string, number | undefined>
>;

/** Header words by field, most telling first; compared in lower case without punctuation. */
export const HEADERS: Record<RegisterField, RegExp> = {
  number:
    /^(invoice|inv|document|doc|bill|credit note|reference|ref|our|their|voucher)?\s*(no|nr|num|number|ref|reference|id)$|^(invoice|document|bill|reference|ref)$/,
  taxPoint: /tax point|supply date|date of supply/,
  date: /date|^dated$|^day$/,
  partyNumber: /vat (reg|registration|number|no|id)|tax (number|no|id)|^vrn$|registration n/,
  partyCountry: /country/,
  partyRegion: /place of supply|^(pos|region|state|province|county|emirate)( code| name)?$/,
  party: /customer|client|supplier|vendor|party|^name$|sold to|bought from|account name|contact/,
  kind: /^(type|kind|document type|doc type|transaction type)$/,
  text: /description|details|^text$|narrative|memo|particulars|goods/,
  rate: /rate|vat percent|percent|^%$|vat %/,
  code: /code|tax type|treatment/,
  net: /^net|net$|excl|ex vat|before tax|goods value|taxable/,
  gross: /gross|incl|^total$|total amount|amount due|invoice total|to pay|^amount$/,
  tax: /^vat$|^tax$|vat amount|tax amount|^vat (gbp|£)|output tax|input tax|amount of vat/,
  account: /^(account|nominal|ledger)( code| no)?$|category/,
};
