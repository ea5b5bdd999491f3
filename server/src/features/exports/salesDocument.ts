import { at } from "@fiscalon/core/at";
import type { DocumentEffect } from "@fiscalon/core/facts/effect";
import type { EInvoiceParty } from "@fiscalon/core/formats/einvoice/eInvoice";
import { invoiceOf } from "@fiscalon/core/formats/einvoice/invoiceOf";
import { writeUbl } from "@fiscalon/core/formats/einvoice/writeUbl";
import { minorDigits } from "@fiscalon/core/money/currency";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { notFound } from "../../base/errors.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { recordedEffects } from "../../books/documents/recordedEffects.ts";
import { loadDocuments } from "../../books/documents/loadDocuments.ts";
import type { StoredDocument } from "../../books/documents/loadDocuments.ts";

/** A posted document with everything that is printed of it. */
export interface PrintedDocument {
  document: StoredDocument;
  effect: DocumentEffect;
  setup: ClientSetup;
  seller: EInvoiceParty;
  buyer: EInvoiceParty;
  /** The registration it is made under, where one is in force. */
  registration: RegistrationRecord | undefined;
  currency: string;
  digits: number;
}

export async function printedDocument(
  work: Work,
  clientId: number,
  documentId: number,
): Promise<PrintedDocument> {
  const setup = await loadSetup(work, clientId);
  const [document] = await loadDocuments(work, "d.id = $1 AND d.client_id = $2", [documentId, clientId]);
  if (!document) throw notFound("This document");
  const { effect } = at(await recordedEffects(work, setup, [document]), 0);
  const place = setup.plain.places.find(({ id }) => id === document.place) ?? setup.plain.places[0];
  const contact =
    document.contact === null ? null : await work.models.contacts.findByPk(document.contact, work.options);
  const country = place?.country ?? setup.client.country;
  const owner = effect.facts.find((fact) => fact.registration !== null)?.registration;
  const registration =
    setup.registrations.find(({ id }) => id === owner) ??
    setup.registrations.find(({ validFrom, validTo }) => {
      const on = document.input.date;
      return validFrom <= on && (validTo === null || on <= validTo);
    });
  const currency = document.input.currency ?? setup.client.currency;
  return {
    document,
    effect,
    setup,
    registration,
    currency,
    digits: minorDigits(currency),
    seller: {
      name: setup.client.name,
      taxNumber: registration?.number ?? "",
      country,
      region: place?.region ?? "",
    },
    buyer: {
      name: contact?.name ?? "",
      taxNumber: contact?.taxNumber ?? "",
      country: contact?.country ?? "",
      region: contact?.region ?? "",
    },
  };
}

/** A sales document as e-invoice XML. */
export async function eInvoiceXml(
  work: Work,
  clientId: number,
  documentId: number,
): Promise<{ name: string; xml: string }> {
  const { document, effect, seller, buyer, currency, digits } = await printedDocument(
    work,
    clientId,
    documentId,
  );
  const input = { ...document.input, corrects: document.corrects };
  const invoice = invoiceOf(input, effect.printed, { seller, buyer }, currency, digits);
  return { name: document.input.number, xml: writeUbl({ ...invoice, note: document.note }) };
}
