import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { DocumentEffect, EffectSetup } from "@fiscalon/core/facts/effect";
import type { RegisterDocument } from "@fiscalon/core/incoming/registerReading";
import { formatAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { LevyTotal } from "@fiscalon/core/model/pricedDocument";
import type { ToldTax } from "./incoming.ts";

/** By levy and rate the tax the paper states where the calculation gives another. */
function differingRates(
  told: NonNullable<ToldTax["rates"]>,
  levies: readonly LevyTotal[],
  digits: number,
): Record<string, string> {
  const typed: Record<string, string> = {};
  for (const { levy, rate, per, charged, tax } of levies) {
    if (charged !== "charged" || per !== "percent" || rate === null) continue;
    const stated = told.filter((one) => Number(one.rate) === Number(rate));
    if (stated.length === 0) continue;
    const sum = stated.reduce((all, one) => all + one.tax, 0);
    if (sum !== tax) typed[`${levy} ${rate}`] = formatAmount(sum, digits);
  }
  return typed;
}

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
  if (told.rates) {
    const typedTax = differingRates(told.rates, effect.printed.levies, digits);
    if (Object.keys(typedTax).length === 0) return effect;
    document.input = { ...document.input, typedTax };
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
