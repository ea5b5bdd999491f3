import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/documentEffect";
import type { RegisterDocument } from "@fiscalon/core/formats/registers/registerDocuments";
import { formatAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { ToldTax } from "./incoming.ts";

/**
 * The effect of a document with the tax as its paper states it: where the calculation gives another figure, the one on
 * the paper is kept as typed.
 */
export function effectAsTold(
  document: RegisterDocument,
  told: ToldTax | undefined,
  setup: EffectSetup,
): DocumentEffect {
  const effect = documentEffect(document.input, setup);
  if (!told) return effect;
  const digits = minorDigits(document.input.currency ?? setup.currency);
  if (told.whole !== undefined && told.whole !== effect.printed.tax) {
    const levy = effect.printed.levies.find((row) => row.charged && row.tax !== 0)?.levy;
    if (levy === undefined) return effect;
    document.input = { ...document.input, typedTax: { [levy]: formatAmount(told.whole, digits) } };
    return documentEffect(document.input, setup);
  }
  if (!told.lines) return effect;
  let changed = false;
  const lines = document.input.lines.map((line, index) => {
    const typed: Record<string, string> = {};
    for (const { component, tax } of effect.printed.lines[index]?.taxes ?? []) {
      const says = told.lines?.[index]?.[component.levy];
      if (component.charged !== "charged" || component.rate.kind === "none") continue;
      if (says !== undefined && says !== tax) typed[component.levy] = formatAmount(says, digits);
    }
    if (Object.keys(typed).length === 0) return line;
    changed = true;
    return { ...line, typedTax: typed, typedReason: "as stated in the file" };
  });
  if (!changed) return effect;
  document.input = { ...document.input, lines };
  return documentEffect(document.input, setup);
}
