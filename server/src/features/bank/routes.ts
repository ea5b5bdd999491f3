import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { acceptBody, bankAccountBody, matchBody } from "@fiscalon/contract/bank";
import type { AcceptBody, BankLineView, MatchBody } from "@fiscalon/contract/bank";
import { id } from "@fiscalon/contract/fields";
import type { AppContext } from "../../appContext.ts";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { bankAccounts, connectAccount, fetchAccount } from "./accounts.ts";
import { linePage } from "./lines.ts";
import { acceptBest, matchLine, unmatchLine } from "./match.ts";
import { statementsIn, takeStatements } from "./statements.ts";

type Id = { Params: { id: number } };
type Account = { Params: { id: number; account: string } };
type Line = { Params: { id: number; line: number } };
const accountParams = Joi.object({ id: id.required(), account: Joi.string().max(20).required() });
const lineParams = Joi.object({ id: id.required(), line: id.required() });

export async function bankRoutes(app: FastifyInstance, { bank }: AppContext): Promise<void> {
  app.get<Id>(
    "/clients/:id/bank",
    { schema: described("Bank accounts and how far they are matched", "Bank", { params: clientParams }) },
    (request) => bankAccounts(request.work, request.params.id),
  );

  app.post<Id & { Body: { account: string; number: string } }>(
    "/clients/:id/bank",
    { schema: described("Connect a bank account", "Bank", { params: clientParams, body: bankAccountBody }) },
    async (request, reply) => {
      await connectAccount(request.work, request.params.id, bank(), request.body);
      return reply.status(201).send(await bankAccounts(request.work, request.params.id));
    },
  );

  app.post<Account>(
    "/clients/:id/bank/:account/fetch",
    { schema: described("Fetch what is new from the bank", "Bank", { params: accountParams }) },
    (request) => fetchAccount(request.work, request.params.id, bank(), request.params.account),
  );

  app.post<Account>(
    "/clients/:id/bank/:account/statements",
    {
      schema: described("Drop a statement: camt.053, OFX or CSV (multipart, one file)", "Bank", {
        params: accountParams,
      }),
    },
    async (request) => {
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const { id: clientId, account } = request.params;
      const setup = await loadSetup(request.work, clientId);
      const statements = statementsIn(
        await file.toBuffer(),
        setup.client.currency,
        request.work.packs.ofCountry(setup.client.country)?.dateOrder ?? "dmy",
      );
      return takeStatements(request.work, clientId, account, statements, file.filename.slice(0, 200));
    },
  );

  app.get<Account & { Querystring: { state: BankLineView["state"]; offset: number; limit: number } }>(
    "/clients/:id/bank/:account/lines",
    {
      schema: described("Lines of the bank, open ones with proposals", "Bank", {
        params: accountParams,
        querystring: Joi.object({
          state: Joi.string().valid("open", "matched", "ignored").default("open"),
          offset: Joi.number().integer().min(0).default(0),
          limit: Joi.number().integer().min(1).max(500).default(100),
        }),
      }),
    },
    async (request) => {
      const { id: clientId, account } = request.params;
      return linePage(request.work, await loadSetup(request.work, clientId), account, request.query);
    },
  );

  app.post<Id & { Body: AcceptBody }>(
    "/clients/:id/bank/accept",
    {
      schema: described(
        "Accept the best proposal of the lines named, or of every line where it is sure",
        "Bank",
        {
          params: clientParams,
          body: acceptBody,
        },
      ),
    },
    (request) => acceptBest(request.work, request.params.id, request.body),
  );

  app.post<Line & { Body: MatchBody }>(
    "/clients/:id/bank-lines/:line/match",
    { schema: described("Say what a line of the bank is", "Bank", { params: lineParams, body: matchBody }) },
    async (request, reply) => {
      await matchLine(request.work, request.params.id, request.params.line, request.body);
      return reply.status(204).send();
    },
  );

  app.post<Line>(
    "/clients/:id/bank-lines/:line/unmatch",
    { schema: described("Take a match back", "Bank", { params: lineParams }) },
    async (request, reply) => {
      await unmatchLine(request.work, request.params.id, request.params.line);
      return reply.status(204).send();
    },
  );
}
