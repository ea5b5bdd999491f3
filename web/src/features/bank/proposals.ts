import type { MatchBody, NamedProposal } from "@fiscalon/contract/bank";
import { formatAmount } from "@fiscalon/core/money/amount";

/** What accepting a proposal sends. */
export function bodyOfProposal(proposal: NamedProposal | undefined, digits: number): MatchBody {
  switch (proposal?.kind) {
    case "entry":
    case "wrong-way":
      return { entry: proposal.entry };
    case "tax":
      return { tax: { registration: proposal.registration, period: proposal.period } };
    case "documents":
      return {
        documents: proposal.documents.map(({ document, amount }) => ({
          document,
          amount: formatAmount(amount, digits),
        })),
        contact: proposal.contact,
      };
    default:
      return {};
  }
}
