import { minorDigits } from "@fiscalon/core/money/currency";
import { at } from "@fiscalon/core/at";
import { FiscalError, withinField } from "@fiscalon/core/errors";
import { documentEffect } from "@fiscalon/core/facts/documentEffect";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import { movementsUnder } from "@fiscalon/core/schemes/movementsUnder";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { Party, Site } from "@fiscalon/core/model/party";
import { codesByName } from "@fiscalon/core/tax/expandCode";
import { explainTax } from "@fiscalon/core/tax/explainTax";
import type { PricedLine } from "@fiscalon/core/model/pricedDocument";
import { ROUND_EACH_LINE } from "@fiscalon/core/model/rounding";
import type { Rounding } from "@fiscalon/core/model/rounding";
import type { DocumentBody } from "@fiscalon/contract/document";
import type { PricePreview } from "@fiscalon/contract/views";
import { inField } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { requireOwn } from "../../books/requireOwn.ts";
import { addSurroundings } from "../../books/documents/addSurroundings.ts";

export interface PriceRequest {
  client?: number;
  pack?: string;
  rounding?: Rounding;
  /** With a pack: where we are, and who the other side is. */
  site?: Partial<Site>;
  party?: Party;
  document: DocumentBody;
}

/** Prices one document without keeping it: with a client's set-up, or with a pack as it ships. */
export async function pricePreview(work: Work, request: PriceRequest): Promise<PricePreview> {
  const { document, setup } =
    request.client === undefined
      ? packRequest(work, request)
      : await clientRequest(work, request.client, request);
  const effect = withinField("document", () => documentEffect(document, setup));
  const money = (amount: number) => formatAmount(amount, setup.digits);
  return {
    effect: { ledgerDate: effect.ledgerDate, warnings: effect.warnings },
    lines: effect.priced.lines.map((line) => ({
      no: line.no,
      net: money(line.net),
      gross: money(line.gross),
      code: line.code?.code ?? null,
      reason: line.reason ?? null,
      source: line.source ?? null,
      asks: line.asks ?? null,
      taxes: line.taxes.map((tax, index) => ({
        levy: tax.component.levy,
        rate: tax.rate,
        tax: money(tax.tax),
        calculated: money(tax.calculated),
        typed: tax.typed,
        shared: tax.shared,
        arithmetic: explained(effect.printed.lines[line.no - 1], document, index, setup),
      })),
    })),
    levies: effect.priced.levies.map((row) => ({
      ...row,
      charged: row.charged === "charged",
      net: money(row.net),
      tax: money(row.tax),
    })),
    net: money(effect.priced.net),
    tax: money(effect.priced.tax),
    gross: money(effect.priced.gross),
    postings: effect.postings.map((posting) => ({ ...posting, amount: money(posting.amount) })),
    boxes: movementsUnder(effect.facts, setup).map(({ registration, periodEnd, box, amount }) => ({
      registration,
      periodEnd,
      box,
      amount: money(amount),
    })),
  };
}

async function clientRequest(work: Work, clientId: number, { document }: PriceRequest) {
  const setup = await loadSetup(work, clientId);
  const { contact, place, corrects, ...input } = document;
  const previewed = {
    input: { number: "", ...input },
    contact: contact ?? null,
    place: place ?? null,
    corrects: corrects ?? null,
  };
  await inField("document", async () => {
    await requireOwn(work, clientId, "contacts", contact, "contact");
    await requireOwn(work, clientId, "places", place, "place");
    await addSurroundings(work, setup, [previewed]);
  });
  return { document: previewed.input, setup: setup.effect };
}

/** The arithmetic of a tax in the currency the document is printed in. */
function explained(
  line: PricedLine | undefined,
  document: DocumentBody,
  index: number,
  setup: EffectSetup,
): string[] {
  if (!line) return [];
  const digits = minorDigits(document.currency ?? setup.currency);
  return explainTax(line, index, digits);
}

/** A registration that has always been in force, with the pack's codes, rules and accounts. */
function packRequest(work: Work, { pack: id, document, rounding, site, party }: PriceRequest) {
  if (id === undefined) {
    throw new FiscalError("price/no-setup", "Say whose set-up to price with: a client, or a pack.", "client");
  }
  const pack = work.packs.byId(id);
  const rhythm = at(pack.rhythms, 0);
  const setup: EffectSetup = {
    packs: work.packs,
    digits: minorDigits(pack.currency),
    currency: pack.currency,
    today: work.today,
    codes: codesByName(pack.codes),
    archived: new Set(),
    rules: pack.rules,
    schedules: pack.schedules,
    accounts: pack.accounts,
    saleCode: null,
    purchaseCode: null,
    registrations: [
      {
        id: 0,
        pack: pack.id,
        levies: pack.levies.map((levy) => levy.levy),
        basis: "accrual",
        rounding: rounding ?? pack.roundings[0]?.rounding ?? ROUND_EACH_LINE,
        frequency: rhythm.frequency,
        anchor: rhythm.anchor,
        from: "1900-01-01",
        to: null,
      },
    ],
    sealed: new Map(),
  };
  const { contact: _contact, place: _place, ...input } = document;
  const place = { country: pack.country, region: null, ...site };
  return { document: { ...input, site: place, ...(party ? { party } : {}) }, setup };
}
