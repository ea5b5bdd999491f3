import { DataTypes } from "sequelize";
import type { Model, ModelStatic, Sequelize } from "sequelize";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import type { RegistrationChange } from "@fiscalon/core/model/registration";
import type { Basis } from "@fiscalon/core/model/basis";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import type { AccountRole, AccountType } from "@fiscalon/core/model/account";
import type { SchemeInForce } from "@fiscalon/core/model/scheme";
import type { Rounding } from "@fiscalon/core/model/rounding";
import type { RateRow, TaxCode } from "@fiscalon/core/model/taxCode";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { KeptAgreement } from "@fiscalon/contract/agreements";
import type { ImportContent, ImportReport, ImportSettings } from "@fiscalon/contract/imports";
import type { PeriodState } from "@fiscalon/contract/returns";
import type { StandingBody } from "@fiscalon/contract/setup";
import type { TableShape } from "@fiscalon/core/formats/tables/recogniseTable";

interface Made {
  id: number;
  createdAt: string;
  createdBy: number;
}
type Table<T extends object> = ModelStatic<Model<T, Partial<T>> & T>;

export interface ClientRecord extends Made {
  name: string;
  country: string;
  currency: string;
  saleCode: string | null;
  purchaseCode: string | null;
}
interface OfClient extends Made {
  clientId: number;
}
export interface PlaceRecord extends OfClient {
  ref: string;
  name: string;
  country: string;
  region: string | null;
  closedOn: string | null;
  saleCode: string | null;
  purchaseCode: string | null;
}
export interface RegistrationRecord extends OfClient {
  ref: string;
  pack: string;
  levies: string[];
  region: string | null;
  number: string | null;
  validFrom: string;
  validTo: string | null;
  frequency: Frequency;
  anchor: string;
  changes: RegistrationChange[];
  basis: Basis;
  rounding: Rounding;
  options: Record<string, string>;
  opening: Record<string, string>;
  schemes: SchemeInForce[];
}
export interface AccountRecord extends OfClient {
  code: string;
  name: string;
  type: AccountType;
  role: AccountRole | null;
  levy: string | null;
  region: string | null;
  topic: string | null;
  usualCode: string | null;
}
export interface CodeRecord extends OfClient {
  code: string;
  definition: TaxCode;
  active: boolean;
  position: number;
}
export interface ContactRecord extends OfClient {
  ref: string;
  name: string;
  country: string | null;
  region: string | null;
  taxNumber: string | null;
  registered: boolean | null;
  standing: Record<string, StandingBody> | null;
  saleCode: string | null;
  purchaseCode: string | null;
}
export interface ItemRecord extends OfClient {
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
export interface RuleRecord extends OfClient {
  ref: string;
  position: number;
  definition: SupplyRule;
}
export interface ScheduleRecord extends OfClient {
  ref: string;
  rows: RateRow[];
}
export interface JurisdictionRecord extends Made {
  ref: string;
  definition: OwnJurisdiction;
}
export interface LawChangeRecord extends Made {
  pack: string;
  change: LawChange;
}
export interface ReturnRecord extends OfClient {
  registrationId: number;
  periodFrom: string;
  periodEnd: string;
  state: PeriodState;
  boxes: { box: string; amount: number; exact: number }[] | null;
  /** The agreements as they stood when it was sealed. */
  agreements: KeptAgreement[] | null;
  net: number | null;
  facts: number | null;
  hash: string | null;
  sealedAt: string | null;
  sealedBy: number | null;
  filedAt: string | null;
  filedBy: number | null;
  receipt: Record<string, unknown> | null;
  settledAt: string | null;
  settledBy: number | null;
  settlementEntry: number | null;
}
export interface AdjustmentRecord extends OfClient {
  registrationId: number;
  periodEnd: string;
  box: string;
  amount: number;
  reason: string;
  evidence: string;
}
export interface AcceptanceRecord extends OfClient {
  registrationId: number;
  periodEnd: string;
  key: string;
  reason: string;
}
export interface ImportRecord extends OfClient {
  content: ImportContent;
  rejectedHash: string | null;
  direction: "sale" | "purchase";
  fileName: string;
  fileHash: string;
  bytes: number;
  encoding: string;
  shape: TableShape;
  settings: ImportSettings;
  report: ImportReport | null;
  state: "recognised" | "checked" | "posted" | "undone";
  documents: number;
}
export interface JobRecord extends Made {
  clientId: number | null;
  /** Under which its end is noted in the books it works on. */
  key: string;
  kind: string;
  state: "waiting" | "running" | "done" | "failed" | "cancelled";
  done: number;
  total: number;
  message: string;
  result: unknown;
  error: { code: string; message: string; field?: string } | null;
}

const { TEXT, INTEGER, BOOLEAN, JSON } = DataTypes;
const made = {
  id: { type: INTEGER, primaryKey: true, autoIncrement: true },
  createdAt: TEXT,
  createdBy: INTEGER,
};
const ofClient = { ...made, clientId: INTEGER };

/** The tables that are read and written row by row. Books and ledger are handled by set, in SQL. */
export function defineModels(sequelize: Sequelize) {
  const table = <T extends object>(name: string, columns: Parameters<Sequelize["define"]>[1]): Table<T> =>
    sequelize.define(name, columns, {
      tableName: name,
      timestamps: false,
      underscored: true,
    }) as unknown as Table<T>;
  return {
    clients: table<ClientRecord>("clients", {
      ...made,
      name: TEXT,
      country: TEXT,
      currency: TEXT,
      saleCode: TEXT,
      purchaseCode: TEXT,
    }),
    places: table<PlaceRecord>("places", {
      ...ofClient,
      ref: TEXT,
      name: TEXT,
      country: TEXT,
      region: TEXT,
      closedOn: TEXT,
      saleCode: TEXT,
      purchaseCode: TEXT,
    }),
    registrations: table<RegistrationRecord>("registrations", {
      ...ofClient,
      ref: TEXT,
      pack: TEXT,
      levies: JSON,
      region: TEXT,
      number: TEXT,
      validFrom: TEXT,
      validTo: TEXT,
      frequency: TEXT,
      anchor: TEXT,
      changes: JSON,
      basis: TEXT,
      rounding: JSON,
      options: JSON,
      opening: JSON,
      schemes: JSON,
    }),
    accounts: table<AccountRecord>("accounts", {
      ...ofClient,
      code: TEXT,
      name: TEXT,
      type: TEXT,
      role: TEXT,
      levy: TEXT,
      region: TEXT,
      topic: TEXT,
      usualCode: TEXT,
    }),
    codes: table<CodeRecord>("codes", {
      ...ofClient,
      code: TEXT,
      definition: JSON,
      active: BOOLEAN,
      position: INTEGER,
    }),
    contacts: table<ContactRecord>("contacts", {
      ...ofClient,
      ref: TEXT,
      name: TEXT,
      country: TEXT,
      region: TEXT,
      taxNumber: TEXT,
      registered: BOOLEAN,
      standing: JSON,
      saleCode: TEXT,
      purchaseCode: TEXT,
    }),
    items: table<ItemRecord>("items", {
      ...ofClient,
      ref: TEXT,
      name: TEXT,
      unitPrice: TEXT,
      supply: TEXT,
      taxClass: TEXT,
      saleCode: TEXT,
      purchaseCode: TEXT,
      saleAccount: TEXT,
      purchaseAccount: TEXT,
      statisticalCode: TEXT,
    }),
    rules: table<RuleRecord>("rules", { ...ofClient, ref: TEXT, position: INTEGER, definition: JSON }),
    schedules: table<ScheduleRecord>("schedules", { ...ofClient, ref: TEXT, rows: JSON }),
    jurisdictions: table<JurisdictionRecord>("jurisdictions", { ...made, ref: TEXT, definition: JSON }),
    lawChanges: table<LawChangeRecord>("law_changes", { ...made, pack: TEXT, change: JSON }),
    returns: table<ReturnRecord>("returns", {
      ...ofClient,
      registrationId: INTEGER,
      periodFrom: TEXT,
      periodEnd: TEXT,
      state: TEXT,
      boxes: JSON,
      agreements: JSON,
      net: INTEGER,
      facts: INTEGER,
      hash: TEXT,
      sealedAt: TEXT,
      sealedBy: INTEGER,
      filedAt: TEXT,
      filedBy: INTEGER,
      receipt: JSON,
      settledAt: TEXT,
      settledBy: INTEGER,
      settlementEntry: INTEGER,
    }),
    adjustments: table<AdjustmentRecord>("adjustments", {
      ...ofClient,
      registrationId: INTEGER,
      periodEnd: TEXT,
      box: TEXT,
      amount: INTEGER,
      reason: TEXT,
      evidence: TEXT,
    }),
    acceptances: table<AcceptanceRecord>("acceptances", {
      ...ofClient,
      registrationId: INTEGER,
      periodEnd: TEXT,
      key: TEXT,
      reason: TEXT,
    }),
    imports: table<ImportRecord>("imports", {
      ...ofClient,
      content: TEXT,
      rejectedHash: TEXT,
      direction: TEXT,
      fileName: TEXT,
      fileHash: TEXT,
      bytes: INTEGER,
      encoding: TEXT,
      shape: JSON,
      settings: JSON,
      report: JSON,
      state: TEXT,
      documents: INTEGER,
    }),
    jobs: table<JobRecord>("jobs", {
      ...made,
      clientId: INTEGER,
      key: TEXT,
      kind: TEXT,
      state: TEXT,
      done: INTEGER,
      total: INTEGER,
      message: TEXT,
      result: JSON,
      error: JSON,
    }),
  };
}

export type Models = ReturnType<typeof defineModels>;
