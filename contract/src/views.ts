import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import type { CodeQuestion, CodeSource, LevyTotal } from "@fiscalon/core/model/pricedDocument";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { DocumentInput, RecordedRate } from "@fiscalon/core/model/document";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import type { RegistrationChange } from "@fiscalon/core/model/registration";
import type { Basis } from "@fiscalon/core/model/basis";
import type { PeriodState } from "./returns.ts";
import type { StandingBody } from "./setup.ts";
import type { Posting } from "@fiscalon/core/model/posting";

/** The one shape of an error over HTTP. */
export interface ErrorBody {
  error: { code: string; message: string; field?: string; details?: Record<string, unknown> };
}

export interface ClientRow {
  id: number;
  name: string;
  country: string;
  currency: string;
  documents: number;
  places: string;
  /** By registration, the oldest return that is not filed yet, of periods that have begun. */
  next: NextReturn[];
}

/** A return that is still to be filed. */
export interface NextReturn {
  registration: number;
  levies: string[];
  from: string;
  to: string;
  due: string;
  state: PeriodState;
  /** Minor units of the client's currency. */
  net: number;
  /** Findings nobody accepted, and how many of them stop it; null while they are being counted, or where they cannot be. */
  findings: { open: number; stops: number } | null;
  counting: boolean;
}

export interface RegistrationView {
  id: number;
  ref: string;
  pack: string;
  packName: string;
  authority: string;
  numberName: string;
  levies: string[];
  /** The region it is for, where a levy is registered region by region. */
  region: string | null;
  number: string | null;
  from: string;
  to: string | null;
  frequency: Frequency;
  rhythm: string;
  anchor: string;
  basis: Basis;
  /** Rhythms from later days on. */
  changes: RegistrationChange[];
  options: Record<string, string>;
  /** What it brought into its first return here, decimal text by box. */
  opening: Record<string, string>;
  /** The special schemes it is on, by date. */
  schemes: SchemeInForce[];
  rounding: PlainSetup["registrations"][number]["rounding"];
}

export interface ClientView {
  id: number;
  name: string;
  country: string;
  currency: string;
  digits: number;
  /** The time zone its days are of. */
  zone: string;
  saleCode: string | null;
  purchaseCode: string | null;
  places: {
    id: number;
    ref: string;
    name: string;
    country: string;
    region: string | null;
    closedOn: string | null;
    saleCode: string | null;
    purchaseCode: string | null;
  }[];
  registrations: RegistrationView[];
  /** Null where no pack ships for the country. */
  pack: {
    id: string;
    name: string;
    authority: string;
    numberName: string;
    rhythms: { id: string; name: string; frequency: string; anchor: string }[];
    roundings: { id: string; name: string; source: string }[];
    form: { id: string; name: string; boxes: { id: string; short: string }[] };
  } | null;
}

/** A jurisdiction in the list of those that are known. */
export interface JurisdictionRow {
  id: string;
  country: string;
  name: string;
  currency: string;
  levies: string[];
  codes: number;
  forms: string[];
  shipped: boolean;
}

/** What a registration owes: periods that have ended and are not filed, and the one that runs. Net in minor units. */
export interface AgencyPosition {
  registration: number;
  due: PeriodPosition[];
  running: PeriodPosition | null;
}

export interface PeriodPosition {
  from: string;
  to: string;
  due: string;
  net: number;
  state: string;
}

export interface ContactView {
  id: number;
  ref: string;
  name: string;
  country: string | null;
  region: string | null;
  taxNumber: string | null;
  registered: boolean | null;
  /** By levy, what it is for tax, with the paper that proves it. */
  standing: Record<string, StandingBody>;
  saleCode: string | null;
  purchaseCode: string | null;
  documents: number;
}

export interface ContactPage {
  total: number;
  rows: ContactView[];
}

export interface ItemPage {
  total: number;
  rows: ItemView[];
}

export interface ItemView {
  id: number;
  ref: string;
  name: string;
  unitPrice: string | null;
  supply: "goods" | "services" | null;
  taxClass: string | null;
  saleCode: string | null;
  purchaseCode: string | null;
  saleAccount: string | null;
  purchaseAccount: string | null;
  statisticalCode: string | null;
}

