import { existsSync } from "node:fs";
import { fileURLToPath } from "node:url";
import compress from "@fastify/compress";
import helmet from "@fastify/helmet";
import multipart from "@fastify/multipart";
import rateLimit from "@fastify/rate-limit";
import fastifyStatic from "@fastify/static";
import Fastify from "fastify";
import type { FastifyInstance } from "fastify";
import type { Config } from "./config.ts";
import { unsettledPeriods } from "./books/returns/unsettledPeriods.ts";
import { beginWork } from "./practice/beginWork.ts";
import { FindingCounts } from "./practice/findingCounts.ts";
import { openPractice } from "./across/convert/openPractice.ts";
import type { AppContext } from "./appContext.ts";
import { handleErrors } from "./base/errors.ts";
import { attachmentRoutes } from "./features/attachments/routes.ts";
import { clockRoutes } from "./features/clock/routes.ts";
import { seriesRoutes } from "./features/series/routes.ts";
import { templateRoutes } from "./features/templates/routes.ts";
import { agreeRoutes } from "./features/agree/routes.ts";
import { balanceRoutes } from "./features/agree/balances/routes.ts";
import { registerSheetRoutes } from "./features/agree/register/routes.ts";
import { statementRoutes } from "./features/agree/statements/routes.ts";
import { bridgeRoutes } from "./features/agree/turnover/routes.ts";
import { auditRoutes } from "./features/audit/routes.ts";
import { bankRoutes } from "./features/bank/routes.ts";
import { BankFeed } from "./outside/bankFeed.ts";
import { bookRoutes } from "./across/bookfile/routes.ts";
import { accountRoutes } from "./features/accounts/routes.ts";
import { contactRoutes } from "./features/contacts/routes.ts";
import { takingsRoutes } from "./features/takings/routes.ts";
import { capitalRoutes } from "./features/capital/routes.ts";
import { collectionRoutes } from "./features/collection/routes.ts";
import { stockRoutes } from "./features/stock/routes.ts";
import { itemRoutes } from "./features/items/routes.ts";
import { clientRoutes } from "./features/clients/routes.ts";
import { documentRoutes } from "./features/documents/routes.ts";
import { exportRoutes } from "./features/exports/routes.ts";
import { jurisdictionRoutes } from "./features/jurisdictions/routes.ts";
import { lawRoutes } from "./features/law/routes.ts";
import { importRoutes } from "./features/imports/routes.ts";
import { ledgerRoutes } from "./features/ledger/routes.ts";
import { paymentRoutes } from "./features/payments/routes.ts";
import { priceRoutes } from "./features/price/routes.ts";
import { Gateway } from "./outside/gateway.ts";
import { reportRoutes } from "./features/reports/routes.ts";
import { returnRoutes } from "./features/returns/routes.ts";
import { settleRoutes } from "./features/settle/routes.ts";
import { setupRoutes } from "./features/setup/routes.ts";
import { TerminalOperator } from "./outside/terminalOperator.ts";
import { terminalRoutes } from "./features/terminals/routes.ts";
import { countFindingsOf } from "./across/stations/countFindings.ts";
import { stationRoutes } from "./across/stations/routes.ts";
import { trailRoutes } from "./across/trail/routes.ts";
import { jobRoutes } from "./jobs/routes.ts";
import { JobRunner } from "./jobs/runner.ts";
import { describeApi } from "./openapi.ts";
import { simulate } from "./simulators/simulate.ts";
import { postRecurring } from "./features/templates/recurring.ts";
import { guardBorder } from "./base/border.ts";
import { keepAnswers } from "./base/once.ts";
import { digestByItself } from "./across/digest/digestByItself.ts";
import { Copies } from "./across/backup/copies.ts";
import { copyRoutes } from "./across/backup/routes.ts";
import { backUpByItself } from "./across/backup/schedule.ts";
import { followLaw } from "./features/law/moveLaw.ts";
import { requireWhole } from "./db/integrity.ts";
import { holdFolder } from "./db/folderLock.ts";
import { validateWithJoi } from "./base/validation.ts";

const UPLOAD_BYTES = 60 * 1024 * 1024;
const WEB = fileURLToPath(new URL("../../web/dist", import.meta.url));

