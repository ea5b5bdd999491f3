import { createBrowserRouter, Navigate } from "react-router";
import type { RouteObject } from "react-router";
import type { ComponentType } from "react";
import { Broken } from "./Broken.tsx";
import { ClientFrame } from "./ClientFrame.tsx";
import { SCREENS } from "./screens.ts";
import type { Screen, ScreenPath } from "./screens.ts";
import { Shell } from "./Shell.tsx";

type Load = () => Promise<ComponentType>;

/** What each screen shows; fetched when it is opened first. */
const LOAD: Record<ScreenPath, Load> = {
  "": async () => (await import("../features/clients/ClientsPage.tsx")).ClientsPage,
  "clients/new": async () => (await import("../features/clients/NewClientPage.tsx")).NewClientPage,
  copies: async () => (await import("../features/copies/CopiesPage.tsx")).CopiesPage,
  jurisdictions: async () =>
    (await import("../features/jurisdictions/JurisdictionsPage.tsx")).JurisdictionsPage,
  "jurisdictions/:ref": async () =>
    (await import("../features/jurisdictions/JurisdictionPage.tsx")).JurisdictionPage,
  "setup/places": async () => (await import("../features/setup/PlacesPage.tsx")).PlacesPage,
  "setup/codes": async () => (await import("../features/setup/CodesPage.tsx")).CodesPage,
  "setup/rules": async () => (await import("../features/setup/RulesPage.tsx")).RulesPage,
  "setup/methods": async () => (await import("../features/setup/MethodsPage.tsx")).MethodsPage,
  "setup/law": async () => (await import("../features/setup/LawPage.tsx")).LawPage,
  "setup/rates": async () => (await import("../features/setup/RatesPage.tsx")).RatesPage,
  "setup/accounts": async () => (await import("../features/setup/AccountsPage.tsx")).AccountsPage,
  "setup/contacts": async () => (await import("../features/setup/ContactsPage.tsx")).ContactsPage,
  "setup/items": async () => (await import("../features/setup/ItemsPage.tsx")).ItemsPage,
  "setup/series": async () => (await import("../features/setup/SeriesPage.tsx")).SeriesPage,
  "books/documents": async () => (await import("../features/documents/DocumentsPage.tsx")).DocumentsPage,
  "books/documents/new/:kind": documentPage,
  "books/documents/:documentId": documentPage,
  "books/payments": async () => (await import("../features/payments/PaymentsPage.tsx")).PaymentsPage,
  "books/payments/new/:kind": paymentPage,
  "books/payments/new/:kind/:contactId/:documentId": paymentPage,
  "books/payments/:paymentId": paymentPage,
  "books/stock": stockPage,
  "books/stock/:no": stockPage,
  "books/collected": collectedPage,
  "books/collected/:contactId": collectedPage,
  "books/bank": async () => (await import("../features/bank/BankPage.tsx")).BankPage,
  "books/terminals": async () => (await import("../features/terminals/TerminalsPage.tsx")).TerminalsPage,
  "books/templates": async () => (await import("../features/documents/TemplatesPage.tsx")).TemplatesPage,
  "books/import": async () => (await import("../features/imports/ImportsPage.tsx")).ImportsPage,
  "books/import/:importId": async () => (await import("../features/imports/ImportPage.tsx")).ImportPage,
  "books/ledger": async () => (await import("../features/ledger/TrialBalancePage.tsx")).TrialBalancePage,
  "books/ledger/:account": async () => (await import("../features/ledger/AccountPage.tsx")).AccountPage,
  "books/statements": async () => (await import("../features/ledger/StatementsPage.tsx")).StatementsPage,
  "books/export": async () => (await import("../features/exports/ExportPage.tsx")).ExportPage,
  "books/capital": async () => (await import("../features/capital/CapitalPage.tsx")).CapitalPage,
  "books/takings": async () => (await import("../features/takings/TakingsPage.tsx")).TakingsPage,
  "books/reports": async () => (await import("../features/reports/TaxReportsPage.tsx")).TaxReportsPage,
  "books/audit": async () => (await import("../features/audit/ChangesPage.tsx")).ChangesPage,
  "agree/turnover": async () => (await import("../features/agree/BridgePage.tsx")).TurnoverPage,
  "agree/purchases": async () => (await import("../features/agree/BridgePage.tsx")).PurchasesPage,
  "agree/balances": async () => (await import("../features/agree/BalancesPage.tsx")).BalancesPage,
  "agree/statements": async () =>
    (await import("../features/agree/statements/StatementsPage.tsx")).StatementsPage,
  "agree/statements/:statementId": async () =>
    (await import("../features/agree/statements/StatementPage.tsx")).StatementPage,
  "agree/register": async () => (await import("../features/agree/register/RegistersPage.tsx")).RegistersPage,
  "agree/register/:sheetId": async () =>
    (await import("../features/agree/register/RegisterPage.tsx")).RegisterPage,
  "agree/year": async () => (await import("../features/agree/YearPage.tsx")).YearPage,
  "agree/held": async () => (await import("../features/agree/HeldCreditPage.tsx")).HeldCreditPage,
  "agree/unpaid": async () => (await import("../features/agree/UnpaidPage.tsx")).UnpaidPage,
  "agree/control": async () => (await import("../features/agree/ControlPage.tsx")).ControlPage,
  agree: async () => (await import("../features/agree/AgreementsPage.tsx")).AgreementsPage,
  return: returnPage,
  "return/:end": returnPage,
  settle: async () => (await import("../features/settle/SettlePage.tsx")).SettlePage,
};

async function stockPage() {
  return (await import("../features/stock/StockPage.tsx")).StockPage;
}
async function collectedPage() {
  return (await import("../features/collection/CollectedPage.tsx")).CollectedPage;
}
async function documentPage() {
  return (await import("../features/documents/DocumentPage.tsx")).DocumentPage;
}
async function paymentPage() {
  return (await import("../features/payments/PaymentEditorPage.tsx")).PaymentEditorPage;
}
async function returnPage() {
  return (await import("../features/returns/ReturnPage.tsx")).ReturnPage;
}

/** A screen that fails is replaced by what failed; the frame and every other screen go on. */
function routesOf(of: Screen["of"]): RouteObject[] {
  return SCREENS.filter((screen) => screen.of === of).map(({ path }) => ({
    path,
    errorElement: <Broken />,
    lazy: async () => ({ Component: await LOAD[path]() }),
  }));
}

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <p className="p-10">Fiscalon</p>,
    children: [
      ...routesOf("practice"),
      {
        path: "c/:clientId",
        element: <ClientFrame />,
        children: [
          { index: true, element: <Navigate to="books/documents" replace /> },
          ...routesOf("client"),
          { path: "*", element: <Broken /> },
        ],
      },
      { path: "*", element: <Broken /> },
    ],
  },
]);
