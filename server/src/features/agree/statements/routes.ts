import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { date, id } from "@fiscalon/contract/fields";
import { decideBody, linesBody, matchSettings, outcomeName } from "@fiscalon/contract/statements";
import type { DecideBody, LinesBody, MatchSettings } from "@fiscalon/contract/statements";
import type { AppContext } from "../../../appContext.ts";
import { clientParams, described } from "../../../base/validation.ts";
import { loadSetup, registrationIn } from "../../../books/loadSetup.ts";
import { removeStatement } from "../../../books/agree/statements/insertStatement.ts";
import { matchStatement, statementRecord } from "../../../books/agree/statements/matchStatement.ts";
import { paging } from "../../../db/listOrder.ts";
import { formatQuery, sendTable } from "../../../exports/sendTable.ts";
import type { TableFormat } from "../../../exports/sendTable.ts";
import { bringTogether, decide, releaseFound, takeBack } from "./decide.ts";
import { letterAbout } from "./letter.ts";
import { receiveStatement } from "./receive.ts";
import { statementTable } from "./statementTable.ts";
import { linePage, statementList, statementView, sureLines } from "./views.ts";
import type { LineFilter } from "./views.ts";

interface Params {
  id: number;
  rid: string;
}
interface Statement {
  id: number;
  statement: number;
}
const params = clientParams.append({ rid: Joi.string().max(60).required() });
const statementParams = Joi.object({ id: id.required(), statement: id.required() });
const BASE = "/clients/:id/registrations/:rid/statements";
const ONE = "/clients/:id/statements/:statement";
const TAG = "Agree";

/** Up to so many rows are matched while one waits; more in a process of their own, with progress. */
const AT_ONCE = 4000;