/** Builds the server: database, jobs, routes, simulators, and the web application where it is built. */
export async function buildApp(config: Config): Promise<FastifyInstance> {
  const app = Fastify({
    logger: { level: config.logLevel },
    bodyLimit: 5 * 1024 * 1024,
    forceCloseConnections: true,
    requestTimeout: 600_000,
    connectionTimeout: 600_000,
  });
  const free = await holdFolder(config.dataDir);
  const practice = await openPractice(config.dataDir, config.person, (words) => app.log.info(words));
  const { db } = practice;
  await requireWhole(db, (error) => app.log.error(error));
  const jobs = new JobRunner(practice, (error) => app.log.error(error, "a job broke off"));
  await jobs.recover();
  practice.summaries.tellPeriods(unsettledPeriods);
  const counts = new FindingCounts(practice, countFindingsOf);
  practice.summaries.tellWritten((client) => counts.touch(client));
  await practice.clear();
  await followLaw(practice, (error) => app.log.error(error, "books that a change of the law moves"));
  const gateway = () =>
    new Gateway(config.authorityUrl || `${ownAddress(app)}/simulators/authority`, config.authorityUrl === "");
  const bank = () => new BankFeed(`${ownAddress(app)}/simulators/bank`);
  const operator = () => new TerminalOperator(`${ownAddress(app)}/simulators/terminal`);
  const numbers = () => `${ownAddress(app)}/simulators/number-register`;
  const copies = new Copies(config, (words) => app.log.error(words));
  const context: AppContext = {
    practice,
    jobs,
    gateway,
    numbers,
    bank,
    operator,
    copies,
    digests: config.digests,
  };

  handleErrors(app);
  guardBorder(app, config.hosts);
  keepAnswers(app);
  digestByItself(app, practice, config);
  validateWithJoi(app);
  await app.register(helmet, { contentSecurityPolicy: { directives: SOURCES }, hsts: false });
  // What is built is compressed already, and better.
  await app.register(compress, { encodings: ["gzip"], threshold: 2048, inflateIfDeflated: false });
  await app.register(rateLimit, { max: 6000, timeWindow: "1 minute" });
  await app.register(multipart, { limits: { fileSize: UPLOAD_BYTES, files: 1, fields: 10 } });
  await describeApi(app);
  for (const routes of [
    clientRoutes,
    contactRoutes,
    accountRoutes,
    itemRoutes,
    documentRoutes,
    paymentRoutes,
    bankRoutes,
    terminalRoutes,
    bookRoutes,
    importRoutes,
    ledgerRoutes,
    agreeRoutes,
    bridgeRoutes,
    statementRoutes,
    registerSheetRoutes,
    balanceRoutes,
    returnRoutes,
    settleRoutes,
    trailRoutes,
    stationRoutes,
    priceRoutes,
    setupRoutes,
    jurisdictionRoutes,
    lawRoutes,
    auditRoutes,
    reportRoutes,
    exportRoutes,
    attachmentRoutes,
    seriesRoutes,
    clockRoutes,
    copyRoutes,
    templateRoutes,
    stockRoutes,
    capitalRoutes,
    takingsRoutes,
    collectionRoutes,
    jobRoutes,
  ]) {
    await app.register(
      async (scope) => {
        beginWork(scope, practice);
        await routes(scope, context);
      },
      { prefix: "/api" },
    );
  }
  if (config.simulators) await simulate(app, practice, config.authorityUrl);
  if (existsSync(WEB)) await serveWeb(app);
  postRecurring(app, practice);
  backUpByItself(app, copies);
  app.addHook("onListen", async () => {
    practice.summaries
      .repair()
      .then(() => counts.repair())
      .catch((error: unknown) => app.log.error(error, "summaries"));
  });
  app.addHook("onClose", async () => {
    await jobs.close();
    await counts.end();
    await practice.close();
    await free();
  });
  return app;
}

/** Everything comes from this server; nothing is fetched from anywhere else. */
const SOURCES = {
  defaultSrc: ["'self'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", "data:"],
  upgradeInsecureRequests: null,
};

/** The files of the web application as they are now, also after it was built again; every other path is its page. */
async function serveWeb(app: FastifyInstance): Promise<void> {
  await app.register(fastifyStatic, { root: WEB, serve: false, preCompressed: true });
  app.get<{ Params: { "*": string } }>("/assets/*", { schema: { hide: true } }, (request, reply) =>
    reply.sendFile(`assets/${request.params["*"]}`, { maxAge: "365d", immutable: true }),
  );
  app.get("/favicon.svg", { schema: { hide: true } }, (_request, reply) => reply.sendFile("favicon.svg"));
  app.get("/*", { schema: { hide: true } }, (request, reply) => {
    if (request.url.startsWith("/api/") || request.url.startsWith("/simulators/"))
      return reply.callNotFound();
    return reply.header("cache-control", "no-cache").sendFile("index.html", { cacheControl: false });
  });
}

function ownAddress(app: FastifyInstance): string {
  const address = app.server.address();
  if (address === null || typeof address === "string") return "http://127.0.0.1";
  const host = address.address === "::" || address.address === "0.0.0.0" ? "127.0.0.1" : address.address;
  return `http://${host.includes(":") ? `[${host}]` : host}:${address.port}`;
}
