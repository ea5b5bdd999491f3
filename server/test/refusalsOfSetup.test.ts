import { afterAll, beforeAll, describe, test } from "vitest";
import { refusedWithoutTrace } from "./support/refused.ts";
import type { RefusedCase } from "./support/refused.ts";
import {
  GB_CLIENT,
  clientsOf,
  document,
  newClient,
  nextVatNumber,
  startServer,
} from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
let base: string;
let registration: string;
beforeAll(async () => {
  server = await startServer();
  ({ base, registration } = await newClient(server));
  await server.ok(
    "POST",
    `${base}/documents`,
    document("sales-invoice", "2026-02-03", [{ amount: "1.00", code: "S20" }]),
  );
  await server.ok("POST", `${registration}/returns/2025-12-31/seal`).catch(() => undefined);
});
afterAll(() => server.close());

const registered =
  (more: object, country = "GB") =>
  () =>
    server.call("POST", "/clients", {
      name: "Refused Ltd",
      country,
      registration: { ...GB_CLIENT.registration, number: nextVatNumber(), ...more },
    });

describe("a client that cannot be", () => {
  const cases: RefusedCase[] = [
    [
      "in a country without a pack, without a currency",
      "client/no-currency",
      "currency",
      () => server.call("POST", "/clients", { name: "Far away", country: "AQ" }),
    ],
    [
      "in a currency that is none",
      "money/unknown-currency",
      "currency",
      () => server.call("POST", "/clients", { name: "Coins", country: "GB", currency: "XQQ" }),
    ],
    ["of a pack nobody knows", "jurisdiction/unknown-pack", "registration.pack", registered({ pack: "zz" })],
    [
      "for a levy of another country",
      "registration/unknown-levy",
      "registration.levies",
      registered({ levies: ["GST"] }),
    ],
    ["ending before it begins", "registration/dates", "registration.to", registered({ to: "2024-12-31" })],
    [
      "with a number whose check digits do not fit",
      "registration/bad-number",
      "registration.number",
      registered({ number: "123456783" }),
    ],
    [
      "on a basis the law does not have",
      "registration/basis",
      "registration.basis",
      registered({ basis: "hybrid" }),
    ],
    [
      "with an option it does not offer",
      "registration/option",
      "registration.options.creditNotes",
      registered({ options: { creditNotes: "netted" } }),
    ],
    [
      "with a rhythm that needs to say when",
      "registration/no-anchor",
      "registration.anchor",
      registered({ frequency: "two-monthly", anchor: undefined }),
    ],
    [
      "whose rhythm changes before it begins",
      "registration/rhythm-change",
      "registration.changes",
      registered({
        changes: [{ from: "2024-06-01", frequency: "monthly", anchor: "2024-06-30" }],
      }),
    ],
    [
      "whose rhythm changes twice on a day",
      "registration/rhythm-change",
      "registration.changes",
      registered({
        changes: [1, 2].map(() => ({ from: "2026-06-01", frequency: "monthly", anchor: "2026-06-30" })),
      }),
    ],
    [
      "in a region the country lacks",
      "place/unknown-region",
      "place.region",
      () =>
        server.call("POST", "/clients", {
          name: "Lost",
          country: "CA",
          place: { name: "Shop", country: "CA", region: "XX" },
        }),
    ],
  ];
  test.each(cases)("%s", async (...given) => refusedWithoutTrace(given, () => clientsOf(server)));
});

