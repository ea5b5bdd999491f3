import { randomBytes, randomUUID } from "node:crypto";
import { setTimeout as sleep } from "node:timers/promises";
import type { FastifyInstance, FastifyReply, FastifyRequest } from "fastify";
import { daysBetween } from "@fiscalon/core/calendar/date";

/** An obligation as the authority publishes it. */
export interface Obligation {
  start: string;
  end: string;
  due: string;
  status: "O" | "F";
  periodKey: string;
  received?: string;
}

/** What the simulator keeps, and what it knows of taxpayers. Kept apart from the application's own books. */
export interface AuthorityStore {
  /** Periods of a taxpayer by number, without their state; undefined for a number the authority does not know. */
  periods(vrn: string): Promise<{ start: string; end: string; due: string }[] | undefined>;
  submission(
    vrn: string,
    periodKey: string,
  ): Promise<{ body: Record<string, unknown>; received: string } | undefined>;
  keep(vrn: string, periodKey: string, body: object, receipt: object, received: string): Promise<void>;
}

export const AUTHORITY_MODES = [
  "normal",
  "slow",
  "failing",
  "lost-answer",
  "lost-then-failing",
  "not-authorised",
] as const;
export type AuthorityMode = (typeof AUTHORITY_MODES)[number];

const MONEY = ["vatDueSales", "vatDueAcquisitions", "totalVatDue", "vatReclaimedCurrPeriod"] as const;
const WHOLE = [
  "totalValueSalesExVAT",
  "totalValuePurchasesExVAT",
  "totalValueGoodsSuppliedExVAT",
  "totalAcquisitionsExVAT",
] as const;

interface Refusal {
  code: string;
  message: string;
  path?: string;
}

/**
 * A stand-in for the tax authority's VAT gateway: obligations, submission, viewing, with the published field names
 * and refusals (HMRC Developer Hub, VAT (MTD) API 1.0; from memory). `PUT …/mode` makes it slow or failing.
 */
export async function authoritySimulator(
  app: FastifyInstance,
  { store, today, delayMs = 150 }: { store: AuthorityStore; today: () => string; delayMs?: number },
): Promise<void> {
  let mode: AuthorityMode = "normal";

  app.put<{ Body: { mode?: string } }>("/mode", async (request, reply) => {
    const wanted = AUTHORITY_MODES.find((one) => one === request.body?.mode);
    if (!wanted) return reply.status(400).send({ code: "UNKNOWN_MODE", modes: AUTHORITY_MODES });
    mode = wanted;
    return { mode };
  });
  app.get("/mode", async () => ({ mode, modes: AUTHORITY_MODES }));

  app.register(async (api) => {
    api.addHook("onRequest", async (_request, reply) => {
      reply.header("X-CorrelationId", randomBytes(15).toString("hex"));
      await sleep(mode === "slow" ? 8000 : delayMs);
      if (mode === "failing")
        return reply.status(503).send({ code: "SERVER_ERROR", message: "The service is unavailable." });
    });
    api.addHook("onRequest", async (request, reply) => refuseCaller(request, reply, mode));

    api.get<{ Params: { vrn: string }; Querystring: Record<string, string> }>(
      "/organisations/vat/:vrn/obligations",
      async (request, reply) => {
        const { from, to, status } = request.query;
        const list = await obligations(store, request.params.vrn);
        if (!list)
          return refuse(reply, 400, [{ code: "VRN_INVALID", message: "The provided VRN is invalid." }]);
        if (from && to && (from > to || daysBetween(from, to) > 366)) {
          return refuse(reply, 400, [
            { code: "INVALID_DATE_RANGE", message: "The date range is invalid, maximum 366 days." },
          ]);
        }
        return {
          obligations: list.filter(
            (one) =>
              (!from || one.end >= from) && (!to || one.start <= to) && (!status || one.status === status),
          ),
        };
      },
    );

    api.post<{ Params: { vrn: string }; Body: Record<string, unknown> }>(
      "/organisations/vat/:vrn/returns",
      async (request, reply) => {
        const { vrn } = request.params;
        const list = await obligations(store, vrn);
        if (!list)
          return refuse(reply, 400, [{ code: "VRN_INVALID", message: "The provided VRN is invalid." }]);
        const obligation = list.find((one) => one.periodKey === request.body?.["periodKey"]);
        if (!obligation)
          return refuse(reply, 400, [
            { code: "PERIOD_KEY_INVALID", message: "The period key is invalid.", path: "/periodKey" },
          ]);
        const wrong = validate(request.body);
        if (wrong.length > 0) return refuse(reply, 400, wrong);
        if (obligation.status === "F") {
          return refuse(reply, 403, [
            {
              code: "DUPLICATE_SUBMISSION",
              message: "The VAT return was already submitted for the given period.",
            },
          ]);
        }
        if (obligation.end >= today()) {
          return refuse(reply, 403, [
            {
              code: "TAX_PERIOD_NOT_ENDED",
              message: "The return cannot be submitted before the end of the tax period.",
            },
          ]);
        }
        const received = new Date().toISOString();
        const receipt = {
          processingDate: received,
          formBundleNumber: String(BigInt(`0x${randomBytes(5).toString("hex")}`))
            .padStart(12, "0")
            .slice(0, 12),
          paymentIndicator: "BANK",
          chargeRefNumber: `X${randomBytes(7).toString("hex").toUpperCase().slice(0, 15)}`,
        };
        await store.keep(vrn, obligation.periodKey, request.body, receipt, received);
        if (mode === "lost-answer") return reply.raw.destroy();
        if (mode === "lost-then-failing") {
          mode = "failing";
          return reply.raw.destroy();
        }
        return reply
          .status(201)
          .headers({ "Receipt-ID": randomUUID(), "Receipt-Timestamp": received })
          .send(receipt);
      },
    );

    api.get<{ Params: { vrn: string; periodKey: string } }>(
      "/organisations/vat/:vrn/returns/:periodKey",
      async (request, reply) => {
        const found = await store.submission(request.params.vrn, request.params.periodKey);
        if (!found)
          return reply.status(404).send({
            code: "NOT_FOUND",
            message: "The remote endpoint has indicated that no associated data is found.",
          });
        const { finalised: _finalised, ...body } = found.body;
        return body;
      },
    );
  });
}

