import type { EffectSetup } from "@fiscalon/core/facts/effect";
import { codeFinder } from "@fiscalon/core/facts/documentEffect";
import { FiscalError } from "@fiscalon/core/errors";
import { taxPointOf } from "@fiscalon/core/model/document";
import type { DocumentInput } from "@fiscalon/core/model/document";
import { hasPostings } from "@fiscalon/core/model/documentKinds";
import { chooseCodes } from "@fiscalon/core/supply/chooseCode";
import type { ItemView } from "@fiscalon/contract/views";
import { lineInput, surroundings } from "./draft.ts";
import type { Draft, DraftAround, DraftLine } from "./draft.ts";

/** The draft with a code proposed on every line whose code was not chosen by hand, by the function the server posts with. */
export function withProposals(draft: Draft, setup: EffectSetup, around: DraftAround): Draft {
  if (hasPostings(draft.kind)) return draft;
  const head = {
    kind: draft.kind,
    date: draft.date,
    prices: draft.prices,
    ...(draft.taxPoint === "" ? {} : { taxPoint: draft.taxPoint }),
    ...(draft.originalDate === "" ? {} : { originalDate: draft.originalDate }),
    ...surroundings(draft, around),
  };
  const key = JSON.stringify([
    draft.kind,
    draft.date,
    draft.taxPoint,
    draft.originalDate,
    draft.place,
    draft.contact,
  ]);
  const lines = draft.lines.map((line) => {
    const known = answers.get(line);
    if (known?.key === key && known.setup === setup && known.around === around) return known.line;
    const answer = proposed(line, head, setup);
    answers.set(line, { key, setup, around, line: answer });
    return answer;
  });
  return { ...draft, lines };
}

/** Answers given before: a line that did not change stays the same object, so that its row is not drawn again. */
const answers = new WeakMap<DraftLine, { key: string; setup: object; around: object; line: DraftLine }>();

function proposed(line: DraftLine, head: Omit<DocumentInput, "lines">, setup: EffectSetup): DraftLine {
  if (line.codeTyped || isUntouched(line)) return line;
  const { code: _code, codeReason: _reason, ...said } = lineInput(line);
  try {
    const document = { ...head, lines: [said] };
    const [choice] = chooseCodes(
      document,
      codeFinder(setup, taxPointOf(document), document.site?.region ?? undefined),
    );
    const code = choice?.code?.code ?? "";
    const codeReason = choice?.reason ?? "";
    const asks = choice?.asks ?? null;
    const same = line.code === code && line.codeReason === codeReason && line.asks?.text === asks?.text;
    return same ? line : { ...line, code, codeReason, asks };
  } catch (error) {
    if (error instanceof FiscalError) return line;
    throw error;
  }
}

function isUntouched({ text, amount, account, quantity, tax, item }: DraftLine): boolean {
  return [text, amount, account, quantity, tax, item].every((cell) => cell === "");
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