export interface DocumentRow {
  id: number;
  kind: DocumentKind;
  number: string;
  date: string;
  taxPoint: string;
  party: string;
  net: number;
  tax: number;
  gross: number;
  codes: string;
  state: "posted" | "superseded" | "void";
  late: boolean;
  locked: boolean;
}

/** What the documents of a side add up to; where the list is of one code, what their lines with it do. Minor units. */
export interface DocumentSum {
  side: "sale" | "purchase";
  count: number;
  net: number;
  tax: number;
  gross: number;
}

/** Documents, and what all that match come to; null where it was not asked for. */
export interface DocumentPage {
  total: number | null;
  sums: DocumentSum[] | null;
  rows: DocumentRow[];
}

export interface DocumentView {
  id: number;
  state: "posted" | "superseded" | "void";
  input: DocumentInput & { number: string; note: string; corrects: string | null };
  contact: ContactView | null;
  place: number | null;
  net: number;
  tax: number;
  gross: number;
  /** In the document's own currency, where that is another. */
  foreignGross: number | null;
  ledgerDate: string;
  /** What remains to be settled, in the document's currency; null where it was paid at once. */
  open: number | null;
  settledBy: {
    payment: number;
    kind: string;
    number: string;
    date: string;
    amount: number;
    difference: number;
  }[];
  locked: { period: string; state: string } | null;
  /** Those of the rates it was counted with that its schedules do not have any more. */
  recordedRates: readonly RecordedRate[];
  source: { importId: number; fileName: string; row: number | null } | null;
  history: { at: string; by: string; what: string; documentId: number }[];
}

/** A document as a credit note for it needs it: its tax point decides the rates, its gross the boxes. */
export interface OriginalView {
  date: string;
  gross: number;
  recordedRates: readonly RecordedRate[];
}

export interface PricePreview {
  effect: Pick<DocumentEffect, "ledgerDate" | "warnings">;
  lines: {
    no: number;
    net: string;
    gross: string;
    code: string | null;
    /** Where the code comes from, and why it is this one. */
    source: CodeSource | null;
    reason: string | null;
    /** What must be said before the line has a code. */
    asks: CodeQuestion | null;
    taxes: {
      levy: string;
      rate: string | null;
      tax: string;
      calculated: string;
      typed: boolean;
      /** Whether it is a share of a total from the paper. */
      shared: boolean;
      arithmetic: string[];
    }[];
  }[];
  levies: {
    levy: string;
    rate: string | null;
    per: LevyTotal["per"];
    net: string;
    tax: string;
    charged: boolean;
  }[];
  net: string;
  tax: string;
  gross: string;
  postings: (Omit<Posting, "amount"> & { amount: string })[];
  boxes: { registration: number; periodEnd: string; box: string; amount: string }[];
}

export interface JobView {
  id: number;
  kind: string;
  state: "waiting" | "running" | "done" | "failed" | "cancelled";
  done: number;
  total: number;
  message: string;
  result: unknown;
  error: ErrorBody["error"] | null;
}

/** A job that is under way, and whose books it is about; null where it is about those of several. */
export interface JobUnderWay {
  job: JobView;
  client: { id: number; name: string } | null;
  at: string;
}

/** How a code is used: on how many lines, and whether it is archived. */
export interface CodeUse {
  code: string;
  lines: number;
  archived: boolean;
}

/** Documents whose rate another set of rows would change. Only open periods: sealed ones keep what was declared. */
export interface TouchedDocuments {
  count: number;
  /** Those on sealed returns, which stay as they were declared. */
  declared: number;
  first: { id: number; number: string; date: string; gross: number }[];
}

/** What the register of a country says of a tax number. */
export type RegisterAnswer =
  | { state: "registered"; number: string; name: string; since: string }
  | { state: "ended"; number: string; name: string; until: string }
  | { state: "unknown"; number: string; message: string };

/** A paper beside a document. */
export interface AttachmentView {
  id: number;
  name: string;
  type: string;
  bytes: number;
  at: string;
  by: string;
}
