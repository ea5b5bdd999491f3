import { proposeCode } from "@fiscalon/core/supply/proposeCode";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { DOCUMENT_KINDS } from "@fiscalon/core/tax/documentInput";
import type { ItemView } from "@fiscalon/contract/views";
import type { Draft, DraftLine } from "./draft.ts";

/** The draft with a code proposed on every line whose code was not chosen by hand. */
export function withProposals(
  draft: Draft,
  setup: { plain: PlainSetup; effect: EffectSetup },
  items: readonly ItemView[],
): Draft {
  const { direction } = DOCUMENT_KINDS[draft.kind];
  if (direction === null) return draft;
  return { ...draft, lines: draft.lines.map((line) => proposed(line, draft, setup, items, direction)) };
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
  const answer = proposeCode(
    {
      contact: draft.contact
        ? { name: draft.contact.name, code: isSale ? draft.contact.saleCode : draft.contact.purchaseCode }
        : undefined,
      item: item ? { name: item.name, code: isSale ? item.saleCode : item.purchaseCode } : undefined,
      account: account ? { name: account.name, code: account.usualCode } : undefined,
      business: isSale ? setup.plain.saleCode : setup.plain.purchaseCode,
    },
    direction,
    setup.effect.codes,
  );
  return { ...line, code: answer?.code ?? "", codeReason: answer?.reason ?? "" };
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
  };
}
