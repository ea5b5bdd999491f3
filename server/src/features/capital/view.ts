import { at } from "@fiscalon/core/at";
import type { CapitalItems } from "@fiscalon/core/model/capitalItem";
import { capitalAdjustments, returnOf, stretchesOf } from "@fiscalon/core/schemes/capitalItems";
import type { CapitalAround } from "@fiscalon/core/schemes/capitalItems";
import type { CapitalItemsView, CapitalItemView, CapitalStretch } from "@fiscalon/contract/capitalItems";
import type { Work } from "../../base/work.ts";
import { aroundOf, itemsOf } from "../../books/capital/items.ts";
import type { KeptItem } from "../../books/capital/items.ts";
import { unlistedPurchases } from "../../books/capital/unlisted.ts";
import { requireCapitalRule } from "../../books/capital/keepItem.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ReportTable } from "../../exports/reportTable.ts";

/** The capital items of a registration with what each stretch of their time adjusts. */
export async function capitalView(work: Work, r: RegistrationRecord): Promise<CapitalItemsView> {
  const rule = requireCapitalRule(work, r);
  const items = await itemsOf(work, r);
  const around = aroundOf(work, r);
  return {
    digits: around.digits,
    items: items.map((item) => viewOf(rule, item, around, work.today)),
    suggested: await unlistedPurchases(work, r, rule, items),
  };
}

function viewOf(rule: CapitalItems, item: KeptItem, around: CapitalAround, today: string): CapitalItemView {
  const stretches = stretchesOf(rule, item, around);
  const made = capitalAdjustments(rule, item, around);
  const last = stretches.at(-1);
  const { ended } = item;
  const begun = stretches.filter(
    ({ from, to }) => (from <= today || item.uses[to] !== undefined) && (ended === null || from <= ended.on),
  );
  const rest = made.find((one) => one.rest);
  return {
    ...item,
    taxes: { ...item.taxes },
    uses: { ...item.uses },
    stretches:
      rule.share === "turnover"
        ? []
        : begun.map(({ from, to }): CapitalStretch => {
            const adjusted = made.find((one) => !one.rest && one.stretch === to);
            return {
              from,
              to,
              share: item.uses[to] ?? null,
              reported: returnOf(rule, to, around) ?? null,
              amounts: { ...adjusted?.amounts },
            };
          }),
    until: last?.to ?? item.firstUse,
    rest: rest
      ? {
          from: rest.stretch,
          to: last?.to ?? rest.stretch,
          share: rest.share,
          reported: rest.end,
          amounts: { ...rest.amounts },
        }
      : null,
  };
}

/** The list as a table, a row for each item and each stretch that adjusted something. */
export async function capitalTable(work: Work, client: string, r: RegistrationRecord): Promise<ReportTable> {
  const { items, digits } = await capitalView(work, r);
  const { kinds, source } = requireCapitalRule(work, r);
  const sum = (amounts: Record<string, number>) =>
    Object.values(amounts).reduce((total, amount) => total + amount, 0);
  return {
    title: "Capital items",
    about: `${client}, ${r.number} (${source})`,
    digits,
    columns: [
      { name: "No", width: 30 },
      { name: "Item", width: 150 },
      { name: "Kind", width: 110 },
      { name: "From", date: true, width: 65 },
      { name: "To", date: true, width: 65 },
      { name: "Share", width: 45 },
      { name: "On the return to", width: 75 },
      { name: "Cost", amount: true },
      { name: "Tax", amount: true },
      { name: "Adjusted", amount: true },
    ],
    rows: items.flatMap((item) => {
      const kind = kinds.find(({ id }) => id === item.kind)?.name ?? item.kind;
      const head = {
        cells: [
          String(item.no),
          item.name,
          kind,
          item.firstUse,
          item.until,
          item.share,
          item.evidence,
          item.net,
          sum(item.taxes),
          0,
        ],
      };
      const stretches = [...item.stretches, ...(item.rest ? [item.rest] : [])];
      return [
        head,
        ...stretches
          .filter(({ share }) => share !== null)
          .map(({ from, to, share, reported, amounts }) => ({
            cells: [
              String(item.no),
              "",
              item.rest && from === item.rest.from ? "the rest" : "",
              from,
              to,
              share ?? "",
              reported ?? "",
              0,
              0,
              sum(amounts),
            ],
          })),
      ];
    }),
  };
}

/** One item of the list. */
export async function capitalItem(work: Work, r: RegistrationRecord, no: number): Promise<CapitalItemView> {
  const { items } = await capitalView(work, r);
  return at(
    items.filter((item) => item.no === no),
    0,
  );
}
