import type { AgreementLine, KeptAgreement } from "@fiscalon/contract/agreements";
import type { StatementBrief } from "@fiscalon/contract/statements";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { periodEnding } from "../returns/periods.ts";
import { balanceViews } from "./balances/balances.ts";
import { controlAgreement } from "./controlAgreement.ts";
import { keptAgreement } from "./keptAgreement.ts";
import type { Agreed, Figures } from "./keptAgreement.ts";
import { statementBriefs } from "./statements/briefs.ts";
import { bridgeOver, figuresOf } from "./turnover/bridge.ts";
import type { Bridge } from "./turnover/bridge.ts";
import type { Span } from "./turnover/apartRows.ts";

/** Two figures with what stands between them, before anybody said something of it. */
export type Compared = Omit<
  AgreementLine,
  "state" | "agreed" | "changed" | "explained" | "rest" | "sealed" | "since"
> & {
  causes: readonly { name: string; amount: number }[];
  /** Of a bridge its figures in their own order; elsewhere the two and the causes. */
  figures?: Figures;
  /** What nobody has named a cause for, part of what is left. */
  open?: number;
};

export function spanOf(r: RegistrationRecord, end: string): Span {
  const { from, to } = periodEnding(r, end);
  return { from, to };
}

export function restOf({ left, right, causes }: Compared): { explained: number; rest: number } {
  const explained = causes.reduce((sum, { amount }) => sum + amount, 0);
  return { explained, rest: right - left - explained };
}

export function figuresIn(compared: Compared): Figures {
  const { figures, leftName, left, rightName, right, causes } = compared;
  return (
    figures ?? [
      [leftName, left],
      ...causes.map(({ name, amount }) => [name, amount] as const),
      ["Rest", restOf(compared).rest],
      [rightName, right],
    ]
  );
}

const CONTROL_FIGURES = {
  opening: "Opening",
  declared: "Tax declared",
  timing: "Timing",
  uncodedTotal: "Entries without a code",
};

/** Every pair of figures that a period can agree. */
export function comparedIn(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<readonly Compared[]> {
  return work.remembered("agreements", [r, end], (work) => compare(work, setup, r, end));
}

async function compare(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<Compared[]> {
  const period = periodEnding(r, end);
  const control = await controlAgreement(work, setup, r, end);
  const closing = control.columns.reduce((sum, column) => sum + column.closing, 0);
  const bridges: Bridge[] = [];
  for (const of of ["turnover", "purchases"] as const)
    bridges.push(await bridgeOver(work, r, spanOf(r, end), of));
  const balances = await balanceViews(work, setup, end < work.today ? end : work.today);
  const statements = await statementBriefs(work, r, period);
  return [
    {
      id: "control",
      title: "Control accounts",
      screen: "agree/control",
      path: "agree/control",
      leftName: "Ledger",
      left: closing,
      rightName: "Declared, settled and paid",
      right: closing - control.left,
      causes: [],
      // Settling and paying are our own acts after it: they change nothing that was agreed.
      figures: [
        ...(["opening", "declared", "timing", "uncodedTotal"] as const).map((name): [string, number] => [
          CONTROL_FIGURES[name],
          control.columns.reduce((sum, one) => sum + one[name], 0),
        ]),
        ["Rest", -control.left],
      ],
      waiting: control.uncoded.filter(({ reason }) => reason === null).length,
    },
    ...bridges.map(comparedBridge),
    ...balances.map((balance): Compared => ({
      id: balance.id,
      title: balance.name,
      screen: balance.id === "held" ? "agree/held" : "agree/balances",
      path: "agree/balances",
      leftName: balance.leftName,
      left: balance.left,
      rightName: balance.rightName,
      right: balance.right,
      causes: balance.causes,
      waiting: 0,
    })),
    ...statements.map(comparedStatement),
  ];
}

function comparedBridge({ of, agreement }: Bridge): Compared {
  const isTurnover = of === "turnover";
  return {
    id: of,
    title: isTurnover ? "Turnover" : "Purchases",
    screen: isTurnover ? "agree/turnover" : "agree/purchases",
    path: isTurnover ? "agree/turnover" : "agree/purchases",
    leftName: isTurnover ? "Income" : "Costs",
    left: agreement.left,
    rightName: "Declared",
    right: agreement.right,
    causes: agreement.causes,
    figures: figuresOf(agreement, of),
    open: agreement.open.amount,
    waiting: agreement.open.rows,
  };
}

/** What was decided explains its part; the rest is what nobody has looked at yet. */
function comparedStatement(one: StatementBrief): Compared {
  return {
    id: ["statement", one.kind, one.periodEnd, one.party].join("/"),
    title: one.party === "" ? one.title : `${one.title}: ${one.party}`,
    screen: "agree/statements",
    path: `agree/statements/${one.id}`,
    leftName: "Our documents",
    left: one.ours,
    rightName: "Their list",
    right: one.theirs,
    causes: [{ name: "Decided", amount: one.apart - one.apartOpen }],
    waiting: one.undecided,
  };
}

/** Two figures with what is left between them and what people said of it. */
export interface AgreedPair {
  compared: Compared;
  explained: number;
  rest: number;
  agreed: Agreed;
}

/** The same with what people said of them. */
export async function agreementsIn(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreedPair[]> {
  const pairs: AgreedPair[] = [];
  for (const compared of await comparedIn(work, setup, r, end)) {
    const agreed = await keptAgreement(work, r, compared.id, spanOf(r, end), figuresIn(compared));
    pairs.push({ compared, ...restOf(compared), agreed });
  }
  return pairs;
}

/** The agreements of a period as sealing keeps them. */
export async function agreementsToKeep(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<KeptAgreement[]> {
  const pairs = await agreementsIn(work, setup, r, end);
  return pairs.map(({ compared, rest, agreed: { state, agreed } }) => {
    const { id, title, leftName, left, rightName, right, waiting } = compared;
    const causes = compared.causes.map(({ name, amount }) => ({ name, amount }));
    return { id, title, leftName, left, rightName, right, causes, rest, waiting, state, agreed };
  });
}
