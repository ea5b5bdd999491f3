/** What can be refused of agreements. */
export const ERRORS_OF_AGREEMENTS = {
  "agree/balance-ahead": {
    status: 422,
    says: "This day is ahead. Type what its account says today.",
  },
  "agree/no-balance": { status: 404, says: 'There is no balance "…" to agree.' },
  "agree/no-row": { status: 409, says: "One of these rows is not apart any more. Look again." },
  "agree/not-sealed": {
    status: 404,
    says: "This period keeps no agreements: it is not sealed.",
  },
  "agree/rest": {
    status: 422,
    says: "Something is left without a cause. Name it, or say why it is accepted as it is.",
  },
  "agree/span": {
    status: 422,
    says: "A bridge is of whole filing periods. Begin with the first day of one and end with the last day of one.",
  },
  "agree/not-a-journal": { status: 422, says: "This entry explains itself; only journals need a reason." },
} as const satisfies Record<string, { status: number; says: string }>;
