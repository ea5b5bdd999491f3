import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import { gb } from "@fiscalon/core/packs/gb/pack";
import { evaluateReturn } from "@fiscalon/core/returns/evaluateReturn";
import { formOn } from "@fiscalon/core/returns/formOn";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { DocumentInput, LineInput } from "@fiscalon/core/model/document";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { Rounding } from "@fiscalon/core/model/rounding";
import { groupsOf, setupOf } from "./books.ts";

export { groupsOf } from "./books.ts";

/** A registered GB client without any books. */
export function gbSetup(rounding: Rounding = { level: "line", mode: "half-up" }): EffectSetup {
  return setupOf("gb", { rounding, from: "2019-01-01" });
}

export function gbDocument(
  kind: DocumentKind,
  lines: LineInput[],
  more: Partial<DocumentInput> = {},
): DocumentInput {
  return { kind, date: "2026-05-11", prices: "exclusive", lines, ...more };
}

export function gbEffect(document: DocumentInput, setup: EffectSetup = gbSetup()): DocumentEffect {
  return documentEffect(document, setup);
}

/** The nine boxes as text, from documents that all fall in one period. */
export function nineBoxesOf(documents: readonly DocumentInput[], setup: EffectSetup = gbSetup()): string[] {
  const groups = documents.flatMap((document) => groupsOf(gbEffect(document, setup)));
  const form = formOn(gb, "2026-06-30");
  return evaluateReturn(form, groups).map((box, index) => {
    const whole = form.boxes[index]?.rounding.step === 100;
    return whole ? String(box.amount / 100) : formatAmount(box.amount, 2);
  });
}

/** The boxes a document moves before the form's rounding, by box. */
export function movedBy(document: DocumentInput, setup: EffectSetup = gbSetup()): Record<string, string> {
  const rows = boxMovements(gbEffect(document, setup).facts);
  return Object.fromEntries(
    rows.filter((row) => row.amount !== 0).map((row) => [row.box, formatAmount(row.amount, 2)]),
  );
}
