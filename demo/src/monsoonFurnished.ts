import type { Caller } from "./caller.ts";
import { inventedGstin } from "./monsoonLooms.ts";
import { Random } from "./random.ts";

interface Bill {
  id: number;
  number: string;
  date: string;
  party: string;
  net: number;
  tax: number;
}

interface Supplier {
  name: string;
  taxNumber: string | null;
}

interface Furnished {
  ctin: string;
  trdnm: string;
  number: string;
  date: string;
  net: number;
  tax: number;
  crossing: boolean;
  available: boolean;
}

const OWN_STATE = "29";
const MONTHS = 9;

/** The registration of the looms under GST; the older one is under an own jurisdiction. */
async function registrationOf(call: Caller, client: number): Promise<number> {
  const { registrations } = await call<{ registrations: { id: number; pack: string }[] }>(
    "GET",
    `/clients/${client}`,
  );
  return registrations.find(({ pack }) => pack === "in")?.id ?? 0;
}

/**
 * What suppliers furnished, for nine months up to the one that is due: some 2,000 bills. Earlier months agree but for a
 * few and are decided; of the last one every outcome is left to be looked at.
 */
export async function furnishMonths(call: Caller, client: number, due: string): Promise<void> {
  const registration = await registrationOf(call, client);
  const { rows: contacts } = await call<{ rows: Supplier[] }>("GET", `/clients/${client}/contacts?limit=500`);
  const numbers = new Map(contacts.map(({ name, taxNumber }) => [name, taxNumber ?? ""]));
  const own = await call<{ registrations: { id: number; number: string }[] }>("GET", `/clients/${client}`);
  const number = own.registrations.find(({ id }) => id === registration)?.number ?? "";
  const random = new Random(20_261_114);
  for (let back = MONTHS - 1; back >= 0; back -= 1) {
    const end = monthEnd(due, -back);
    if (back === 0) await keyTwice(call, client, end);
    const bills = await billsOf(call, client, end);
    const once = bills.filter((bill, at) => bills.findIndex(({ number }) => number === bill.number) === at);
    const listed = once.flatMap((bill) => furnished(bill, numbers.get(bill.party) ?? ""));
    const told = back === 0 ? troubled(listed, random) : listed.filter((_, at) => at % 90 !== 41);
    const file = statementOf(number, end, told);
    const path = `/clients/${client}/registrations/${registration}/statements?kind=furnished&period=${end}`;
    const { id } = await call.upload<{ id: number }>(
      path,
      `GSTR-2B ${end.slice(0, 7)}.json`,
      JSON.stringify(file),
    );
    const one = `/clients/${client}/statements/${id}`;
    await call("POST", `${one}/match`);
    if (back > 0) await decideAll(call, one);
  }
}

/** Accepts what agrees, and lets the rest wait for the list of the month after. */
async function decideAll(call: Caller, one: string): Promise<void> {
  await call("POST", `${one}/accept`);
  const { rows } = await call<{ rows: { id: number; decision: object | null; outcome: string }[] }>(
    "GET",
    `${one}/lines?limit=500`,
  );
  const open = rows.filter(({ decision, outcome }) => decision === null && outcome !== "ineligible");
  const reason = "asked the supplier";
  if (open.length > 0)
    await call("POST", `${one}/decisions`, { lines: open.map(({ id }) => id), decision: "wait", reason });
}

async function billsOf(call: Caller, client: number, end: string): Promise<Bill[]> {
  const { rows } = await call<{ rows: Bill[] }>(
    "GET",
    `/clients/${client}/documents?kind=purchase-bill&from=${end.slice(0, 7)}-01&to=${end}&limit=500`,
  );
  return rows;
}

/** One bill of the month is keyed a second time. */
async function keyTwice(call: Caller, client: number, end: string): Promise<void> {
  const [bill] = (await billsOf(call, client, end)).filter(({ number }) => number.startsWith("Y-"));
  if (!bill) return;
  const { input, contact, place } = await call<{
    input: { kind: string; number: string; date: string; prices: string; lines: object[] };
    contact: { id: number } | null;
    place: number | null;
  }>("GET", `/clients/${client}/documents/${bill.id}`);
  const { kind, number, date, prices, lines } = input;
  await call("POST", `/clients/${client}/documents`, {
    kind,
    number,
    date,
    prices,
    lines,
    place,
    contact: contact?.id,
    duplicateReason: "keyed from the copy of the mill",
  });
}

