import { FiscalError } from "@fiscalon/core/errors";
import type { AgreementLine, AgreeLineBody } from "@fiscalon/contract/agreements";
import type { StatementBrief } from "@fiscalon/contract/statements";
import type { Work, Writing } from "../../base/work.ts";
import { keepAgreement, keptAgreement } from "../../books/agree/keptAgreement.ts";
import type { Figures } from "../../books/agree/keptAgreement.ts";
import type { Span } from "../../books/agree/apartRows.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import { balanceViews } from "./balances/balances.ts";
import { controlAgreement } from "./controlAgreement.ts";
import { heldCredit } from "./heldCredit.ts";
import { statementBriefs } from "./statements/views.ts";
import { figuresOf } from "./turnover/agreeSpan.ts";
import { bridgeOver } from "./turnover/bridge.ts";
import type { Bridge } from "./turnover/bridge.ts";
import { unpaidPage } from "./unpaid.ts";

const NONE = { offset: 0, limit: 0, search: "", descending: false };

/** Two figures with what stands between them, before anybody said something of it. */
type Compared = Omit<AgreementLine, "state" | "agreed" | "changed" | "explained" | "rest"> & {
  causes: readonly { name: string; amount: number }[];
  /** Of a bridge its figures in their own order; elsewhere the two and the causes. */
  figures?: Figures;
  /** What nobody has named a cause for, part of what is left. */
  open?: number;
};

/** Every agreement of a period: both figures, what explains the difference, what is left, and who agreed it. */
export async function agreementLines(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreementLine[]> {
  const span = spanOf(r, end);
  const lines: AgreementLine[] = [];
  for (const compared of await comparedIn(work, setup, r, end)) {
    const { causes, figures: _figures, open: _open, ...line } = compared;
    const { explained, rest } = restOf(compared);
    const kept = await keptAgreement(work, r, compared.id, span, figuresIn(compared));
    lines.push({ ...line, explained, rest, ...kept });
  }
  return [...lines, ...(await waitingIn(work, setup, r, end))];
}

/** Keeps that one of them is agreed as it stands. */
export async function agreeLine(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  { id, note }: AgreeLineBody,
): Promise<void> {
  const compared = (await comparedIn(work, setup, r, end)).find((one) => one.id === id);
  if (!compared) throw new FiscalError("agree/no-balance", `There is no balance "${id}" to agree.`, "id");
  const { rest } = restOf(compared);
  const kept = {
    kind: id,
    span: spanOf(r, end),
    figures: figuresIn(compared),
    open: compared.open ?? 0,
    rest,
  };
  await keepAgreement(work, r, kept, note);
}

function spanOf(r: RegistrationRecord, end: string): Span {
  const { from, to } = periodEnding(r, end);
  return { from, to };
}

function restOf({ left, right, causes }: Compared): { explained: number; rest: number } {
  const explained = causes.reduce((sum, { amount }) => sum + amount, 0);
  return { explained, rest: right - left - explained };
}

function figuresIn(compared: Compared): Figures {
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

async function comparedIn(
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
  const statements = (await statementBriefs(work, r)).filter(
    ({ periodEnd }) => periodEnd >= period.from && periodEnd <= period.to,
  );
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
      waiting: control.uncoded.filter(({ reason }) => reason === null).length,
    },
    ...bridges.map(comparedBridge),
    ...balances.map((balance): Compared => ({
      id: balance.id,
      title: balance.name,
      screen: "agree/balances",
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

/** What waits without two figures to compare. */
async function waitingIn(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreementLine[]> {
  const held = await heldCredit(work, setup, { ...NONE, state: "waiting" });
  const unpaid = await unpaidPage(work, setup, r, end, { ...NONE, rule: "" });
  const bare = { explained: 0, state: null, agreed: null, changed: [] };
  return [
    {
      ...bare,
      id: "held",
      title: "Input tax not yet deducted",
      screen: "agree/held",
      path: "agree/held",
      leftName: "Ledger",
      left: held.ledger,
      rightName: "Documents that wait",
      right: held.waiting,
      rest: held.waiting - held.ledger,
      waiting: held.total,
    },
    {
      ...bare,
      id: "unpaid",
      title: "Unpaid too long",
      screen: "agree/unpaid",
      path: "agree/unpaid",
      leftName: "",
      left: 0,
      rightName: "",
      right: 0,
      rest: 0,
      waiting: unpaid.rules.reduce((sum, { count }) => sum + count, 0),
    },
  ];
}

/** The agreements of a period as a paper: figures, what is left, who agreed it. */
export async function agreementTable(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<ReportTable> {
  const { from, to } = spanOf(r, end);
  const lines = await agreementLines(work, setup, r, end);
  return {
    title: "Agreements",
    about: `${setup.client.name}, ${work.packs.levyNames(r.levies)}, ${from} to ${to}`,
    digits: setup.plain.digits,
    columns: [
      { name: "Agreement", width: 130 },
      { name: "Left", width: 90 },
      { name: "Amount", amount: true },
      { name: "Explained", amount: true },
      { name: "Right", width: 90 },
      { name: "Amount", amount: true },
      { name: "Left over", amount: true },
      { name: "State", width: 130 },
    ],
    rows: lines.map(
      ({ title, leftName, left, explained, rightName, right, rest, waiting, state, agreed }) => ({
        cells: [
          title,
          leftName,
          left,
          explained,
          rightName,
          right,
          rest,
          [
            ...(state === null ? [] : [state]),
            ...(agreed ? [`by ${agreed.by} on ${agreed.at.slice(0, 10)}`] : []),
            ...(agreed?.note ? [agreed.note] : []),
            ...(waiting > 0 ? [`${waiting} waiting`] : []),
          ].join(", "),
        ],
      }),
    ),
  };
}
