import type { Direction, TaxCode } from "../tax/taxCode.ts";

/** Where a proposed code comes from, strongest first. */
export type CodeSource = "typed" | "contact" | "item" | "account" | "business";

export interface CodeCandidates {
  typed?: string | null | undefined;
  contact?: { name: string; code: string | null } | undefined;
  item?: { name: string; code: string | null } | undefined;
  account?: { name: string; code: string | null } | undefined;
  business?: string | null | undefined;
}

export interface CodeProposal {
  code: string;
  source: CodeSource;
  /** The sentence that explains the choice. */
  reason: string;
}

/**
 * The tax code for a line: the first candidate that names one usable on this side. Never a guess.
 * @returns undefined when nothing answers
 */
export function proposeCode(
  candidates: CodeCandidates,
  direction: Direction,
  codes: ReadonlyMap<string, TaxCode>,
): CodeProposal | undefined {
  const answers: CodeProposal[] = [
    { code: candidates.typed ?? "", source: "typed", reason: "typed" },
    {
      code: candidates.contact?.code ?? "",
      source: "contact",
      reason: `usual code of ${candidates.contact?.name}`,
    },
    {
      code: candidates.item?.code ?? "",
      source: "item",
      reason: `code of the item ${candidates.item?.name}`,
    },
    {
      code: candidates.account?.code ?? "",
      source: "account",
      reason: `code of the account ${candidates.account?.name}`,
    },
    { code: candidates.business ?? "", source: "business", reason: `the business's usual ${direction} code` },
  ];
  return answers.find((answer) => {
    const code = codes.get(answer.code);
    return code !== undefined && (code.direction === "both" || code.direction === direction);
  });
}
