import { useMemo } from "react";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import { inputOf } from "./draft.ts";
import type { Draft, DraftAround } from "./draft.ts";

export interface LiveEffect {
  effect: DocumentEffect | null;
  error: FiscalError | null;
  /** Which line of the draft each priced line is. */
  at: number[];
}

/** What the document would do if it were posted now, worked out here with the function the server posts with. */
export function effectOf(draft: Draft, setup: EffectSetup | undefined, around: DraftAround): LiveEffect {
  const { input, at } = inputOf(draft, around);
  if (!setup || input.lines.length === 0) return { effect: null, error: null, at };
  try {
    return { effect: documentEffect(input, setup), error: null, at };
  } catch (error) {
    if (error instanceof FiscalError) return { effect: null, error, at };
    throw error;
  }
}

export function useEffectOf(draft: Draft, setup: EffectSetup | undefined, around: DraftAround): LiveEffect {
  return useMemo(() => effectOf(draft, setup, around), [draft, setup, around]);
}

/**
 * The set-up as a document found it that is on a return which is sealed since: its own period, and later ones, were
 * open then. Without this it would seem to move the period that is open now.
 */
export function setupWhenPosted(setup: EffectSetup, sealedPeriod: string | undefined): EffectSetup {
  if (sealedPeriod === undefined) return setup;
  const sealed = [...setup.sealed].map(
    ([registration, ends]) => [registration, new Set([...ends].filter((end) => end < sealedPeriod))] as const,
  );
  return { ...setup, sealed: new Map(sealed) };
}

/** The line of the draft an error is about, and the field within it. */
export function placeOfError(
  error: { field?: string | undefined } | null,
  at: readonly number[],
): { line: number; field: string } | null {
  const match = /^lines\[(\d+)\](?:\.(\w+))?/.exec(error?.field ?? "");
  if (!match) return null;
  return { line: at[Number(match[1])] ?? -1, field: match[2] ?? "amount" };
}
