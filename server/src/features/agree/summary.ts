import type { AgreementSummary } from "@fiscalon/contract/agreements";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { balanceViews } from "./balances/balances.ts";
import { controlAgreement } from "./controlAgreement.ts";
import { heldCredit } from "./heldCredit.ts";
import { bridgeOver, bridgeView } from "./turnover/bridge.ts";
import { undecidedLines } from "./statements/views.ts";
import { unpaidPage } from "./unpaid.ts";

const NONE = { offset: 0, limit: 0, search: "", descending: false };

/** Every agreement of a period in brief: what is left without a cause, what waits, and whether it is agreed. */
export async function agreementsOf(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreementSummary[]> {
  const period = periodEnding(r, end);
  const control = await controlAgreement(work, setup, r, end);
  const span = { from: period.from, to: period.to };
  const bridge = await bridgeView(work, setup, r, await bridgeOver(work, r, span));
  const day = end < work.today ? end : work.today;
  const balances = await balanceViews(work, setup, day);
  const held = await heldCredit(work, setup, { ...NONE, state: "waiting" });
  const unpaid = await unpaidPage(work, setup, r, end, { ...NONE, rule: "" });
  const brief = (
    screen: AgreementSummary["screen"],
    left: number,
    waiting = 0,
    state: AgreementSummary["state"] = null,
  ): AgreementSummary => ({ screen, left, waiting, state });
  return [
    brief("agree", control.left),
    brief("agree/turnover", bridge.rest, bridge.open.rows, bridge.state),
    brief(
      "agree/balances",
      balances.reduce((sum, { rest }) => sum + Math.abs(rest), 0),
    ),
    brief("agree/statements", 0, await undecidedLines(work, r, period)),
    brief("agree/held", held.waiting - held.ledger, held.total),
    brief(
      "agree/unpaid",
      0,
      unpaid.rules.reduce((sum, { count }) => sum + count, 0),
    ),
  ];
}
