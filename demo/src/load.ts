import { caller } from "./caller.ts";
import type { Caller } from "./caller.ts";
import { closeBooks } from "./closeBooks.ts";
import { closePeriod } from "./closePeriod.ts";
import { honeygumMeadery } from "./honeygumMeadery.ts";
import { falajIrrigation } from "./falajIrrigation.ts";
import { juniperLane } from "./juniperLane.ts";
import { larkspurStrings } from "./larkspurStrings.ts";
import { chargeJanuary } from "./monsoonCollections.ts";
import { furnishMonths, monthEnd } from "./monsoonFurnished.ts";
import { monsoonLooms } from "./monsoonLooms.ts";
import { KARNATAKA_VAT } from "./karnatakaVat.ts";
import { closeOldBooks } from "./monsoonOldBooks.ts";
import { payOpenItems } from "./payOpenItems.ts";
import { prairieLamp } from "./prairieLamp.ts";
import { pukekoPhysio } from "./pukekoPhysio.ts";
import { quillon } from "./quillon.ts";
import { tamarackSigns } from "./tamarackSigns.ts";
import { nimbusRidge } from "./nimbusRidge.ts";
import { addDays, calendarQuartersAround, quartersAround } from "./quarters.ts";
import { saltmarshFeeds } from "./saltmarshFeeds.ts";
import { saltmarshKiln } from "./saltmarshKiln.ts";

/** Creates the demonstration practice through the public API of a running server. */
export async function loadDemo(address: string): Promise<void> {
  const call = caller(`${address}/api`);
  const today = new Date().toISOString().slice(0, 10);
  const quarters = quartersAround(today);
  const saltmarsh = await loadBook(call, saltmarshKiln(quarters, today));
  const client = await call<{ id: number; registrations: { id: number }[] }>("GET", `/clients/${saltmarsh}`);
  const base = `/clients/${client.id}/registrations/${client.registrations[0]?.id}`;
  for (const [index, quarter] of quarters.slice(0, 4).entries()) {
    await closePeriod(call, base, quarter.to, {
      reason: "Checked against the paper last quarter.",
      settle: index < 3,
    });
  }
  await late(call, client.id, "Fennimore", {
    kind: "purchase-bill",
    number: "FG-LATE-9",
    date: addDays(quarters[3]?.to ?? today, -11),
    lines: [{ text: "Kiln gas, bill found in a drawer", amount: "266.30", code: "S20", account: "6100" }],
  });
  const due = quarters[4];
  if (due) await saltmarshFeeds(call, caller(`${address}/simulators`), client.id, due, today);
  const ending = calendarQuartersAround(today);
  const books = [
    nimbusRidge(quarters, today),
    tamarackSigns(ending, today),
    honeygumMeadery(ending, today),
    larkspurStrings(quarters, today),
    quillon(quarters, today),
    juniperLane(ending, today),
    falajIrrigation(ending, today),
    prairieLamp(ending, today),
    pukekoPhysio(ending, today),
  ];
  for (const [index, book] of books.entries()) {
    const id = await loadBook(call, book);
    await payOpenItems(call, id, today);
    await closeBooks(call, id, { behind: index === BEHIND ? 2 : 1, today });
    if (index === FORGETFUL) await late(call, id, "", forgottenSale(quarters[2]?.to ?? today));
  }
  await call("PUT", `/jurisdictions/${KARNATAKA_VAT.id}`, KARNATAKA_VAT);
  const monsoon = await loadBook(call, monsoonLooms(ending, today));
  await chargeJanuary(call, monsoon);
  await payOpenItems(call, monsoon, today);
  await closeOldBooks(call, monsoon);
  await closeBooks(call, monsoon, { behind: 1, today });
  await furnishMonths(call, monsoon, monthEnd(today, -1));
}

/** Whose papers come late: two periods wait. */
const BEHIND = 3;
/** Who forgot a sale: an error above what may go on a later return. */
const FORGETFUL = 3;

/** A cello sold in a quarter that was filed long ago, without an invoice: more tax than a later return may correct. */
function forgottenSale(filedEnd: string): object {
  return {
    kind: "sales-invoice",
    number: "LS-FOUND-1",
    date: addDays(filedEnd, -25),
    lines: [
      {
        text: "Cello, sold at the fair and never invoiced",
        amount: "58400.00",
        code: "S20",
        account: "4000",
      },
    ],
  };
}

interface BookJob {
  id: number;
  state: string;
  error: { message: string } | null;
  result: { client: number } | null;
}

/** A long book is loaded by a job; this waits for its end. Returns the id of the client. */
async function loadBook(call: Caller, book: object): Promise<number> {
  const answer = await call<{ id?: number; job?: BookJob }>("POST", "/books", book);
  let { job } = answer;
  while (job && (job.state === "running" || job.state === "waiting")) {
    await new Promise((later) => setTimeout(later, 250));
    job = await call("GET", `/jobs/${job.id}`);
  }
  if (job?.error) throw new Error(job.error.message);
  return answer.id ?? job?.result?.client ?? 0;
}

/** A document that turned up after its quarter was filed: a late item of the quarter that is due. */
async function late(call: Caller, clientId: number, party: string, document: object): Promise<void> {
  const { rows: contacts } = await call<{ rows: { id: number }[] }>(
    "GET",
    `/clients/${clientId}/contacts?search=${party}`,
  );
  await call("POST", `/clients/${clientId}/documents`, {
    prices: "exclusive",
    contact: contacts[0]?.id,
    ...document,
  });
}
