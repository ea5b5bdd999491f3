import type { TakingsReading, TakingsSheet } from "./takings.ts";
import type { CapitalItemsView, CapitalItemView } from "./capitalItems.ts";
import type {
  CollectionCustomers,
  CollectionProposal,
  CollectionSheet,
  CollectionView,
  DeductedRows,
} from "./collection.ts";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { Account } from "@fiscalon/core/model/account";
import type { NumberCheck } from "@fiscalon/core/model/pack";
import type { BankAccountView, BankLinePage, StatementReport } from "./bank.ts";
import type { BookFile } from "./book.ts";
import type { ClockView } from "./clock.ts";
import type { CopiesView } from "./copies.ts";
import type { HeldCreditPage } from "./credit.ts";
import type { MethodComparison } from "./compareMethods.ts";
import type { ImportPage, ImportBatch } from "./imports.ts";
import type { JurisdictionFile } from "./jurisdiction.ts";
import type { LawChangeRow, LawTaken, LawTouched } from "./law.ts";
import type { OpenItemPage, PaymentPage, PaymentView } from "./payments.ts";
import type { RegisterView } from "./registers.ts";
import type { DetailPage, SummaryRow } from "./reports.ts";
import type { BoxesBetween, PeriodTile, ReturnView, StationCounts } from "./returns.ts";
import type { SchemeView } from "./schemeView.ts";
import type { SeriesView } from "./series.ts";
import type { StockMove } from "./stockMove.ts";
import type { PostedDue, TemplateView } from "./templates.ts";
import type { TerminalDayPage, TerminalReport, TerminalView } from "./terminals.ts";
import type { TrailStep } from "./trail.ts";
import type { SchemeEffect } from "./schemeEffect.ts";
import type { PiecePage, PieceView, UnlistedLine } from "./stockBook.ts";
import type { AgreementLine } from "./agreements.ts";
import type { BalanceRows, BalanceView } from "./balances.ts";
import type { YearView } from "./yearRollUp.ts";
import type { SheetBrief, SheetPivot, SheetRowPage, SheetView } from "./registerSheets.ts";
import type { BridgeByPage, BridgeByRow, BridgePage, BridgeView } from "./bridge.ts";
import type { MatchPage, StatementLetter, StatementList, StatementView } from "./statements.ts";
import type { UnpaidPage } from "./unpaid.ts";
import type {
  AgencyPosition,
  AttachmentView,
  ClientRow,
  ClientView,
  CodeUse,
  ContactView,
  DocumentPage,
  DocumentView,
  ItemView,
  JobView,
  JurisdictionRow,
  PricePreview,
  RegisterAnswer,
  ContactPage,
  JobUnderWay,
  ItemPage,
  OriginalView,
  TouchedDocuments,
} from "./views.ts";
import type { AuditCheck, ChainCheck, ChangeView } from "./audit.ts";
import type { ControlAgreementView, SettlementView } from "./settlement.ts";
import type { LedgerAccountRow, LedgerEntryPage } from "./ledger.ts";

/**
 * What the API answers, by method and path: the one declaration, from which the web client is typed, the OpenAPI
 * document written and every reply of the tests checked. `null` where there is nothing to say (204); files are not told.
 */
