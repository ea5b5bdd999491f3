import type { Direction, TaxCode } from "../tax/taxCode.ts";

/** Where a proposed code comes from, strongest first. */
export type CodeSource = "typed" | "contact" | "item" | "rule" | "account" | "place" | "business";

export interface CodeCandidates {
  typed?: string | null | undefined;
  contact?: { name: string; code: string | null } | undefined;
  item?: { name: string; code: string | null } | undefined;
  /** What the supply rules answer for the tax class of the line, or for a supply that crosses a border. */
  rule?: { code: string; words: string } | undefined;
  account?: { name: string; code: string | null } | undefined;
  place?: { name: string; code: string | null } | undefined;
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
    { code: candidates.rule?.code ?? "", source: "rule", reason: candidates.rule?.words ?? "" },
    {
      code: candidates.account?.code ?? "",
      source: "account",
      reason: `code of the account ${candidates.account?.name}`,
    },
    {
      code: candidates.place?.code ?? "",
      source: "place",
      reason: `usual ${direction} code of ${candidates.place?.name}`,
    },
    { code: candidates.business ?? "", source: "business", reason: `the business's usual ${direction} code` },
  ];
  return answers.find((answer) => {
    const code = codes.get(answer.code);
    return code !== undefined && (code.direction === "both" || code.direction === direction);
  });
}
