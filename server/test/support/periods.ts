import { expect } from "vitest";
import { at } from "@fiscalon/core/at";
import type { Basis } from "@fiscalon/core/model/basis";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";
import type { ReturnView } from "@fiscalon/contract/returns";
import { nextVatNumber } from "./testServer.ts";
import type { TestServer } from "./testServer.ts";

export interface Country {
  pack: string;
  country: string;
  region?: string;
  levies?: string[];
  frequency: string;
  anchor: string;
  /** Invented, with the check digits of the country. */
  number: string;
  basis?: Basis;
  options?: Record<string, string>;
}

/** Great Britain by the quarter, with an invented number of its own. */
export const british = (more: Partial<Country> = {}): Country => ({
  pack: "gb",
  country: "GB",
  frequency: "quarterly",
  anchor: "2026-03-31",
  number: nextVatNumber(),
  ...more,
});

export type Row = [kind: DocumentKind, code: string, amount: string, more?: Record<string, unknown>];

export const INCLUSIVE = { prices: "inclusive" };

/** Books of a client with a period of its own: post, correct, seal, and read boxes. */
export async function periodBooks(
  server: TestServer,
  { pack, country, region, levies, frequency, anchor, number, basis, options }: Country,
  from = "2026-01-01",
) {
  const client = await server.ok<{ id: number; registrations: { id: number }[] }>("POST", "/clients", {
    name: `A period in ${country}`,
    country,
    place: { name: "Shop", country, region: region ?? null },
    registration: {
      pack,
      from,
      frequency,
      anchor,
      ...(levies ? { levies } : {}),
      ...(basis ? { basis } : {}),
      ...(options ? { options } : {}),
      number,
    },
  });
  const base = `/clients/${client.id}`;
  const registration = `${base}/registrations/${at(client.registrations, 0).id}`;
  const contacts = new Map<string, number>();
  const contactOf = async (where: string, consumer: boolean): Promise<number> => {
    const key = consumer ? `consumer in ${where}` : where;
    const known = contacts.get(key);
    if (known !== undefined) return known;
    const [land = country, part = null] = where.split("-");
    const { id } = await server.ok<{ id: number }>("POST", `${base}/contacts`, {
      name: consumer ? `Consumer in ${where}` : `Party in ${where}`,
      country: land,
      region: part,
      registered: !consumer,
    });
    contacts.set(key, id);
    return id;
  };
  let count = 0;
  const bodyOf = async ([kind, code, amount, more = {}]: Row, date: string) => {
    const {
      with: where = region ? `${country}-${region}` : country,
      consumer = false,
      prices = "exclusive",
      corrects = null,
      ...line
    } = more;
    count += 1;
    return {
      kind,
      date,
      prices,
      number: `P-${count}`,
      contact: await contactOf(String(where), consumer === true),
      ...(corrects === null ? {} : { corrects }),
      lines: [{ code, amount, ...line }],
    };
  };
  const post = async (row: Row, date: string) => {
    const body = await bodyOf(row, date);
    const { id } = await server.ok<{ id: number }>("POST", `${base}/documents`, body);
    return { id, number: body.number };
  };
  return {
    base,
    registration,
    post,
    /** Posted with one amount, corrected to another. */
    correct: async ([kind, code, wrong, more]: Row, right: string, date: string) => {
      const first = await bodyOf([kind, code, wrong, more], date);
      const { id } = await server.ok<{ id: number }>("POST", `${base}/documents`, first);
      await server.ok("PUT", `${base}/documents/${id}`, {
        ...first,
        lines: first.lines.map((line) => ({ ...line, amount: right })),
      });
    },
    /** Money for one document, from the customer or to the supplier. */
    pay: async ({ id }: { id: number }, amount: string, date: string) => {
      const { contact, input } = await server.ok<{
        contact: { id: number } | null;
        input: { kind: DocumentKind };
      }>("GET", `${base}/documents/${id}`);
      await server.ok("POST", `${base}/payments`, {
        kind: DOCUMENT_KINDS[input.kind].direction === "sale" ? "receipt" : "payment",
        date,
        amount,
        contact: contact?.id ?? null,
        allocations: [{ document: id, amount }],
      });
    },
    /** Changes the registration. */
    change: (body: object) => server.call("PUT", registration, body),
    /** What is on the form, as text in major units; boxes that hold nothing are left out. */
    boxes: async (end: string): Promise<Record<string, string>> => {
      const view = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
      const minor = view.boxes.filter(({ amount }) => amount !== 0);
      return Object.fromEntries(
        minor.map(({ id, amount }) => [id, (amount / 100).toFixed(2).replace(/\.00$/, "")]),
      );
    },
    seal: async (end: string) => {
      const { findings } = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
      for (const { key, accepted } of findings)
        if (!accepted)
          await server.ok("POST", `${registration}/returns/${end}/acceptances`, { key, reason: "looked at" });
      await server.ok("POST", `${registration}/returns/${end}/seal`);
    },
    /** Files by hand or to the simulator, and posts the closing entry. */
    settle: async (end: string) => {
      await server.ok("POST", `${registration}/returns/${end}/file`, {
        declared: true,
        reference: "by hand",
      });
      await server.ok("POST", `${registration}/settlements/${end}`);
    },
    /** The book file of the client makes a client whose book file is the same. */
    expectSameAfterBookFile: async (): Promise<{ id: number }> => {
      const book = await server.ok<object>("GET", `${base}/book`);
      const copy = await server.ok<{ id: number }>("POST", "/books", book);
      expect(await server.ok("GET", `/clients/${copy.id}/book`)).toEqual(book);
      return copy;
    },
    /** What the ledger and the return do not agree in. */
    left: async (end: string): Promise<number> =>
      (await server.ok<{ left: number }>("GET", `${registration}/agreements/${end}/control`)).left,
  };
}

/**
 * Posts the rows on a day, corrects one, and gives the boxes of the period; seals, files and settles it. What is sealed
 * stays, and the ledger agrees with the return before and after.
 */
export async function lived(
  server: TestServer,
  where: Country,
  day: string,
  end: string,
  rows: Row[],
  wrong: Row,
  right: string,
) {
  const client = await periodBooks(server, where);
  for (const row of rows) await client.post(row, day);
  await client.correct(wrong, right, day);
  const boxes = await client.boxes(end);
  await client.seal(end);
  expect(await client.left(end)).toBe(0);
  await client.settle(end);
  expect(await client.boxes(end)).toEqual(boxes);
  expect(await client.left(end)).toBe(0);
  return { ...client, first: boxes };
}