function furnished(bill: Bill, ctin: string): Furnished[] {
  if (ctin === "" || bill.tax === 0) return [];
  const crossing = !ctin.startsWith(OWN_STATE);
  return [{ ...bill, ctin, trdnm: bill.party, crossing, available: true }];
}

/** The list of the month that is due, with each way in which two sides can differ. */
function troubled(rows: readonly Furnished[], random: Random): Furnished[] {
  const told = rows.map((row) => ({ ...row, number: `${row.number}/26-27`.slice(0, 16) }));
  const result: Furnished[] = [];
  const retaxed = (row: Furnished, net: number): Furnished => ({
    ...row,
    net,
    tax: Math.round((net * row.tax) / row.net),
  });
  for (const [at, row] of told.entries()) {
    if (at % 18 === 3) continue;
    else if (at % 16 === 5) result.push({ ...row, tax: row.tax + 2 * random.whole(1, 40) });
    else if (at % 31 === 7) result.push(retaxed(row, swapped(row.net)));
    else if (at % 61 === 11) result.push({ ...row, tax: Math.round(row.net * 0.18) });
    else if (at % 20 === 9) result.push({ ...row, number: slipped(row.number) });
    else if (at % 35 === 13) result.push({ ...row, date: later(row.date, 3) });
    else if (at % 89 === 17) result.push({ ...row, crossing: !row.crossing });
    else if (at % 97 === 19) result.push(...inTwo(row));
    else if (at % 71 === 23) result.push({ ...row, available: false });
    else if (at % 101 === 29) result.push({ ...row, ctin: inventedGstin("27", row.ctin.slice(2, 12)) });
    else result.push(row);
    if (at % 150 === 31) result.push({ ...row });
    if (at % 26 === 15)
      result.push({ ...row, number: `K-${700 + at}`, net: row.net + 1200_00, tax: row.tax + 60_00 });
  }
  return result;
}

/** Two digits of an amount swapped, as when it is keyed. */
function swapped(net: number): number {
  const text = String(net);
  const turned = text.slice(0, 1) + (text[2] ?? "") + (text[1] ?? "") + text.slice(3);
  return turned === text ? net + 900 : Number(turned);
}

/** A digit of the running number mistyped. */
function slipped(number: string): string {
  return number.replace(/\d(?=\/)/, (digit) => String((Number(digit) + 3) % 10));
}

function inTwo(row: Furnished): Furnished[] {
  const half = { net: Math.floor(row.net / 2), tax: Math.floor(row.tax / 2) };
  return [
    { ...row, ...half, number: row.number.replace("/", "A/") },
    { ...row, net: row.net - half.net, tax: row.tax - half.tax, number: row.number.replace("/", "B/") },
  ];
}

/** The list in the published shape of the portal. */
function statementOf(gstin: string, end: string, rows: readonly Furnished[]): object {
  const parties = new Map<string, Furnished[]>();
  for (const row of rows) parties.set(row.ctin, [...(parties.get(row.ctin) ?? []), row]);
  const period = `${end.slice(5, 7)}${end.slice(0, 4)}`;
  return {
    data: {
      gstin,
      rtnprd: period,
      version: "1.0",
      gendt: dayFirst(later(end, 14)),
      docdata: {
        b2b: [...parties].map(([ctin, own]) => ({
          ctin,
          trdnm: own[0]?.trdnm,
          supfildt: dayFirst(later(end, 10)),
          supprd: period,
          inv: own.map(invoice),
        })),
      },
    },
  };
}

function invoice({ number, date, net, tax, crossing, available }: Furnished): object {
  const major = (minor: number) => minor / 100;
  const half = Math.round(tax / 2);
  return {
    inum: number,
    typ: "R",
    dt: dayFirst(date),
    val: major(net + tax),
    pos: OWN_STATE,
    rev: "N",
    itcavl: available ? "Y" : "N",
    rsn: available ? "" : "C",
    diffprcnt: 1,
    items: [
      {
        num: 1,
        rt: Math.round((tax / net) * 100),
        txval: major(net),
        igst: crossing ? major(tax) : 0,
        cgst: crossing ? 0 : major(half),
        sgst: crossing ? 0 : major(tax - half),
        cess: 0,
      },
    ],
  };
}

function later(date: string, days: number): string {
  return new Date(Date.parse(date) + days * 86_400_000).toISOString().slice(0, 10);
}

function dayFirst(date: string): string {
  return date.split("-").reverse().join("-");
}

/** The last day of a month so many months later. */
export function monthEnd(date: string, months: number): string {
  return new Date(Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) + months, 0))
    .toISOString()
    .slice(0, 10);
}
