import { createBrowserRouter, Navigate } from "react-router";
import { JurisdictionPage } from "../features/jurisdictions/JurisdictionPage.tsx";
import { JurisdictionsPage } from "../features/jurisdictions/JurisdictionsPage.tsx";
import { ChangesPage } from "../features/audit/ChangesPage.tsx";
import { ControlPage } from "../features/agree/ControlPage.tsx";
import { ClientsPage } from "../features/clients/ClientsPage.tsx";
import { NewClientPage } from "../features/clients/NewClientPage.tsx";
import { DocumentPage } from "../features/documents/DocumentPage.tsx";
import { DocumentsPage } from "../features/documents/DocumentsPage.tsx";
import { ImportPage } from "../features/imports/ImportPage.tsx";
import { ImportsPage } from "../features/imports/ImportsPage.tsx";
import { AccountPage } from "../features/ledger/AccountPage.tsx";
import { TrialBalancePage } from "../features/ledger/TrialBalancePage.tsx";
import { TaxReportsPage } from "../features/reports/TaxReportsPage.tsx";
import { ReturnPage } from "../features/returns/ReturnPage.tsx";
import { SettlePage } from "../features/settle/SettlePage.tsx";
import { AccountsPage } from "../features/setup/AccountsPage.tsx";
import { CodesPage } from "../features/setup/CodesPage.tsx";
import { ContactsPage } from "../features/setup/ContactsPage.tsx";
import { ItemsPage } from "../features/setup/ItemsPage.tsx";
import { PlacesPage } from "../features/setup/PlacesPage.tsx";
import { RatesPage } from "../features/setup/RatesPage.tsx";
import { RulesPage } from "../features/setup/RulesPage.tsx";
import { Broken } from "./Broken.tsx";
import { Shell } from "./Shell.tsx";

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { path: "/", element: <ClientsPage /> },
      { path: "/clients/new", element: <NewClientPage /> },
      { path: "/jurisdictions", element: <JurisdictionsPage /> },
      { path: "/jurisdictions/:ref", element: <JurisdictionPage /> },
      {
        path: "/c/:clientId",
        children: [
          { index: true, element: <Navigate to="books/documents" replace /> },
          { path: "setup/places", element: <PlacesPage /> },
          { path: "setup/codes", element: <CodesPage /> },
          { path: "setup/rules", element: <RulesPage /> },
          { path: "setup/rates", element: <RatesPage /> },
          { path: "setup/accounts", element: <AccountsPage /> },
          { path: "setup/contacts", element: <ContactsPage /> },
          { path: "setup/items", element: <ItemsPage /> },
          { path: "books/documents", element: <DocumentsPage /> },
          { path: "books/documents/new/:kind", element: <DocumentPage /> },
          { path: "books/documents/:documentId", element: <DocumentPage /> },
          { path: "books/import", element: <ImportsPage /> },
          { path: "books/import/:importId", element: <ImportPage /> },
          { path: "books/ledger", element: <TrialBalancePage /> },
          { path: "books/ledger/:account", element: <AccountPage /> },
          { path: "books/reports", element: <TaxReportsPage /> },
          { path: "books/changes", element: <ChangesPage /> },
          { path: "agree", element: <ControlPage /> },
          { path: "return", element: <ReturnPage /> },
          { path: "return/:end", element: <ReturnPage /> },
          { path: "settle", element: <SettlePage /> },
        ],
      },
      { path: "*", element: <Broken /> },
    ],
  },
]);
