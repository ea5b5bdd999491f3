import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { allPacks, packById, SHIPPED } from "@fiscalon/core/jurisdictions/packs";
import { fileOfJurisdiction, jurisdictionBody } from "@fiscalon/contract/jurisdiction";
import type { JurisdictionFile } from "@fiscalon/contract/jurisdiction";
import type { JurisdictionRow } from "@fiscalon/contract/views";
import { actorNow } from "../../actor.ts";
import type { AppContext } from "../../context.ts";
import { notFound } from "../../errors.ts";
import { described } from "../../validation.ts";
import { deleteJurisdiction, ownJurisdictions, saveJurisdiction } from "./ownPacks.ts";

const params = Joi.object({ ref: Joi.string().max(20).required() });

export async function jurisdictionRoutes(app: FastifyInstance, { db }: AppContext): Promise<void> {
  app.get("/jurisdictions", { schema: described("All jurisdictions", "Set up") }, () => rows());

  app.get(
    "/jurisdictions/own",
    { schema: described("The practice's own jurisdictions, whole", "Set up") },
    () => ownJurisdictions(db),
  );

  app.get<{ Params: { ref: string } }>(
    "/jurisdictions/:ref",
    {
      schema: described("A jurisdiction as a file; a shipped one as a start for another", "Set up", {
        params,
      }),
    },
    async (request, reply) => {
      const own = (await ownJurisdictions(db)).find(({ id }) => id === request.params.ref);
      const file = own ? fileOfJurisdiction(own) : shippedFile(request.params.ref);
      return reply
        .header("content-disposition", `attachment; filename="jurisdiction-${request.params.ref}.json"`)
        .send(file);
    },
  );

  app.put<{ Params: { ref: string }; Body: JurisdictionFile }>(
    "/jurisdictions/:ref",
    { schema: described("Make or change an own jurisdiction", "Set up", { params, body: jurisdictionBody }) },
    async (request) => {
      const { format: _format, version: _version, ...own } = request.body;
      await saveJurisdiction(db, actorNow(), { ...own, id: request.params.ref });
      return rows();
    },
  );

  app.delete<{ Params: { ref: string } }>(
    "/jurisdictions/:ref",
    { schema: described("Take out an own jurisdiction that is not in use", "Set up", { params }) },
    async (request, reply) => {
      await deleteJurisdiction(db, actorNow(), request.params.ref);
      return reply.status(204).send();
    },
  );
}

function rows(): JurisdictionRow[] {
  return allPacks().map(({ id, country, name, currency, levies, codes, forms }) => ({
    id,
    country,
    name,
    currency,
    levies: levies.map(({ levy }) => levy),
    codes: codes.length,
    forms: [...new Set(forms.map((form) => form.name))],
    shipped: SHIPPED.has(id),
  }));
}

/** A shipped pack under another id: what is code in it becomes data, so that it can be changed and kept. */
function shippedFile(ref: string): JurisdictionFile {
  if (!SHIPPED.has(ref)) throw notFound("This jurisdiction");
  const {
    checkNumber: _check,
    regionOfNumber: _region,
    sourcing: _sourcing,
    options: _options,
    holidays,
    ...pack
  } = packById(ref);
  const { extra: _extra, weekendUntil: _weekend, ...calendar } = holidays;
  return fileOfJurisdiction({
    ...pack,
    id: `own-${ref}`,
    holidays: calendar,
    electronic: false,
    numberPattern: "",
  });
}
