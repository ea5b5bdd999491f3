import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { found } from "@fiscalon/core/at";
import { FiscalError } from "@fiscalon/core/errors";
import type { DocumentBody } from "@fiscalon/contract/document";
import type { StockMove, StockMoveBody } from "@fiscalon/contract/stockMove";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postDocument } from "./service.ts";

/** What stands between two registrations of one business; nothing is left on it once goods have arrived. */
const BETWEEN = "branches";

/**
 * Moves goods from one place to another that is registered apart: a supply of the one and a purchase of the other, each
 * to the other's number, against an account between the two. Profit does not move.
 * @source CGST Sch. I para 2: between distinct persons of one PAN, also without money
 */
export async function moveStock(work: Work, clientId: number, body: StockMoveBody): Promise<StockMove> {
  return work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const seller = registrationAt(work, setup, body.from, body.date, "from");
    const buyer = registrationAt(work, setup, body.to, body.date, "to");
    if (seller.id === buyer.id) {
      throw new FiscalError(
        "stock/one-registration",
        "Both places belong to one registration: nothing is supplied. Choose a place that is registered apart.",
        "to",
      );
    }
    const paidThrough = await accountBetween(work, setup);
    const { date, number, lines } = body;
    const shared = { date, number, prices: "exclusive" as const, paidThrough };
    const post = (
      kind: DocumentBody["kind"],
      place: number,
      contact: number,
      codeOf: (line: StockMoveBody["lines"][number]) => string,
    ) =>
      postDocument(work, clientId, {
        ...shared,
        kind,
        place,
        contact,
        lines: lines.map((line) => ({
          text: line.text,
          amount: line.amount,
          code: codeOf(line),
          account: paidThrough,
          supply: "goods",
        })),
      });
    const [toBuyer, toSeller] = [await ownContact(work, setup, buyer), await ownContact(work, setup, seller)];
    return {
      sale: await post("cash-sale", body.from, toBuyer, ({ saleCode }) => saleCode),
      purchase: await post("expense", body.to, toSeller, ({ purchaseCode }) => purchaseCode),
    };
  });
}

/** The registration that goods of a place belong to, given out for its region. */
function registrationAt(
  work: Work,
  { plain, registrations }: ClientSetup,
  placeId: number,
  on: string,
  field: "from" | "to",
): RegistrationRecord {
  const place = plain.places.find(({ id }) => id === placeId);
  if (!place) throw notFound("This place");
  const registration = registrations.find(
    (r) =>
      work.packs.byId(r.pack).country === place.country &&
      r.region !== null &&
      r.region === place.region &&
      r.validFrom <= on &&
      (r.validTo === null || on <= r.validTo),
  );
  if (registration?.number) return registration;
  throw new FiscalError(
    "stock/not-registered",
    `${place.name} has no registration with a number of its own on ${displayDate(on)}. Add it under Places & registrations.`,
    field,
  );
}

/** The business itself as a contact, under the number of one of its registrations. */
async function ownContact(
  work: Writing,
  { client }: ClientSetup,
  registration: RegistrationRecord,
): Promise<number> {
  const { number, region } = registration;
  const known = await work.models.contacts.findOne({
    where: { clientId: client.id, taxNumber: number },
    ...work.options,
  });
  if (known) return known.id;
  const { country, regions = [] } = work.packs.byId(registration.pack);
  const where = found(regions, ({ code }) => code === region, `region ${region ?? ""}`).name;
  const contact = {
    clientId: client.id,
    ref: await freeRef(work, "contacts", client.id, "c"),
    name: `${client.name}, ${where}`,
    country,
    region,
    taxNumber: number,
    registered: true,
  };
  const row = await work.models.contacts.create({ ...contact, ...work.made }, work.options);
  await work.record({ action: "create", entity: "contact", id: row.id, after: contact });
  return row.id;
}

async function accountBetween(work: Writing, { client, plain }: ClientSetup): Promise<string> {
  const known = plain.accounts.find(({ topic }) => topic === BETWEEN);
  if (known) return known.code;
  const taken = new Set(plain.accounts.map(({ code }) => code));
  let number = 1080;
  while (taken.has(String(number))) number += 1;
  const account = {
    clientId: client.id,
    code: String(number),
    name: "Stock between our registrations",
    type: "asset" as const,
    role: null,
    levy: null,
    region: null,
    topic: BETWEEN,
    usualCode: null,
  };
  const row = await work.models.accounts.create({ ...account, ...work.made }, work.options);
  await work.record({ action: "create", entity: "account", id: row.id, after: account });
  return account.code;
}
