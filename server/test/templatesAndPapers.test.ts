import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { at } from "@fiscalon/core/at";
import type { TemplateView } from "@fiscalon/contract/templates";
import type { AttachmentView } from "@fiscalon/contract/views";
import { expectRefusal } from "./support/refused.ts";
import { document, newClient, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";
import { day } from "./support/world.ts";

let server: TestServer;
let base: string;
let landlord: number;
beforeAll(async () => {
  server = await startServer();
});
beforeEach(async () => {
  ({ base } = await newClient(server));
  landlord = (
    await server.ok<{ id: number }>("POST", `${base}/contacts`, { name: "Landlord", country: "GB" })
  ).id;
});
afterAll(() => server.close());

const rent = (more: object = {}) => ({
  name: "Rent",
  document: document(
    "purchase-bill",
    day(40),
    [{ text: "Rent", amount: "500.00", code: "EX", account: "6000" }],
    {
      contact: landlord,
      number: "RENT",
    },
  ),
  ...more,
});
const keep = (body: object) => server.ok<TemplateView[]>("PUT", `${base}/templates`, body);
const bills = async () =>
  (
    await server.ok<{ rows: { date: string; gross: number }[] }>(
      "GET",
      `${base}/documents?kind=purchase-bill`,
    )
  ).rows;

describe("templates", () => {
  test("keep a document as it was, one a name, and drop it again", async () => {
    const [first] = await keep(rent());
    expect(first).toMatchObject({
      name: "Rent",
      kind: "purchase-bill",
      party: "Landlord",
      every: null,
      due: [],
      problem: null,
    });
    const again = await keep(rent({ every: "monthly", nextOn: day(-10) }));
    expect(again.map(({ name, every }) => [name, every])).toEqual([["Rent", "monthly"]]);
    expect(await bills()).toEqual([]);
    await server.ok("DELETE", `${base}/templates/${at(again, 0).id}`);
    expect(await server.ok("GET", `${base}/templates`)).toEqual([]);
  });

  test("are posted for each day that is due, once, and go on from there", async () => {
    const [kept] = await keep(rent({ every: "weekly", nextOn: day(15) }));
    expect(kept?.due).toEqual([day(15), day(8), day(1)]);
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 3, failed: 0 });
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 0, failed: 0 });
    expect((await bills()).map(({ date }) => date).sort()).toEqual([day(15), day(8), day(1)]);
    const [now] = await server.ok<TemplateView[]>("GET", `${base}/templates`);
    expect([now?.nextOn, now?.due]).toEqual([day(-6), []]);
  });

  test("end on their last day", async () => {
    await keep(rent({ every: "weekly", nextOn: day(15), until: day(8) }));
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 2, failed: 0 });
  });

  test("one that cannot be posted says why, holds up no other, and goes on once it is mended", async () => {
    const broken = rent({ name: "Broken", every: "weekly", nextOn: day(8) });
    const wrong = {
      ...broken,
      document: { ...broken.document, lines: [{ amount: "1.00", code: "EX", account: "9999" }] },
    };
    await keep(wrong);
    await keep(rent({ every: "weekly", nextOn: day(8) }));
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 2, failed: 1 });
    const told = await server.ok<TemplateView[]>("GET", `${base}/templates`);
    expect(told.map(({ name, problem }) => [name, problem === null])).toEqual([
      ["Broken", false],
      ["Rent", true],
    ]);
    expect(told[0]?.problem).toContain("9999");
    await keep(broken);
    expect(await server.ok("POST", `${base}/templates/post-due`)).toEqual({ posted: 2, failed: 0 });
    expect(await bills()).toHaveLength(4);
  });

  test.each([
    ["a rhythm without a day", { every: "monthly" }, "nextOn"],
    ["a rhythm nobody has", { every: "daily", nextOn: "2026-01-01" }, "every"],
    ["no name", { name: "" }, "name"],
    ["a day that does not exist", { every: "monthly", nextOn: "2026-02-30" }, "nextOn"],
  ])("%s is refused", async (_what, more, field) => {
    expectRefusal(await server.call("PUT", `${base}/templates`, rent(more)), "request/invalid", field);
  });

  test("what may be chosen is told in words", async () => {
    const answer = await server.call<{ error: { message: string } }>(
      "PUT",
      `${base}/templates`,
      rent({ every: "daily" }),
    );
    expect(answer.body.error.message).toBe("every must be weekly, monthly, quarterly or yearly.");
  });
});

describe("papers beside a document", () => {
  const PNG = Buffer.from("89504e470d0a1a0a00000000", "hex");
  let path: string;
  beforeEach(async () => {
    const { id } = await server.ok<{ id: number }>("POST", `${base}/documents`, rent().document);
    path = `${base}/documents/${id}/attachments`;
  });
  const papers = () => server.ok<AttachmentView[]>("GET", path);

  test("are kept byte for byte, told with who put them there, and served as what they are", async () => {
    await server.upload(path, "bill.png", PNG);
    await server.upload(path, "bill.xml", `<?xml version="1.0"?><Invoice/>`);
    const [png, xml] = await papers();
    expect([png?.name, png?.type, png?.bytes, png?.by]).toEqual([
      "bill.png",
      "image/png",
      PNG.length,
      "Test person",
    ]);
    const answer = await fetch(`${server.address}/api${base}/attachments/${png?.id}`);
    expect(answer.headers.get("content-type")).toBe("image/png");
    expect(answer.headers.get("x-content-type-options")).toBe("nosniff");
    expect(Buffer.from(await answer.arrayBuffer()).equals(PNG)).toBe(true);
    expect(xml?.type).toBe("application/xml");
  });

  test("are told by their bytes, not by their names", async () => {
    for (const [name, content] of [
      ["bill.pdf", "MZ this is a program"],
      ["bill.png", "<html><script>alert(1)</script></html>"],
      ["bill.jpg", ""],
      ["bill.xml", "<svg onload='x'/>"],
    ] as const) {
      const { status, body } = await server.upload(path, name, content);
      expectRefusal({ status, body }, "attachments/type", "file");
    }
    expect(await papers()).toEqual([]);
  });

  test("the same paper is there once, whatever it is called; taken off, it can be put there again", async () => {
    await server.upload(path, "a.png", PNG);
    await server.upload(path, "b.png", PNG);
    const once = await papers();
    expect(once.map(({ name }) => name)).toEqual(["a.png"]);
    await server.ok("DELETE", `${base}/attachments/${at(once, 0).id}`);
    expect(await papers()).toEqual([]);
    expect((await fetch(`${server.address}/api${base}/attachments/${at(once, 0).id}`)).status).toBe(404);
    await server.upload(path, "b.png", PNG);
    expect((await papers()).map(({ name }) => name)).toEqual(["b.png"]);
  });

  test("one of more than 20 MB is refused, and a path in a name is only a name", async () => {
    const large = Buffer.concat([PNG, Buffer.alloc(20 * 1024 * 1024)]);
    const { status, body } = await server.upload(path, "large.png", large);
    expectRefusal({ status, body }, "attachments/too-large", "file");
    await server.upload(path, "../../etc/passwd.png", PNG);
    expect((await papers()).map(({ name }) => name.includes("/etc/"))).toEqual([false]);
  });
});
