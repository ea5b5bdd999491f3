import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import { BLANK_LINE, blankDraft } from "./draft.ts";
import type { Draft } from "./draft.ts";

/**
 * Where a draft is kept in this browser: a new document of a kind, or a correction of one that is posted. Each place is
 * held by one tab at a time; a second tab gets a place of its own.
 */
export interface DraftPlace {
  key: string;
  /** Lets others have it. */
  release: () => void;
}

const PREFIX = "fiscalon.draft";
const MOST = 20;

/** The first place for new documents of a kind that no other tab holds; one with a draft in it before an empty one. */
export async function placeForNew(clientId: number, kind: DocumentKind): Promise<DraftPlace> {
  const keys = Array.from({ length: MOST }, (_, n) => `${PREFIX}.${clientId}.${kind}.${n}`);
  const order = [...keys].sort((a, b) => Number(isEmpty(a)) - Number(isEmpty(b)));
  for (const key of order) {
    const place = await held(key);
    if (place) return place;
  }
  return { key: `${PREFIX}.${clientId}.${kind}.${crypto.randomUUID()}`, release: () => undefined };
}

/** The place for the correction of a document; undefined while another tab corrects it. */
export function placeForCorrection(clientId: number, documentId: number): Promise<DraftPlace | undefined> {
  return held(`${PREFIX}.${clientId}.document.${documentId}`);
}

function isEmpty(key: string): boolean {
  return localStorage.getItem(key) === null;
}

/** Typing does not wait longer than this for the browser to say who holds a place. */
const PATIENCE_MS = 500;

/**
 * Holds a key until it is released or the tab is gone. Where the browser has no locks, or does not answer, nobody is
 * kept out.
 */
function held(key: string): Promise<DraftPlace | undefined> {
  const { locks } = navigator as { locks?: LockManager };
  const unlocked = { key, release: () => undefined };
  if (!locks) return Promise.resolve(unlocked);
  return new Promise((resolve) => {
    setTimeout(() => resolve(unlocked), PATIENCE_MS);
    void locks.request(key, { ifAvailable: true }, (lock) => {
      if (!lock) return resolve(undefined);
      return new Promise<void>((release) => resolve({ key, release }));
    });
  });
}

/** The draft kept under a key; one that cannot be read is put aside. */
export function keptDraft(key: string): Draft | null {
  const text = localStorage.getItem(key);
  if (text === null) return null;
  try {
    const kept = JSON.parse(text) as Partial<Draft>;
    if (!kept.kind || !(kept.kind in DOCUMENT_KINDS) || !Array.isArray(kept.lines)) throw new TypeError(text);
    return {
      ...blankDraft(kept.kind),
      ...kept,
      lines: kept.lines.map((line) => ({ ...BLANK_LINE, ...line })),
    };
  } catch {
    putAside(key);
    return null;
  }
}

/** Keeps what is typed, so that leaving the page loses nothing; null forgets it. */
export function keepDraft(key: string, draft: Draft | null): void {
  if (draft === null) localStorage.removeItem(key);
  else localStorage.setItem(key, JSON.stringify(draft));
}

/** Takes a draft out of the way without losing it. */
export function putAside(key: string): void {
  const text = localStorage.getItem(key);
  if (text === null) return;
  localStorage.setItem(`fiscalon.aside.${new Date().toISOString()}.${key.slice(PREFIX.length + 1)}`, text);
  localStorage.removeItem(key);
}

/** Drafts put aside for a client, newest first: the key, and when. */
export function draftsAside(clientId: number): { key: string; at: string }[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith("fiscalon.aside.") && key.includes(`Z.${clientId}.`))
    .sort()
    .reverse()
    .map((key) => ({ key, at: key.slice("fiscalon.aside.".length).split("Z.")[0] + "Z" }));
}
