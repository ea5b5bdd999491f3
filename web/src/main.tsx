import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { askAtStart } from "./api/atStart.ts";
import { LawProvider } from "./api/law.tsx";
import { sharedAnswer } from "./api/seen.ts";
import { router } from "./app/router.tsx";
import "./app/theme.css";
import { TipProvider } from "./kit/Tip.tsx";
import { applyTheme, chosenTheme } from "./app/theme.ts";

applyTheme(chosenTheme());
/** The server may stand on this very machine: whether there is an internet says nothing about it. */
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      structuralSharing: sharedAnswer,
      retry: 1,
      staleTime: 5_000,
      refetchOnWindowFocus: false,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

askAtStart(queries, location.pathname);
createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <LawProvider>
        <TipProvider>
          <RouterProvider router={router} />
        </TipProvider>
      </LawProvider>
    </QueryClientProvider>
  </StrictMode>,
);