async function refuseCaller(
  request: FastifyRequest,
  reply: FastifyReply,
  mode: AuthorityMode,
): Promise<unknown> {
  if (!/application\/vnd\.hmrc\.1\.0\+json/.test(request.headers.accept ?? "")) {
    return reply
      .status(406)
      .send({ code: "ACCEPT_HEADER_INVALID", message: "The accept header is missing or invalid" });
  }
  if (!request.headers.authorization?.startsWith("Bearer ")) {
    return reply
      .status(401)
      .send({ code: "MISSING_CREDENTIALS", message: "Authentication information is not provided" });
  }
  if (mode === "not-authorised") {
    return reply.status(403).send({
      code: "CLIENT_OR_AGENT_NOT_AUTHORISED",
      message: "The client and/or agent is not authorised.",
    });
  }
  return undefined;
}

async function obligations(store: AuthorityStore, vrn: string): Promise<Obligation[] | undefined> {
  const periods = await store.periods(vrn);
  if (!periods) return undefined;
  const list: Obligation[] = [];
  for (const period of periods) {
    const periodKey = keyOf(period);
    const submitted = await store.submission(vrn, periodKey);
    list.push({
      ...period,
      periodKey,
      status: submitted ? "F" : "O",
      ...(submitted ? { received: submitted.received.slice(0, 10) } : {}),
    });
  }
  return list;
}

/** Four characters that say nothing: users of the real gateway must never work them out from dates either. */
function keyOf({ start, end }: { start: string; end: string }): string {
  const month = Number(end.slice(5, 7));
  const monthly = daysBetween(start, end) < 40;
  const second = monthly ? String.fromCharCode(64 + month) : String(Math.ceil(month / 3));
  return `${end.slice(2, 4)}${monthly ? "A" : String.fromCharCode(65 + (month % 3))}${second}`;
}

function validate(body: Record<string, unknown>): Refusal[] {
  const amount = (field: string) => (typeof body[field] === "number" ? (body[field] as number) : Number.NaN);
  const cents = (field: string) => Math.round(amount(field) * 100);
  const bad: Refusal[] = [];
  for (const field of [...MONEY, "netVatDue"]) {
    const value = amount(field);
    const fits =
      Math.abs(value) <= 9_999_999_999_999.99 && Math.abs(value * 100 - Math.round(value * 100)) < 1e-4;
    if (!fits)
      bad.push({
        code: "INVALID_MONETARY_AMOUNT",
        message: "The value must be between -9999999999999.99 and 9999999999999.99",
        path: `/${field}`,
      });
  }
  for (const field of WHOLE) {
    if (!Number.isInteger(amount(field)))
      bad.push({
        code: "INVALID_MONETARY_AMOUNT",
        message: "The value must be whole pounds",
        path: `/${field}`,
      });
  }
  if (bad.length > 0) return bad;
  if (amount("netVatDue") < 0)
    bad.push({
      code: "INVALID_MONETARY_AMOUNT",
      message: "The value must be between 0.00 and 99999999999.99",
      path: "/netVatDue",
    });
  if (cents("totalVatDue") !== cents("vatDueSales") + cents("vatDueAcquisitions")) {
    bad.push({
      code: "VAT_TOTAL_VALUE",
      message: "totalVatDue should be equal to the sum of vatDueSales and vatDueAcquisitions",
      path: "/totalVatDue",
    });
  }
  if (cents("netVatDue") !== Math.abs(cents("totalVatDue") - cents("vatReclaimedCurrPeriod"))) {
    bad.push({
      code: "VAT_NET_VALUE",
      message:
        "netVatDue should be the difference between the largest and the smallest values among totalVatDue and vatReclaimedCurrPeriod",
      path: "/netVatDue",
    });
  }
  if (body["finalised"] !== true)
    bad.push({
      code: "NOT_FINALISED",
      message: "The return cannot be accepted without a declaration it is finalised.",
      path: "/finalised",
    });
  return bad;
}

function refuse(reply: FastifyReply, status: number, errors: readonly Refusal[]): FastifyReply {
  const [first] = errors;
  if (errors.length === 1 && first?.path === undefined) return reply.status(status).send(first);
  const summary = status === 403 ? "BUSINESS_ERROR" : "INVALID_REQUEST";
  return reply.status(status).send({ code: summary, message: "Invalid request", errors });
}