export interface Answers {
  "GET /audit": AuditCheck;
  "POST /books": ClientView | { job: JobView };
  "GET /clients": ClientRow[];
  "POST /clients": ClientView;
  "GET /clients/:id": ClientView;
  "GET /clients/:id/audit": ChainCheck;
  "POST /clients/:id/accounts": Account[];
  "PUT /clients/:id/accounts/:code": Account[];
  "DELETE /clients/:id/adjustments/:adjustment": null;
  "DELETE /clients/:id/attachments/:attachment": null;
  "GET /clients/:id/bank": BankAccountView[];
  "POST /clients/:id/bank": BankAccountView[];
  "PUT /clients/:id/registrations/:rid/authority-balance": null;
  "POST /clients/:id/bank-lines/:line/match": null;
  "POST /clients/:id/bank-lines/:line/unmatch": null;
  "POST /clients/:id/bank/accept": { accepted: number };
  "POST /clients/:id/bank/:account/fetch": StatementReport;
  "GET /clients/:id/bank/:account/lines": BankLinePage;
  "POST /clients/:id/bank/:account/statements": StatementReport;
  "GET /clients/:id/book": BookFile;
  "GET /clients/:id/changes": ChangeView[];
  "GET /clients/:id/codes": CodeUse[];
  "POST /clients/:id/codes": PlainSetup;
  "POST /clients/:id/codes/import": { created: number; changed: number };
  "PUT /clients/:id/codes/:code": PlainSetup;
  "DELETE /clients/:id/codes/:code": null;
  "POST /clients/:id/codes/:code/archive": CodeUse[];
  "POST /clients/:id/codes/:code/default": { items: number };
  "GET /clients/:id/registrations/:rid/capital-items": CapitalItemsView;
  "POST /clients/:id/registrations/:rid/capital-items": CapitalItemView;
  "PUT /clients/:id/registrations/:rid/capital-items/:no": CapitalItemView;
  "DELETE /clients/:id/registrations/:rid/capital-items/:no": null;
  "GET /clients/:id/takings": TakingsSheet;
  "PUT /clients/:id/takings": null;
  "POST /clients/:id/takings/read": TakingsReading;
  "GET /clients/:id/collection": CollectionView;
  "POST /clients/:id/collection/charges": { posted: number };
  "GET /clients/:id/collection/customers": CollectionCustomers;
  "GET /clients/:id/collection/customers/:contact": CollectionSheet;
  "PUT /clients/:id/collection/customers/:contact/deducts": null;
  "PUT /clients/:id/collection/customers/:contact/opening": null;
  "GET /clients/:id/collection/deducted": DeductedRows;
  "POST /clients/:id/collection/proposal": { proposal: CollectionProposal | null };
  "GET /clients/:id/contacts": ContactPage;
  "GET /clients/:id/contacts/:contact": ContactView;
  "GET /clients/:id/contacts/regions": { country: string | null; region: string | null }[];
  "GET /clients/:id/contacts/meant": { contact: ContactView | null };
  "POST /clients/:id/contacts": ContactView;
  "PUT /clients/:id/contacts/:contact": ContactView;
  "GET /clients/:id/documents": DocumentPage;
  "POST /clients/:id/documents": DocumentView;
  "POST /clients/:id/documents/void": null;
  "GET /clients/:id/documents/original": { original: OriginalView | null };
  "GET /clients/:id/documents/:document": DocumentView;
  "PUT /clients/:id/documents/:document": DocumentView;
  "GET /clients/:id/documents/:document/attachments": AttachmentView[];
  "POST /clients/:id/documents/:document/attachments": AttachmentView[];
  "POST /clients/:id/documents/:document/void": DocumentView;
  "PUT /clients/:id/entries/:entry/explanation": null;
  "POST /clients/:id/imports": ImportBatch;
  "GET /clients/:id/imports": ImportPage;
  "GET /clients/:id/imports/:import": ImportBatch;
  "POST /clients/:id/imports/:import/check": JobView;
  "POST /clients/:id/imports/:import/post": JobView;
  "PUT /clients/:id/imports/:import/settings": ImportBatch;
  "POST /clients/:id/imports/:import/undo": JobView;
  "POST /clients/:id/items": ItemView;
  "GET /clients/:id/registrations/:rid/unpaid/:period": UnpaidPage;
  "POST /clients/:id/registrations/:rid/unpaid/:period": { posted: number };
  "GET /clients/:id/registrations/:rid/year": YearView;
  "GET /clients/:id/registrations/:rid/bridge": BridgeView;
  "GET /clients/:id/registrations/:rid/bridge/by": BridgeByRow[];
  "GET /clients/:id/registrations/:rid/bridge/by/lines": BridgeByPage;
  "GET /clients/:id/registrations/:rid/bridge/rows": BridgePage;
  "POST /clients/:id/registrations/:rid/bridge/causes": null;
  "POST /clients/:id/registrations/:rid/bridge/agreement": null;
  "GET /clients/:id/register-sheets": SheetBrief[];
  "POST /clients/:id/register-sheets": SheetView;
  "GET /clients/:id/register-sheets/:sheet": SheetView;
  "PUT /clients/:id/register-sheets/:sheet/mapping": null;
  "DELETE /clients/:id/register-sheets/:sheet": null;
  "GET /clients/:id/register-sheets/:sheet/pivot": SheetPivot;
  "GET /clients/:id/register-sheets/:sheet/rows": SheetRowPage;
  "GET /clients/:id/registrations/:rid/statements": StatementList;
  "POST /clients/:id/registrations/:rid/statements": StatementView;
  "GET /clients/:id/statements/:statement": StatementView;
  "DELETE /clients/:id/statements/:statement": null;
  "POST /clients/:id/statements/:statement/match": { job: JobView | null };
  "PUT /clients/:id/statements/:statement/settings": null;
  "GET /clients/:id/statements/:statement/lines": MatchPage;
  "POST /clients/:id/statements/:statement/decisions": null;
  "POST /clients/:id/statements/:statement/decisions/undo": null;
  "POST /clients/:id/statements/:statement/decisions/together": { changed: number };
  "POST /clients/:id/statements/:statement/accept": { changed: number };
  "POST /clients/:id/statements/:statement/release": { changed: number };
  "POST /clients/:id/statements/:statement/letter": StatementLetter[];
  "GET /clients/:id/registrations/:rid/agreements/:period": AgreementLine[];
  "POST /clients/:id/registrations/:rid/agreements/:period": null;
  "GET /clients/:id/balances": BalanceView[];
  "GET /clients/:id/balances/rows": BalanceRows;
  "GET /clients/:id/held-credit": HeldCreditPage;
  "POST /clients/:id/held-credit/release": null;
  "DELETE /clients/:id/held-credit/:document": null;
  "GET /clients/:id/items": ItemPage;
  "POST /clients/:id/items/named": ItemView[];
  "PUT /clients/:id/items/:item": ItemView;
  "GET /clients/:id/ledger/:account": LedgerEntryPage;
  "GET /clients/:id/open-items": OpenItemPage;
  "GET /clients/:id/pieces": PiecePage;
  "GET /clients/:id/pieces/unlisted": UnlistedLine[];
  "POST /clients/:id/pieces": PieceView;
  "POST /clients/:id/pieces/import": { taken: number };
  "POST /clients/:id/pieces/join": PieceView;
  "POST /clients/:id/pieces/take-in": { taken: number };
  "GET /clients/:id/pieces/:no": PieceView;
  "PUT /clients/:id/pieces/:no": PieceView;
  "DELETE /clients/:id/pieces/:no": null;
  "POST /clients/:id/pieces/:no/end": PieceView;
  "DELETE /clients/:id/pieces/:no/end": null;
  "POST /clients/:id/pieces/:no/split": PieceView;
  "GET /clients/:id/payments": PaymentPage;
  "POST /clients/:id/payments": PaymentView;
  "GET /clients/:id/payments/:payment": PaymentView;
  "PUT /clients/:id/payments/:payment": PaymentView;
  "POST /clients/:id/payments/:payment/void": PaymentView;
  "POST /clients/:id/places": ClientView;
  "PUT /clients/:id/places/:own": ClientView;
  "GET /clients/:id/positions": AgencyPosition[];
  "POST /clients/:id/registrations": ClientView;
  "PUT /clients/:id/registrations/:rid": ClientView;
  "GET /clients/:id/registrations/:rid/agreements/:period/control": ControlAgreementView;
  "GET /clients/:id/registrations/:rid/periods": PeriodTile[];
  "GET /clients/:id/registrations/:rid/returns": BoxesBetween;
  "GET /clients/:id/registrations/:rid/returns/:period": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/acceptances": ReturnView;
  "DELETE /clients/:id/registrations/:rid/returns/:period/acceptances": ReturnView;
  "PUT /clients/:id/registrations/:rid/returns/:period/late/:document": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/adjustments": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/file": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/reopen": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/seal": ReturnView;
  "POST /clients/:id/registrations/:rid/returns/:period/state": ReturnView;
  "GET /clients/:id/registrations/:rid/settlements/:period": SettlementView;
  "POST /clients/:id/registrations/:rid/schemes/effect": SchemeEffect;
  "POST /clients/:id/registrations/:rid/settlements/:period": SettlementView;
  "PUT /clients/:id/registrations/:rid/settlements/:period/instalments/:no": SettlementView;
  "POST /clients/:id/registrations/:rid/settlements/:period/payments": SettlementView;
  "GET /clients/:id/registrations/:rid/stations/:period": StationCounts;
  "GET /clients/:id/reports/tax/details": DetailPage;
  "GET /clients/:id/reports/tax/summary": SummaryRow[];
  "PUT /clients/:id/rules": PlainSetup;
  "PUT /clients/:id/schedules/:ref": TouchedDocuments;
  "POST /clients/:id/schedules/:ref/touched": TouchedDocuments;
  "GET /clients/:id/series": SeriesView[];
  "GET /clients/:id/clock": ClockView;
  "PUT /clients/:id/series/:kind": SeriesView[];
  "GET /clients/:id/setup": PlainSetup;
  "DELETE /clients/:id/tax-payments/:payment": null;
  "POST /clients/:id/stock-moves": StockMove;
  "GET /clients/:id/templates": TemplateView[];
  "PUT /clients/:id/templates": TemplateView[];
  "POST /clients/:id/templates/post-due": PostedDue;
  "DELETE /clients/:id/templates/:template": null;
  "GET /clients/:id/terminals": TerminalView[];
  "POST /clients/:id/terminals": TerminalView;
  "GET /clients/:id/terminals/:terminal/days": TerminalDayPage;
  "POST /clients/:id/terminals/:terminal/fetch": TerminalReport;
  "PUT /clients/:id/terminals/:terminal/key": TerminalView;
  "PUT /clients/:id/terminals/:terminal/mapping": TerminalView;
  "GET /clients/:id/trail": TrailStep;
  "GET /clients/:id/trial-balance": LedgerAccountRow[];
  "GET /clients/:id/registrations/:rid/returns/:period/registers": RegisterView[];
  "GET /clients/:id/registrations/:rid/returns/:period/schemes": SchemeView[];
  "POST /clients/:id/registrations/:rid/methods": MethodComparison;
  "GET /jobs": JobUnderWay[];
  "GET /jobs/:id": JobView;
  "POST /jobs/:id/cancel": JobView;
  "GET /copies": CopiesView;
  "POST /copies": CopiesView;
  "POST /copies/:copy/restore": CopiesView;
  "DELETE /copies/running": CopiesView;
  "GET /jurisdictions": JurisdictionRow[];
  "GET /jurisdictions/own": OwnJurisdiction[];
  "GET /jurisdictions/:ref": JurisdictionFile;
  "PUT /jurisdictions/:ref": JurisdictionRow[];
  "DELETE /jurisdictions/:ref": null;
  "GET /law": LawChangeRow[];
  "POST /law": LawChangeRow[];
  "DELETE /law/:id": LawChangeRow[];
  "POST /law/file": LawTaken;
  "POST /law/touched": LawTouched;
  "GET /number-check": NumberCheck;
  "GET /number-register": RegisterAnswer;
  "POST /price": PricePreview;
}

export type Route = keyof Answers;
