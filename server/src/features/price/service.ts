import { minorDigits } from "@fiscalon/core/money/currency";
import { FiscalError } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { EffectSetup } from "@fiscalon/core/facts/documentEffect";
import { boxMovements } from "@fiscalon/core/facts/boxMovements";
import { packById } from "@fiscalon/core/jurisdictions/packs";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { DocumentInput } from "@fiscalon/core/tax/documentInput";
import { taxPointOf } from "@fiscalon/core/tax/documentInput";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import { ROUND_EACH_LINE } from "@fiscalon/core/tax/rounding";
import type { Rounding } from "@fiscalon/core/tax/rounding";
import type { PricePreview } from "@fiscalon/contract/views";
import type { Database } from "../../db/database.ts";
import { loadSetup, today } from "../clients/loadSetup.ts";

export interface PriceRequest {
  client?: number;
  pack?: string;
  rounding?: Rounding;
  document: DocumentInput;
}

/** Prices one document without keeping it: with a client's set-up, or with a pack as it ships. */
export async function pricePreview(db: Database, request: PriceRequest): Promise<PricePreview> {
  const setup =
    request.client === undefined ? packSetup(request) : (await loadSetup(db, request.client)).effect;
  const effect = documentEffect(request.document, setup);
  const rounding =
    setup.registrations.find((r) => r.from <= taxPointOf(request.document))?.rounding ?? ROUND_EACH_LINE;
  const money = (amount: number) => formatAmount(amount, setup.digits);
  return {
    effect: { ledgerDate: effect.ledgerDate, warnings: effect.warnings },
    lines: effect.priced.lines.map((line) => ({
      no: line.no,
      net: money(line.net),
      gross: money(line.gross),
      code: line.code?.code ?? null,
      taxes: line.taxes.map((tax, index) => ({
        levy: tax.component.levy,
        rate: tax.rate,
        tax: money(tax.tax),
        calculated: money(tax.calculated),
        typed: tax.typed,
        arithmetic: explainTax(
          line.amount,
          request.document.prices,
          line.taxes,
          index,
          rounding,
          setup.digits,
        ),
      })),
    })),
    levies: effect.priced.levies.map((row) => ({ ...row, net: money(row.net), tax: money(row.tax) })),
    net: money(effect.priced.net),
    tax: money(effect.priced.tax),
    gross: money(effect.priced.gross),
    postings: effect.postings.map((posting) => ({ ...posting, amount: money(posting.amount) })),
    boxes: boxMovements(effect.facts).map((row) => ({ ...row, amount: money(row.amount) })),
  };
}

/** A registration that has always been in force, with the pack's codes and accounts. */
function packSetup(request: PriceRequest): EffectSetup {
  if (request.pack === undefined) {
    throw new FiscalError("price/no-setup", "Say whose set-up to price with: a client, or a pack.", "client");
  }
  const pack = packById(request.pack);
  const rhythm = pack.rhythms[0];
  return {
    digits: minorDigits(pack.currency),
    today: today(),
    codes: new Map(pack.codes.map((code) => [code.code, code])),
    schedules: pack.schedules,
    accounts: pack.accounts,
    registrations: [
      {
        id: 0,
        pack: pack.id,
        levies: pack.levies.map((levy) => levy.levy),
        basis: "accrual",
        rounding: request.rounding ?? pack.roundings[0]?.rounding ?? ROUND_EACH_LINE,
        frequency: rhythm?.frequency ?? "quarterly",
        anchor: rhythm?.anchor ?? "2026-03-31",
        from: "1900-01-01",
        to: null,
      },
    ],
    sealed: new Map(),
  };
}
