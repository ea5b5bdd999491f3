import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { date } from "@fiscalon/contract/fields";
import { takingsBody } from "@fiscalon/contract/takings";
import type { TakingsBody } from "@fiscalon/contract/takings";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { keepTakings } from "./keepSheet.ts";
import { readTakings } from "./readSheet.ts";
import { takingsSheet } from "./sheet.ts";
import { takingsCodes } from "./takingsRule.ts";

type Id = { Params: { id: number } };
type Days = { Querystring: { from: string; to: string } };
const BASE = "/clients/:id/takings";
const TAG = "Takings";

export async function takingsRoutes(app: FastifyInstance): Promise<void> {
  app.get<Id & Days>(
    BASE,
    {
      schema: described("The takings of a retailer day by day", TAG, {
        params: clientParams,
        querystring: Joi.object({ from: date.required(), to: date.required() }),
      }),
    },
    async ({ work, params, query }) => takingsSheet(work, await loadSetup(work, params.id), query),
  );

  app.put<Id & { Body: TakingsBody }>(
    BASE,
    {
      schema: described("Keep days of the takings sheet, a cash sale each", TAG, {
        params: clientParams,
        body: takingsBody,
      }),
    },
    async ({ work, params, body }, reply) => {
      await keepTakings(work, params.id, body);
      return reply.status(204).send();
    },
  );

  app.post<Id>(
    `${BASE}/read`,
    {
      schema: described("Read days of takings from CSV (multipart, one file); keeps nothing", TAG, {
        params: clientParams,
      }),
    },
    async (request) => {
      const file = await request.file();
      if (!file) throw new FiscalError("imports/no-file", "Choose a file.", "file");
      const codes = takingsCodes(request.work, await loadSetup(request.work, request.params.id));
      return readTakings((await file.toBuffer()).toString("utf8"), codes);
    },
  );
}
