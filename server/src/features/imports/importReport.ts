import { kindOf } from "@fiscalon/core/model/documentKinds";
import type { AssignedFact, DocumentEffect } from "@fiscalon/core/facts/effect";
import type { ImportReport } from "@fiscalon/contract/imports";
import type { DocumentInput } from "@fiscalon/core/model/document";
import type { Reading } from "./reading.ts";

const LISTED_PROBLEMS = 500;

/** What the documents of a file come to, counted one by one: none is kept for it. */
export class EffectCount {
  readonly #codes = new Map<string, ImportReport["codes"][number]>();
  #late = 0;
  #unregistered = 0;

  take({ kind }: DocumentInput, { facts, priced }: DocumentEffect): void {
    if (facts.some(isLate)) this.#late += 1;
    if (facts.some(isUnregistered)) this.#unregistered += 1;
    const { sign } = kindOf(kind);
    for (const line of priced.lines) {
      const code = line.code?.code ?? "";
      const row = this.#codes.get(code) ?? { code, lines: 0, net: 0, tax: 0 };
      row.lines += 1;
      row.net += sign * line.net;
      row.tax += sign * (line.gross - line.net);
      this.#codes.set(code, row);
    }
  }

  get report(): Pick<ImportReport, "codes" | "late" | "unregistered"> {
    return {
      codes: [...this.#codes.values()].sort((a, b) => b.lines - a.lines),
      late: this.#late,
      unregistered: this.#unregistered,
    };
  }
}

/** What posting a file would do, once all of it is read. @param cells of the rows with problems */
export function reportOf(
  { incoming, parties, soFar }: Reading,
  count: EffectCount,
  cells: ReadonlyMap<number, readonly string[]>,
): ImportReport {
  const { documents, fresh, alreadyThere, creditNotes, from, to } = soFar;
  const problems = [...incoming.problems].sort((a, b) => a.row - b.row);
  return {
    rows: incoming.rows,
    documents,
    fresh: fresh + incoming.contacts.length + incoming.items.length,
    alreadyThere,
    creditNotes,
    newContacts: parties.fresh.length + incoming.contacts.length,
    newItems: incoming.items.length,
    newAccounts: incoming.accounts.length,
    ...count.report,
    net: incoming.net,
    tax: incoming.tax,
    from,
    to,
    problemCount: problems.length,
    problems: problems
      .slice(0, LISTED_PROBLEMS)
      .map((problem) => ({ ...problem, cells: [...(cells.get(problem.row) ?? [])] })),
    notices: incoming.notices.slice(0, LISTED_PROBLEMS),
    choices: incoming.choices,
  };
}

function isLate({ period }: AssignedFact): boolean {
  return period?.late === true;
}

function isUnregistered({ registration, treatment }: AssignedFact): boolean {
  return registration === null && treatment !== "out-of-scope";
}
