import type { BoxMovement } from "@fiscalon/core/facts/boxMovements";
import { createContext, useContext } from "react";
import type { Packs } from "@fiscalon/core/model/packs";
import type { ClientView, RegistrationView } from "@fiscalon/contract/views";
import type { PeriodTile } from "@fiscalon/contract/returns";

/** What a document being typed would add to returns. */
export interface DraftEffect {
  movements: BoxMovement[];
  saved: string;
}

/** Client, registration and period that the screen is about. */
export interface Scope {
  client: ClientView | undefined;
  /** The jurisdictions of its registrations and its country; of others only who needs them knows (`usePacks`). */
  packs: Packs;
  /** Why the client cannot be shown. */
  clientError: Error | null;
  registration: RegistrationView | undefined;
  periods: PeriodTile[];
  period: PeriodTile | undefined;
  /** Whether all of these are known: what is asked for of a period waits for it. */
  ready: boolean;
  minorDigits: number;
  choose: (change: { registration?: number; period?: string }) => void;
  /** Steps through the periods. */
  stepPeriod: (by: number) => void;
  /** A path of this client, as `books/documents`, with registration and period kept. */
  path: (inside: string) => string;
  draft: DraftEffect | null;
  setDraft: (draft: DraftEffect | null) => void;
}

export const ScopeContext = createContext<Scope | null>(null);

export function useScope(): Scope {
  const scope = useContext(ScopeContext);
  if (!scope) throw new Error("useScope outside of ScopeProvider");
  return scope;
}
