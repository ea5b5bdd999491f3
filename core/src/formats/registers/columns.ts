/** What a column of a sales or purchase register can hold. */
export const REGISTER_FIELDS = {
  number: "Document number",
  date: "Date",
  taxPoint: "Tax point",
  due: "Payment due on",
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
  due: /^due$|\bdue (date|on|by|day)\b|\bdate due\b|\bpay(able|ment)? by\b|maturity/,
  date: /\bdate\b|^dated?$|^day$/,
  partyNumber:
    /\b(gstin|uin|abn|trn|vrn|ust id(nr)?|ird)\b|\b(vat|gst|hst|qst|tax) (reg|registration|number|no|nr|id)\b|registration n/,
  partyCountry: /country/,
  partyRegion: /place of supply|^(pos|region|state|province|county|emirate)( code| name)?$/,
  party:
    /customer|client|supplier|vendor|buyer|seller|recipient|payee|payer|party|^name$|sold to|bill(ed)? to|bought from|account name|contact/,
  kind: /^(type|kind|document type|doc type|transaction type)$/,
  text: /description|details|^text$|narrative|memo|particulars|goods(?! value)/,
  rate: /\brate\b|percent|^%$|\b(vat|gst|hst|tax) %/,
  code: /\bcode\b|tax type|treatment/,
  net: /^net\b|\bnet$|\bexcl|\bex (vat|gst|tax)\b|before tax|goods value|taxable/,
  gross:
    /gross|\bincl|^total$|total amount|amount due|(invoice|bill|document) (total|value|amount)|to pay|^amount$/,
  tax: /^(vat|gst|hst|tax)$|(vat|gst|hst|tax) amount|^vat (gbp|£)|output tax|input tax|amount of (vat|gst|hst|tax)|total (vat|gst|hst|tax)$/,
  account: /^(account|nominal|ledger)( code| no)?$|category/,
};