/** Lists of others against our documents. */
export async function statementRoutes(app: FastifyInstance, { jobs }: AppContext): Promise<void> {
  app.get<{ Params: Params }>(
    BASE,
    { schema: described("Lists of others under a registration, and which can come", TAG, { params }) },
    async ({ work, params }) =>
      statementList(work, registrationIn(await loadSetup(work, params.id), params.rid)),
  );

  app.post<{ Params: Params; Querystring: { kind: string; contact: number | null; period: string } }>(
    BASE,
    {
      schema: described("Drop a list of somebody else (multipart, one file)", TAG, {
        params,
        querystring: Joi.object({
          kind: Joi.string().max(40).required(),
          contact: id.allow(null).default(null),
          period: date.required(),
        }),
      }),
    },
    async (request, reply) => {
      const { work, params, query } = request;
      const setup = await loadSetup(work, params.id);
      registrationIn(setup, params.rid);
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const bytes = await file.toBuffer();
      const made = await receiveStatement(work, setup, {
        registration: params.rid,
        ...query,
        name: file.filename,
        bytes,
      });
      const { rows } = await statementView(work, setup, made);
      if (rows <= AT_ONCE) await matchStatement(work, setup, made);
      return reply.status(201).send(await statementView(work, setup, made));
    },
  );

  app.get<{ Params: Statement }>(
    ONE,
    { schema: described("A list with how its documents stand", TAG, { params: statementParams }) },
    async ({ work, params }) => statementView(work, await loadSetup(work, params.id), params.statement),
  );

  app.delete<{ Params: Statement }>(
    ONE,
    { schema: described("Take a list out; what was decided stays", TAG, { params: statementParams }) },
    async ({ work, params }, reply) => {
      await work.write(async (work) => {
        const { id: client, statement } = params;
        await statementRecord(work, client, statement);
        await removeStatement(work, statement);
        await work.record({ action: "remove", entity: "statement", id: statement });
      });
      return reply.status(204).send();
    },
  );

  app.post<{ Params: Statement }>(
    `${ONE}/match`,
    {
      schema: described("Lay a list beside the books; a long one as a job", TAG, { params: statementParams }),
    },
    async ({ work, params }) => {
      const setup = await loadSetup(work, params.id);
      const { rows } = await statementView(work, setup, params.statement);
      if (rows > AT_ONCE) {
        const task = { kind: "match", clientId: params.id, statementId: params.statement } as const;
        return { job: await jobs.start(work, params.id, task) };
      }
      await matchStatement(work, setup, params.statement);
      return { job: null };
    },
  );

  app.put<{ Params: Statement; Body: MatchSettings }>(
    `${ONE}/settings`,
    {
      schema: described("How near two documents must be to be one", TAG, {
        params: statementParams,
        body: matchSettings,
      }),
    },
    async ({ work, params, body }, reply) => {
      await work.write(async (work) => {
        await statementRecord(work, params.id, params.statement);
        const kept = [params.statement, JSON.stringify(body)];
        await work.run("UPDATE statements SET settings = $2, stamp = NULL WHERE id = $1", kept);
        await work.record({
          action: "change",
          entity: "statement",
          id: params.statement,
          after: body,
        });
      });
      return reply.status(204).send();
    },
  );

  app.get<{ Params: Statement; Querystring: LineFilter }>(
    `${ONE}/lines`,
    {
      schema: described("Lines of the matching, by pages", TAG, {
        params: statementParams,
        querystring: Joi.object({ ...paging, outcome: outcomeName, open: Joi.boolean().default(false) }),
      }),
    },
    async ({ work, params, query }) =>
      linePage(work, await loadSetup(work, params.id), params.statement, query),
  );

  app.get<{ Params: Statement; Querystring: { format: TableFormat } }>(
    `${ONE}/file`,
    {
      schema: described("The matching as a file", TAG, { params: statementParams, querystring: formatQuery }),
    },
    async ({ work, params, query }, reply) => {
      const table = await statementTable(work, await loadSetup(work, params.id), params.statement);
      return sendTable(reply, `statement-${params.statement}`, query.format, table);
    },
  );

  app.post<{ Params: Statement; Body: DecideBody }>(
    `${ONE}/decisions`,
    { schema: described("Say how lines stand", TAG, { params: statementParams, body: decideBody }) },
    async ({ work, params, body }, reply) => {
      await decide(work, await loadSetup(work, params.id), params.statement, body);
      return reply.status(204).send();
    },
  );

  app.post<{ Params: Statement; Body: LinesBody }>(
    `${ONE}/decisions/undo`,
    {
      schema: described("Take back what was said of lines", TAG, {
        params: statementParams,
        body: linesBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await takeBack(work, await loadSetup(work, params.id), params.statement, body.lines);
      return reply.status(204).send();
    },
  );

  app.post<{ Params: Statement }>(
    `${ONE}/decisions/together`,
    {
      schema: described("Forget the last time that two rows were kept apart", TAG, {
        params: statementParams,
      }),
    },
    async ({ work, params }) => ({
      changed: await bringTogether(work, await loadSetup(work, params.id), params.statement),
    }),
  );

  app.post<{ Params: Statement }>(
    `${ONE}/accept`,
    { schema: described("Accept every pair that needs no second look", TAG, { params: statementParams }) },
    async ({ work, params }) => {
      const setup = await loadSetup(work, params.id);
      await statementRecord(work, params.id, params.statement);
      const lines = await sureLines(work, params.statement);
      if (lines.length > 0)
        await decide(work, setup, params.statement, { lines, decision: "agreed", reason: "" });
      return { changed: lines.length };
    },
  );

  app.post<{ Params: Statement }>(
    `${ONE}/release`,
    {
      schema: described("Deduct the tax that was held back of documents whose row is there", TAG, {
        params: statementParams,
      }),
    },
    async ({ work, params }) => ({
      changed: await releaseFound(work, await loadSetup(work, params.id), params.statement),
    }),
  );

  app.post<{ Params: Statement; Body: LinesBody }>(
    `${ONE}/letter`,
    {
      schema: described("What to write to the other side about lines", TAG, {
        params: statementParams,
        body: linesBody,
      }),
    },
    async ({ work, params, body }) =>
      letterAbout(work, await loadSetup(work, params.id), params.statement, body.lines),
  );
}
