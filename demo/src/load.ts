import { caller } from "./caller.ts";
import type { Caller } from "./caller.ts";
import { honeygumMeadery } from "./honeygumMeadery.ts";
import { falajIrrigation } from "./falajIrrigation.ts";
import { juniperLane } from "./juniperLane.ts";
import { larkspurStrings } from "./larkspurStrings.ts";
import { monsoonLooms } from "./monsoonLooms.ts";
import { prairieLamp } from "./prairieLamp.ts";
import { pukekoPhysio } from "./pukekoPhysio.ts";
import { quillon } from "./quillon.ts";
import { tamarackSigns } from "./tamarackSigns.ts";
import { nimbusRidge } from "./nimbusRidge.ts";
import { addDays, calendarQuartersAround, quartersAround } from "./quarters.ts";
import { saltmarshFeeds } from "./saltmarshFeeds.ts";
import { saltmarshKiln } from "./saltmarshKiln.ts";

interface Finding {
  key: string;
  severity: "stop" | "check";
  accepted: object | null;
}

/** Creates the demonstration practice through the public API of a running server. */
export async function loadDemo(address: string): Promise<void> {
  const call = caller(`${address}/api`);
  const today = new Date().toISOString().slice(0, 10);
  const quarters = quartersAround(today);
  const client = await call<{ id: number; registrations: { id: number }[] }>(
    "POST",
    "/books",
    saltmarshKiln(quarters, today),
  );
  const base = `/clients/${client.id}/registrations/${client.registrations[0]?.id}`;
  for (const [index, quarter] of quarters.slice(0, 4).entries()) {
    const period = `${base}/returns/${quarter.to}`;
    const { findings } = await call<{ findings: Finding[] }>("GET", period);
    for (const finding of findings.filter((one) => one.accepted === null)) {
      await call("POST", `${period}/acceptances`, {
        key: finding.key,
        reason: "Checked against the paper last quarter.",
      });
    }
    await call("POST", `${period}/seal`);
    const filed = await call<{ net: number; due: string }>("POST", `${period}/file`, { declared: true });
    if (index === 3) break;
    const settlement = `${base}/settlements/${quarter.to}`;
    await call("POST", settlement);
    await call("POST", `${settlement}/payments`, {
      date: addDays(filed.due, -2),
      kind: filed.net < 0 ? "refund" : "payment",
      amount: (Math.abs(filed.net) / 100).toFixed(2),
      reference: "bank transfer",
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
    monsoonLooms(ending, today),
  ];
  for (const book of books) await loadBook(call, book);
}

/** A long book is loaded by a job; this waits for its end. */
async function loadBook(call: Caller, book: object): Promise<void> {
  let { job } = await call<{ job?: { id: number; state: string; error: { message: string } | null } }>(
    "POST",
    "/books",
    book,
  );
  while (job && (job.state === "running" || job.state === "waiting")) {
    await new Promise((later) => setTimeout(later, 250));
    job = await call("GET", `/jobs/${job.id}`);
  }
  if (job?.error) throw new Error(job.error.message);
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
