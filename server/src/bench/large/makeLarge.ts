import { cpSync } from "node:fs";
import { join } from "node:path";
import { addDays } from "@fiscalon/core/calendar/date";
import { at } from "@fiscalon/core/at";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { Writing } from "../../base/work.ts";
import { createClient } from "../../books/createClient.ts";
import { benchClient } from "../benchBooks.ts";
import { postDocuments } from "../../books/documents/postDocuments.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { postPayments } from "../../books/payments/postPayments.ts";
import { folderOfClient } from "../../practice/clientFolder.ts";
import { Practice } from "../../practice/practice.ts";

/** Quarters of the large client; the last one ends with 2026. */
export const QUARTERS = 20;
const A_QUARTER = 25_000;
const AN_AGED_QUARTER = 5_000;
const CONTACTS = 2_000;
const SLICE = 5_000;
/** Quarters at the end whose invoices nobody has paid yet. */
const UNPAID = 2;
const CODES = ["S20", "R5", "Z", "EX"];

/** A practice with a client of a million tax facts and as many neighbours as asked for, and how long that took. */
export interface LargePractice {
  client: number;
  seconds: number;
}

/** @param neighbours clients with a thousand documents each: one is posted, the others are copies of its folder */
export async function makeLarge(
  dataDir: string,
  neighbours: number,
  quarters = QUARTERS,
): Promise<LargePractice> {
  const start = performance.now();
  const practice = await Practice.open(dataDir, "Bench");
  const client = await benchClient(practice, "Large", (work, id) => fill(work, id, quarters, A_QUARTER));
  await addNeighbours(practice, neighbours);
  await practice.close();
  return { client, seconds: (performance.now() - start) / 1000 };
}

/** A practice with a client of each of these ages, in years, all with equal quarters, and neighbours beside them. */
export async function makeAged(
  dataDir: string,
  years: readonly number[],
  neighbours: number,
): Promise<number[]> {
  const practice = await Practice.open(dataDir, "Bench");
  const clients: number[] = [];
  for (const age of years) {
    const from = `${2027 - age}-01-01`;
    const filled = (work: Writing, id: number) => fill(work, id, age * 4, AN_AGED_QUARTER);
    clients.push(await benchClient(practice, `${age} years`, filled, from));
  }
  await addNeighbours(practice, neighbours);
  await practice.close();
  return clients;
}

async function addNeighbours(practice: Practice, count: number): Promise<void> {
  if (count === 0) return;
  const first = await benchClient(practice, "Neighbour", (work, id) => fill(work, id, 4, 250));
  for (let n = 1; n < count; n += 1) await copy(practice, first, `Neighbour ${n}`);
}

/** A client is a folder: a neighbour more is a copy of one. */
async function copy(practice: Practice, from: number, name: string): Promise<void> {
  const { client } = await practice.make(await practice.begin(), {
    name,
    fill: (books, id) => createClient(books, id, { name, country: "GB" }),
  });
  await practice.closeClient(client);
  await practice.closeClient(from);
  cpSync(join(practice.dataDir, folderOfClient(from)), join(practice.dataDir, folderOfClient(client)), {
    recursive: true,
  });
}

async function fill(work: Writing, clientId: number, quarters: number, aQuarter: number): Promise<void> {
  const contacts = await work.models.contacts.bulkCreate(
    Array.from({ length: CONTACTS }, (_, n) => ({
      clientId,
      ref: `c${n}`,
      name: `${["North", "Harbour", "Mill", "Orchard"][n % 4] ?? ""} Traders ${n}`,
      country: "GB",
      ...work.made,
    })),
    work.options,
  );
  const ids = contacts.map(({ id }) => id);
  const setup = await loadSetup(work, clientId);
  for (let quarter = 0; quarter < quarters; quarter += 1)
    for (let from = 0; from < aQuarter; from += SLICE) {
      const count = Math.min(SLICE, aQuarter - from);
      const documents = Array.from({ length: count }, (_, n) =>
        document(quarter + QUARTERS - quarters, from + n, ids),
      );
      const posted = await postDocuments(work, setup, documents);
      if (quarter < quarters - UNPAID) await pay(work, setup, posted);
    }
}

/** What is on credit is paid a month later, what was credited paid back. */
async function pay(work: Writing, setup: ClientSetup, posted: readonly number[]): Promise<void> {
  const open = await work.rows<{
    id: number;
    kind: DocumentKind;
    date: string;
    contact: number;
    open: number;
  }>(
    `SELECT id, kind, date, contact_id AS contact, open_amount AS open FROM documents
     WHERE id BETWEEN $1 AND $2 AND open_amount > 0`,
    [posted[0], posted.at(-1)],
  );
  await postPayments(
    work,
    setup,
    open.map((one) => ({
      kind: one.kind === "sales-invoice" ? "receipt" : "payment",
      number: `P${one.id}`,
      date: addDays(one.date, 30),
      contact: one.contact,
      account: null,
      currency: "GBP",
      amount: one.open,
      base: one.open,
      reference: "",
      note: "",
      allocations: [{ document: one.id, amount: one.open, difference: 0, differenceAccount: null }],
    })),
  );
}

/** A quarter on credit, the rest over the counter; one sale in twenty is a credit note. */
function kindOf(n: number): DocumentKind {
  const onCredit = n % 4 === 0;
  if (n % 3 === 0) return onCredit ? "purchase-bill" : "expense";
  if (n % 20 === 1) return "sales-credit-note";
  return onCredit ? "sales-invoice" : "cash-sale";
}

function document(quarter: number, n: number, contacts: readonly number[]): NewDocument {
  const kind = kindOf(n);
  const month = 1 + (((quarter % 4) + 4) % 4) * 3 + (n % 3);
  const line = (k: number) => ({
    amount: `${10 + ((n * 31 + k) % 900)}.${10 + (n % 90)}`,
    code: CODES[(n + k) % 4] ?? "S20",
    text: `Delivery ${n}`,
  });
  return {
    input: {
      kind,
      number: `D${quarter}-${n}`,
      date: `${2022 + Math.floor(quarter / 4)}-${String(month).padStart(2, "0")}-${10 + (n % 19)}`,
      prices: "exclusive",
      lines: [line(0), line(1)],
    },
    contact: at(contacts, (n * 17) % contacts.length),
    place: null,
  };
}
