import { createBrowserRouter, Navigate } from "react-router";
import { ControlPage } from "../features/agree/ControlPage.tsx";
import { ClientsPage } from "../features/clients/ClientsPage.tsx";
import { NewClientPage } from "../features/clients/NewClientPage.tsx";
import { DocumentPage } from "../features/documents/DocumentPage.tsx";
import { DocumentsPage } from "../features/documents/DocumentsPage.tsx";
import { AccountPage } from "../features/ledger/AccountPage.tsx";
import { TrialBalancePage } from "../features/ledger/TrialBalancePage.tsx";
import { ReturnPage } from "../features/returns/ReturnPage.tsx";
import { AccountsPage } from "../features/setup/AccountsPage.tsx";
import { ContactsPage } from "../features/setup/ContactsPage.tsx";
import { ItemsPage } from "../features/setup/ItemsPage.tsx";
import { PlacesPage } from "../features/setup/PlacesPage.tsx";
import { Broken } from "./Broken.tsx";
import { Shell } from "./Shell.tsx";

/** Screens that few open first are fetched when they are opened. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { path: "/", element: <ClientsPage /> },
      { path: "/clients/new", element: <NewClientPage /> },
      {
        path: "/jurisdictions",
        lazy: async () => ({
          Component: (await import("../features/jurisdictions/JurisdictionsPage.tsx")).JurisdictionsPage,
        }),
      },
      {
        path: "/jurisdictions/:ref",
        lazy: async () => ({
          Component: (await import("../features/jurisdictions/JurisdictionPage.tsx")).JurisdictionPage,
        }),
      },
      {
        path: "/c/:clientId",
        children: [
          { index: true, element: <Navigate to="books/documents" replace /> },
          { path: "setup/places", element: <PlacesPage /> },
          {
            path: "setup/codes",
            lazy: async () => ({ Component: (await import("../features/setup/CodesPage.tsx")).CodesPage }),
          },
          {
            path: "setup/rules",
            lazy: async () => ({ Component: (await import("../features/setup/RulesPage.tsx")).RulesPage }),
          },
          {
            path: "setup/rates",
            lazy: async () => ({ Component: (await import("../features/setup/RatesPage.tsx")).RatesPage }),
          },
          { path: "setup/accounts", element: <AccountsPage /> },
          { path: "setup/contacts", element: <ContactsPage /> },
          { path: "setup/items", element: <ItemsPage /> },
          { path: "books/documents", element: <DocumentsPage /> },
          { path: "books/documents/new/:kind", element: <DocumentPage /> },
          { path: "books/documents/:documentId", element: <DocumentPage /> },
          {
            path: "books/payments",
            lazy: async () => ({
              Component: (await import("../features/payments/PaymentsPage.tsx")).PaymentsPage,
            }),
          },
          ...["new/:kind", "new/:kind/:contactId/:documentId", ":paymentId"].map((inside) => ({
            path: `books/payments/${inside}`,
            lazy: async () => ({
              Component: (await import("../features/payments/PaymentEditorPage.tsx")).PaymentEditorPage,
            }),
          })),
          {
            path: "books/bank",
            lazy: async () => ({ Component: (await import("../features/bank/BankPage.tsx")).BankPage }),
          },
          {
            path: "books/terminals",
            lazy: async () => ({
              Component: (await import("../features/terminals/TerminalsPage.tsx")).TerminalsPage,
            }),
          },
          {
            path: "books/kept",
            lazy: async () => ({
              Component: (await import("../features/templates/TemplatesPage.tsx")).TemplatesPage,
            }),
          },
          {
            path: "books/statements",
            lazy: async () => ({
              Component: (await import("../features/ledger/StatementsPage.tsx")).StatementsPage,
            }),
          },
          {
            path: "books/export",
            lazy: async () => ({
              Component: (await import("../features/exports/ExportPage.tsx")).ExportPage,
            }),
          },
          {
            path: "setup/numbers",
            lazy: async () => ({ Component: (await import("../features/setup/SeriesPage.tsx")).SeriesPage }),
          },
          {
            path: "books/import",
            lazy: async () => ({
              Component: (await import("../features/imports/ImportsPage.tsx")).ImportsPage,
            }),
          },
          {
            path: "books/import/:importId",
            lazy: async () => ({
              Component: (await import("../features/imports/ImportPage.tsx")).ImportPage,
            }),
          },
          { path: "books/ledger", element: <TrialBalancePage /> },
          { path: "books/ledger/:account", element: <AccountPage /> },
          {
            path: "books/reports",
            lazy: async () => ({
              Component: (await import("../features/reports/TaxReportsPage.tsx")).TaxReportsPage,
            }),
          },
          {
            path: "books/changes",
            lazy: async () => ({
              Component: (await import("../features/audit/ChangesPage.tsx")).ChangesPage,
            }),
          },
          { path: "agree", element: <ControlPage /> },
          { path: "return", element: <ReturnPage /> },
          { path: "return/:end", element: <ReturnPage /> },
          {
            path: "settle",
            lazy: async () => ({ Component: (await import("../features/settle/SettlePage.tsx")).SettlePage }),
          },
        ],
      },
      { path: "*", element: <Broken /> },
    ],
  },
]);
