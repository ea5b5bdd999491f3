import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import type { AgreementLine, AgreeLineBody } from "@fiscalon/contract/agreements";
import type { Work, Writing } from "../../base/work.ts";
import {
  agreementsIn,
  agreementsToKeep,
  comparedIn,
  figuresIn,
  restOf,
  spanOf,
} from "../../books/agree/compared.ts";
import { keepAgreement } from "../../books/agree/keptAgreement.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { writtenSince } from "../../books/agree/writtenSince.ts";
import { returnRecord } from "../../books/returns/records.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import { unpaidPage } from "./unpaid.ts";

const NONE = { offset: 0, limit: 0, search: "", descending: false };

/** Every agreement of a period: both figures, what explains the difference, what is left, and who agreed it. */
export async function agreementLines(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreementLine[]> {
  const span = spanOf(r, end);
  const record = await returnRecord(work, r.id, end);
  const lines: AgreementLine[] = [];
  for (const { compared, explained, rest, agreed: kept } of await agreementsIn(work, setup, r, end)) {
    const { causes: _causes, figures: _figures, open: _open, ...line } = compared;
    const asSealed = record?.agreements?.find(({ id }) => id === compared.id);
    const sealed = asSealed ? { left: asSealed.left, right: asSealed.right, rest: asSealed.rest } : null;
    const moved = sealed && (sealed.left !== line.left || sealed.right !== line.right);
    const moment = kept.state === "changed" ? kept.agreed?.at : moved ? record?.sealedAt : null;
    // A balance is of everything up to a day.
    const days = line.path === "agree/balances" ? { from: "0000-01-01", to: span.to } : span;
    const since = moment ? await writtenSince(work, setup.client.id, days, moment) : null;
    lines.push({ ...line, explained, rest, ...kept, sealed, since });
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

/** What waits without two figures to compare. */
async function waitingIn(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<AgreementLine[]> {
  const waiting = await work.remembered("unpaid too long", [r, end], async (work) => {
    const { rules } = await unpaidPage(work, setup, r, end, { ...NONE, rule: "" });
    return rules.reduce((sum, { count }) => sum + count, 0);
  });
  const bare = { explained: 0, state: null, agreed: null, changed: [], sealed: null, since: null };
  return [
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
      waiting,
    },
  ];
}

/** The agreements of a period as a paper: both figures, every cause, what is left, who agreed it; as they are, or as sealed. */
export async function agreementTable(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  asSealed: boolean,
): Promise<ReportTable> {
  const { from, to } = spanOf(r, end);
  const record = await returnRecord(work, r.id, end);
  const kept = asSealed ? record?.agreements : await agreementsToKeep(work, setup, r, end);
  if (!kept)
    throw new FiscalError("agree/not-sealed", "This period keeps no agreements: it is not sealed.", "sealed");
  return {
    title: "Agreements",
    about: `${setup.client.name}, ${work.packs.levyNames(r.levies)}, ${displayDate(from)} to ${displayDate(to)}${asSealed ? `, as sealed on ${displayDate(record?.sealedAt ?? "")}` : ""}`,
    digits: setup.plain.digits,
    columns: [
      { name: "Agreement", width: 150 },
      { name: "Figure", width: 190 },
      { name: "Amount", amount: true },
      { name: "State", width: 200 },
    ],
    rows: kept.flatMap(
      ({ title, leftName, left, causes, rightName, right, rest, waiting, state, agreed }) => [
        {
          cells: [
            title,
            leftName,
            left,
            [
              state,
              ...(agreed ? [`by ${agreed.by} on ${displayDate(agreed.at)}`] : []),
              ...(agreed?.note ? [agreed.note] : []),
              ...(waiting > 0 ? [`${waiting} waiting`] : []),
            ].join(", "),
          ],
          total: true,
        },
        ...causes.map(({ name, amount }) => ({ cells: ["", name, amount, ""] })),
        { cells: ["", rightName, right, ""] },
        { cells: ["", "Left", rest, ""] },
      ],
    ),
  };
}
