import { caller } from "./caller.ts";
import type { Caller } from "./caller.ts";
import { closeBooks } from "./closeBooks.ts";
import { closePeriod } from "./closePeriod.ts";
import { honeygumMeadery } from "./honeygumMeadery.ts";
import { falajIrrigation } from "./falajIrrigation.ts";
import { juniperLane } from "./juniperLane.ts";
import { larkspurStrings } from "./larkspurStrings.ts";
import { monsoonLooms } from "./monsoonLooms.ts";
import { KARNATAKA_VAT } from "./karnatakaVat.ts";
import { closeOldBooks } from "./monsoonOldBooks.ts";
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
  await lateBill(call, client.id, quarters[3]?.to ?? today);
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
  for (const [index, book] of books.entries())
    await closeBooks(call, await loadBook(call, book), { behind: index === BEHIND ? 2 : 1, today });
  await call("PUT", `/jurisdictions/${KARNATAKA_VAT.id}`, KARNATAKA_VAT);
  const monsoon = await loadBook(call, monsoonLooms(ending, today));
  await closeOldBooks(call, monsoon);
  await closeBooks(call, monsoon, { behind: 1, today });
}

/** Whose papers come late: two periods wait. */
const BEHIND = 3;

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

/** A bill that turned up after its quarter was filed: a late item of the quarter that is due. */
async function lateBill(call: Caller, clientId: number, filedEnd: string): Promise<void> {
  const contacts = await call<{ id: number; name: string }[]>(
    "GET",
    `/clients/${clientId}/contacts?search=Fennimore`,
  );
  await call("POST", `/clients/${clientId}/documents`, {
    kind: "purchase-bill",
    number: "FG-LATE-9",
    date: addDays(filedEnd, -11),
    contact: contacts[0]?.id,
    prices: "exclusive",
    lines: [{ text: "Kiln gas, bill found in a drawer", amount: "266.30", code: "S20", account: "6100" }],
  });
}
