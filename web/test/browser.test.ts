import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { api, ApiError } from "../src/api/client.ts";
import { blankDraft } from "../src/features/documents/draft.ts";
import {
  draftsAside,
  keepDraft,
  keptDraft,
  placeForCorrection,
  placeForNew,
  putAside,
} from "../src/features/documents/draftStore.ts";

/** What a browser keeps, and who holds what in it: as much of both as the modules under test use. */
class Shelf {
  [key: string]: unknown;
  getItem(key: string): string | null {
    return Object.hasOwn(this, key) ? String(this[key]) : null;
  }
  setItem(key: string, value: string): void {
    this[key] = value;
  }
  removeItem(key: string): void {
    delete this[key];
  }
}

class Locks {
  readonly #held = new Set<string>();
  request(key: string, _options: object, work: (lock: object | null) => unknown): Promise<void> {
    if (this.#held.has(key)) return Promise.resolve(work(null)).then(() => undefined);
    this.#held.add(key);
    return Promise.resolve(work({})).then(() => void this.#held.delete(key));
  }
}

beforeEach(() => {
  vi.stubGlobal("localStorage", new Shelf());
  vi.stubGlobal("navigator", { locks: new Locks() });
});
afterEach(() => vi.unstubAllGlobals());

const invoice = { ...blankDraft("sales-invoice"), number: "SI-1" };

describe("drafts in the browser", () => {
  test("what is kept is there again, with fields that came later filled in", () => {
    keepDraft("k", invoice);
    expect(keptDraft("k")).toEqual(invoice);
    localStorage.setItem("k", JSON.stringify({ kind: "sales-invoice", lines: [{ text: "old" }] }));
    expect(keptDraft("k")).toMatchObject({
      number: blankDraft("sales-invoice").number,
      lines: [{ text: "old", code: "" }],
    });
    keepDraft("k", null);
    expect(keptDraft("k")).toBeNull();
  });

  test.each([
    ["cut off", `{"kind":"sales-inv`],
    ["of a kind that is gone", `{"kind":"barter","lines":[]}`],
    ["without lines", `{"kind":"sales-invoice"}`],
    ["nothing at all", "null"],
  ])("one that is %s is put aside, not lost, and in nobody's way", async (_what, text) => {
    const place = await placeForNew(3, "sales-invoice");
    localStorage.setItem(place?.key ?? "", text);
    expect(keptDraft(place?.key ?? "")).toBeNull();
    expect(localStorage.getItem(place?.key ?? "")).toBeNull();
    const [aside] = draftsAside(3);
    expect(localStorage.getItem(aside?.key ?? "")).toBe(text);
    expect(Number.isNaN(Date.parse(aside?.at ?? ""))).toBe(false);
    expect(draftsAside(4)).toEqual([]);
  });

  test("a second tab gets a place of its own, and the first one's when that is closed", async () => {
    const first = await placeForNew(3, "sales-invoice");
    keepDraft(first.key, invoice);
    const second = await placeForNew(3, "sales-invoice");
    expect(second.key).not.toBe(first.key);
    expect(keptDraft(second.key)).toBeNull();
    first.release();
    await Promise.resolve();
    await Promise.resolve();
    const third = await placeForNew(3, "sales-invoice");
    expect(keptDraft(third.key)).toEqual(invoice);
  });

  test("twenty tabs and more never share a place", async () => {
    const places = [];
    for (let tab = 0; tab < 25; tab += 1) places.push(await placeForNew(3, "purchase-bill"));
    expect(new Set(places.map(({ key }) => key)).size).toBe(25);
  });

  test("a correction is held by one tab; other documents, clients and kinds are free", async () => {
    const held = await placeForCorrection(3, 9);
    expect(held).toBeDefined();
    expect(await placeForCorrection(3, 9)).toBeUndefined();
    expect(await placeForCorrection(3, 10)).toBeDefined();
    expect(await placeForCorrection(4, 9)).toBeDefined();
  });

  test("a browser without locks keeps nobody out", async () => {
    vi.stubGlobal("navigator", {});
    expect((await placeForCorrection(3, 9))?.key).toBe((await placeForCorrection(3, 9))?.key);
  });

  test("a browser whose locks never answer does not keep typing waiting", async () => {
    vi.useFakeTimers();
    vi.stubGlobal("navigator", { locks: { request: () => new Promise(() => undefined) } });
    const place = placeForCorrection(3, 9);
    await vi.advanceTimersByTimeAsync(600);
    expect(await place).toBeDefined();
    vi.useRealTimers();
  });

  test("putting aside what is not there does nothing", () => {
    putAside("fiscalon.draft.3.sales-invoice.0");
    expect(draftsAside(3)).toEqual([]);
  });
});

describe("the API as the browser calls it", () => {
  const answers = (...replies: (Response | Error)[]) => {
    const calls: { url: string; init: RequestInit }[] = [];
    vi.stubGlobal("fetch", (url: string, init: RequestInit) => {
      calls.push({ url, init });
      const reply = replies.shift();
      return reply instanceof Response
        ? Promise.resolve(reply)
        : Promise.reject(reply ?? new Error("no reply"));
    });
    return calls;
  };
  const failed = async (work: Promise<unknown>): Promise<ApiError> => {
    const error = await work.then(
      () => undefined,
      (reason: unknown) => reason,
    );
    expect(error).toBeInstanceOf(ApiError);
    return error as ApiError;
  };

  test("a body goes as JSON, a file as it is, nothing without either", async () => {
    const calls = answers(Response.json({}), Response.json({}), Response.json([]));
    await api.put("/clients/:id/contacts/:contact", [3, 5], { name: "Reed" });
    await api.post("/clients/:id/imports", [3], new FormData());
    await api.get("/clients", []);
    expect(calls.map(({ url, init }) => [init.method, url])).toEqual([
      ["PUT", "/api/clients/3/contacts/5"],
      ["POST", "/api/clients/3/imports"],
      ["GET", "/api/clients"],
    ]);
    const key = expect.stringMatching(/^[0-9a-f]{32}$/) as string;
    expect(calls.map(({ init }) => init.headers)).toEqual([
      { "content-type": "application/json", "idempotency-key": key },
      { "idempotency-key": key },
      {},
    ]);
    expect(calls[0]?.init.body).toBe(`{"name":"Reed"}`);
  });

  test("the same change sent twice at once is one; one that got no answer goes on under its key, the next has another", async () => {
    const keyOf = (call: { init: RequestInit } | undefined) =>
      (call?.init.headers as Record<string, string> | undefined)?.["idempotency-key"];
    const pay = () => api.post("/clients/:id/payments", [3], { amount: "20.00" });
    const together = answers(Response.json({}));
    await Promise.all([pay(), pay()]);
    expect(together).toHaveLength(1);
    const lost = answers(new TypeError("fetch failed"));
    await failed(pay());
    const again = answers(Response.json({}), Response.json({}));
    await pay();
    await pay();
    expect(keyOf(again[0])).toBe(keyOf(lost[0]));
    expect(keyOf(again[1])).not.toBe(keyOf(lost[0]));
    expect(keyOf(lost[0])).not.toBe(keyOf(together[0]));
  });

  test("a refusal keeps its code, sentence, field and details", async () => {
    const error = {
      code: "books/sealed",
      message: "Open it first.",
      field: "date",
      details: { period: "2026-03-31" },
    };
    answers(Response.json({ error }, { status: 409 }));
    expect(await failed(api.get("/clients", []))).toMatchObject(error);
  });

  test.each([
    ["the server is not there", new TypeError("fetch failed")],
    ["something between answers with a page", new Response("<h1>Bad gateway</h1>", { status: 502 })],
    ["an error without a body", new Response(null, { status: 500 })],
  ])("%s: a sentence that says what to do", async (_what, reply) => {
    answers(reply);
    const error = await failed(api.get("/clients", []));
    expect([error.code, error.message]).toEqual([
      "server/unreachable",
      "The server does not answer. Is it still running? Nothing typed here is lost.",
    ]);
  });

  test("nothing to say is no error", async () => {
    answers(new Response(null, { status: 204 }));
    expect(await api.delete("/clients/:id/templates/:template", [3, 4])).toBeNull();
  });
});
