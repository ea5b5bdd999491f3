import { registrationFor } from "@fiscalon/core/facts/registration";
import { circumstancesOf } from "@fiscalon/core/supply/circumstances";
import { proposeCode } from "@fiscalon/core/supply/proposeCode";
import { answeringRule } from "@fiscalon/core/supply/supplyRule";
import type { SupplyRule } from "@fiscalon/core/supply/supplyRule";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { PlaceSetup, PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { ItemView } from "@fiscalon/contract/views";
import { partyOf, placeOf } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";

/** The draft with a code proposed on every line whose code was not chosen by hand. */
export function withProposals(
  draft: Draft,
  setup: { plain: PlainSetup; effect: EffectSetup },
  items: readonly ItemView[],
): Draft {
  const { direction } = DOCUMENT_KINDS[draft.kind];
  if (direction === null) return draft;
  const head = headOf(draft);
  const lines = draft.lines.map((line) => {
    const known = answers.get(line);
    if (known?.head === head && known.setup === setup && known.items === items) return known.line;
    const answer = proposed(line, draft, setup, items, direction);
    answers.set(line, { head, setup, items, line: answer });
    return answer;
  });
  return { ...draft, lines };
}

/** Answers given before: a line that did not change stays the same object, so that its row is not drawn again. */
const answers = new WeakMap<DraftLine, { head: string; setup: object; items: object; line: DraftLine }>();

/** Everything of the document's head that a proposal depends on. */
function headOf({ kind, date, taxPoint, originalDate, place, contact }: Draft): string {
  return JSON.stringify([kind, date, taxPoint, originalDate, place, contact]);
}

function proposed(
  line: DraftLine,
  draft: Draft,
  setup: { plain: PlainSetup; effect: EffectSetup },
  items: readonly ItemView[],
  direction: "sale" | "purchase",
): DraftLine {
  if (
    line.codeTyped ||
    (line.text === "" && line.amount === "" && line.account === "" && line.quantity === "" && line.tax === "")
  )
    return line;
  const item = items.find((one) => one.ref === line.item);
  const account = setup.plain.accounts.find((one) => one.code === line.account);
  const isSale = direction === "sale";
  const place = placeOf(draft, setup.plain.places);
  const taxClass = line.taxClass || item?.taxClass || undefined;
  const answer = proposeCode(
    {
      contact: draft.contact
        ? { name: draft.contact.name, code: isSale ? draft.contact.saleCode : draft.contact.purchaseCode }
        : undefined,
      item: item ? { name: item.name, code: isSale ? item.saleCode : item.purchaseCode } : undefined,
      rule: ruleFor({ line, draft, setup, direction, place, taxClass, supply: item?.supply ?? undefined }),
      account: account ? { name: account.name, code: account.usualCode } : undefined,
      place: place ? { name: place.name, code: isSale ? place.saleCode : place.purchaseCode } : undefined,
      business: isSale ? setup.plain.saleCode : setup.plain.purchaseCode,
    },
    direction,
    setup.effect.codes,
  );
  const [code, codeReason] = [answer?.code ?? "", answer?.reason ?? ""];
  return line.code === code && line.codeReason === codeReason ? line : { ...line, code, codeReason };
}

/** The rule that answers for the tax class; for a line without one, only where the supply crosses a border. */
function ruleFor({
  line,
  draft,
  setup,
  direction,
  place,
  taxClass,
  supply,
}: {
  line: DraftLine;
  draft: Draft;
  setup: { plain: PlainSetup; effect: EffectSetup };
  direction: "sale" | "purchase";
  place: PlaceSetup | undefined;
  taxClass: string | undefined;
  supply: "goods" | "services" | undefined;
}): SupplyRule | undefined {
  const kind = line.supply || supply;
  const on = draft.originalDate || draft.taxPoint || draft.date;
  const circumstances = circumstancesOf(
    { ...(place ? { site: place } : {}), ...(draft.contact ? { party: partyOf(draft.contact) } : {}) },
    { ...(kind ? { supply: kind } : {}), attributes: line.attributes },
    direction,
    DOCUMENT_KINDS[draft.kind].sign < 0,
  );
  if (taxClass === undefined && circumstances["scope"] !== "inter") return undefined;
  return answeringRule(setup.effect.rules, {
    direction,
    taxClass: taxClass ?? "standard",
    supply: kind ?? "",
    on,
    circumstances,
    registeredFor: (levy) => registrationFor(setup.effect.registrations, levy, on) !== undefined,
  });
}

/** What choosing an item puts on a line; what is there already stays. */
export function lineFromItem(line: DraftLine, item: ItemView, direction: "sale" | "purchase"): DraftLine {
  const account = direction === "sale" ? item.saleAccount : item.purchaseAccount;
  return {
    ...line,
    item: item.ref,
    text: line.text || item.name,
    unitPrice: line.unitPrice || (item.unitPrice ?? ""),
    quantity: line.quantity || (item.unitPrice ? "1" : ""),
    account: line.account || (account ?? ""),
    supply: line.supply || (item.supply ?? ""),
    taxClass: line.taxClass || (item.taxClass ?? ""),
  };
}
