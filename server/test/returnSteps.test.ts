import { afterAll, beforeAll, expect, test } from "vitest";
import { ERRORS } from "@fiscalon/contract/errors";
import { document, GB_CLIENT, newClient, nextVatNumber, startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const END = "2026-03-31";
const STATES = ["open", "sealed", "filed", "settled"] as const;
type State = (typeof STATES)[number];

const STEPS = {
  seal: ["POST", `returns/${END}/seal`],
  reopen: ["POST", `returns/${END}/reopen`, { reason: "a bill turned up" }],
  file: ["POST", `returns/${END}/file`, { declared: true }],
  settle: ["POST", `settlements/${END}`],
  pay: [
    "POST",
    `settlements/${END}/payments`,
    { date: "2026-05-02", kind: "payment", amount: "20.00", reference: "" },
  ],
  adjust: ["POST", `returns/${END}/adjustments`, { box: "1", amount: "1.00", reason: "counted anew" }],
} as const satisfies Record<string, readonly [string, string, object?]>;
type Step = keyof typeof STEPS;

/** The state a step leads to; what is not named is refused. engine.md: open, sealed, filed, settled. */
const LEGAL: Record<State, Partial<Record<Step, State>>> = {
  open: { seal: "sealed", adjust: "open" },
  sealed: { reopen: "open", file: "filed" },
  filed: { settle: "settled", pay: "filed" },
  settled: { pay: "settled" },
};
const WAY: Record<State, readonly Step[]> = {
  open: [],
  sealed: ["seal"],
  filed: ["seal", "file"],
  settled: ["seal", "file", "settle"],
};

async function take(registration: string, step: Step) {
  const [method, path, body] = STEPS[step] as readonly [string, string, object?];
  return server.call<{ error?: { code: string } }>(method, `${registration}/${path}`, body);
}

async function inState(state: State): Promise<{ base: string; registration: string }> {
  const client = await newClient(server, {
    ...GB_CLIENT,
    registration: { ...GB_CLIENT.registration, number: nextVatNumber(), from: "2026-01-01" },
  });
  const sale = document("sales-invoice", "2026-02-10", [{ amount: "100.00", code: "S20" }]);
  await server.ok("POST", `${client.base}/documents`, sale);
  for (const step of WAY[state]) expect((await take(client.registration, step)).status).toBeLessThan(300);
  return client;
}

const stateOf = async (registration: string) =>
  (await server.ok<{ state: State }>("GET", `${registration}/returns/${END}`)).state;

test.each(STATES.flatMap((state) => (Object.keys(STEPS) as Step[]).map((step) => [state, step] as const)))(
  "a return that is %s: %s",
  async (state, step) => {
    const { base, registration } = await inState(state);
    const boxes = async () => server.ok<object>("GET", `${registration}/returns?from=2026-01-01&to=${END}`);
    const before = await boxes();
    const { status, body } = await take(registration, step);
    const next = LEGAL[state][step];
    if (next === undefined) {
      expect(status).toBeGreaterThanOrEqual(400);
      const code = body.error?.code ?? "";
      expect(code in ERRORS, code).toBe(true);
      expect(status).toBe(ERRORS[code as keyof typeof ERRORS].status);
      expect(await stateOf(registration)).toBe(state);
      expect(await boxes()).toEqual(before);
    } else {
      expect([status < 300, await stateOf(registration)]).toEqual([true, next]);
    }
    const balance = await server.ok<{ closing: number }[]>(
      "GET",
      `${base}/trial-balance?from=2026-01-01&to=2026-12-31`,
    );
    expect(balance.reduce((sum, { closing }) => sum + closing, 0)).toBe(0);
  },
);