describe("set-up that cannot be", () => {
  const rule = {
    id: "r1",
    direction: "sale",
    taxClass: "standard",
    supply: "any",
    from: "any",
    to: "home",
    party: "any",
    validFrom: null,
    validTo: null,
    code: "S20",
    words: "because",
    source: "the practice",
  };
  const cases: RefusedCase[] = [
    [
      "an account whose number is taken",
      "account/duplicate-number",
      "code",
      () => server.call("POST", `${base}/accounts`, { code: "4000", name: "Again", type: "income" }),
    ],
    [
      "an account that is not there",
      "request/not-found",
      undefined,
      () => server.call("PUT", `${base}/accounts/9999`, { code: "9999", name: "Nowhere", type: "income" }),
    ],
    [
      "a second registration of the levy at the same time",
      "registration/overlap",
      "from",
      () =>
        server.call("POST", `${base}/registrations`, {
          ...GB_CLIENT.registration,
          number: nextVatNumber(),
          from: "2026-06-01",
        }),
    ],
    [
      "another end of a registration within a sealed period",
      "registration/sealed",
      "from",
      () => server.call("PUT", registration, { to: "2025-11-30" }),
    ],
    [
      "another basis that the law does not have",
      "registration/basis",
      "basis",
      () => server.call("PUT", registration, { basis: "hybrid" }),
    ],
    [
      "a code that is there already",
      "code/duplicate",
      "code",
      async () => {
        const { codes } = await server.ok<{ codes: { code: string }[] }>("GET", `${base}/setup`);
        return server.call(
          "POST",
          `${base}/codes`,
          codes.find(({ code }) => code === "R5"),
        );
      },
    ],
    [
      "a code made default on the other side",
      "code/wrong-side",
      "side",
      () => server.call("POST", `${base}/codes/RCS/default`, { side: "sale", scope: "new" }),
    ],
    [
      "a code to change that is not there",
      "request/not-found",
      undefined,
      () => server.call("DELETE", `${base}/codes/NEVER`),
    ],
    [
      "codes as CSV without its columns",
      "codes/columns",
      "file",
      () => server.call("POST", `${base}/codes/import`, { csv: "code;name\nA;B\n" }),
    ],
    [
      "a rule that leads to no code",
      "supply/unknown-code",
      "rules[0].code",
      () => server.call("PUT", `${base}/rules`, { rules: [{ ...rule, code: "NEVER" }] }),
    ],
    [
      "a rule that leads to a code of the other side",
      "supply/unknown-code",
      "rules[0].code",
      () => server.call("PUT", `${base}/rules`, { rules: [{ ...rule, code: "RCS" }] }),
    ],
    [
      "rates that overlap",
      "tax/overlapping-rates",
      "schedules.gb.STD[1].from",
      () =>
        server.call("PUT", `${base}/schedules/gb.STD`, {
          rows: [
            { from: "2011-01-04", to: null, rate: "20", source: "law" },
            { from: "2026-01-01", to: null, rate: "21", source: "rumour" },
          ],
        }),
    ],
    [
      "a rate that ends before it begins",
      "tax/bad-rate-row",
      "schedules.gb.STD[0].from",
      () =>
        server.call("PUT", `${base}/schedules/gb.STD`, {
          rows: [{ from: "2026-02-01", to: "2026-01-31", rate: "20", source: "" }],
        }),
    ],
    [
      "a contact in a region the country lacks",
      "place/unknown-region",
      "region",
      () => server.call("POST", `${base}/contacts`, { name: "Lost", country: "CA", region: "XX" }),
    ],
    [
      "a contact whose usual code is none",
      "tax/unknown-code",
      "saleCode",
      () => server.call("POST", `${base}/contacts`, { name: "Reed", saleCode: "NEVER" }),
    ],
    [
      "a contact whose usual code is of the other side",
      "code/wrong-side",
      "saleCode",
      () => server.call("POST", `${base}/contacts`, { name: "Reed", saleCode: "RCS" }),
    ],
    [
      "an item on an account that is not there",
      "ledger/unknown-account",
      "saleAccount",
      () => server.call("POST", `${base}/items`, { name: "Bowl", saleAccount: "9999" }),
    ],
    [
      "an item whose price is none",
      "request/invalid",
      "unitPrice",
      () => server.call("POST", `${base}/items`, { name: "Bowl", unitPrice: "dear" }),
    ],
    [
      "an account whose usual code is none",
      "tax/unknown-code",
      "usualCode",
      () =>
        server.call("POST", `${base}/accounts`, {
          code: "4711",
          name: "Kiln",
          type: "income",
          usualCode: "NEVER",
        }),
    ],
    [
      "a place whose usual code is none",
      "tax/unknown-code",
      "purchaseCode",
      () => server.call("POST", `${base}/places`, { name: "Stall", country: "GB", purchaseCode: "NEVER" }),
    ],
    [
      "a contact that is not there",
      "request/not-found",
      undefined,
      () => server.call("PUT", `${base}/contacts/999999`, { name: "Nobody" }),
    ],
    [
      "an item that is not there",
      "request/not-found",
      undefined,
      () => server.call("PUT", `${base}/items/999999`, { name: "Nothing" }),
    ],
    [
      "a place that is not there",
      "request/not-found",
      undefined,
      () => server.call("PUT", `${base}/places/999999`, { name: "Nowhere" }),
    ],
    [
      "a template that is not there",
      "request/not-found",
      undefined,
      () => server.call("DELETE", `${base}/templates/999999`),
    ],
  ];
  test.each(cases)("%s", async (...given) =>
    refusedWithoutTrace(given, () => server.ok("GET", `${base}/setup`)),
  );
});
