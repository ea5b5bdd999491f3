import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { fileOfJurisdiction, jurisdictionBody } from "@fiscalon/contract/jurisdiction";
import type { JurisdictionFile } from "@fiscalon/contract/jurisdiction";
import type { JurisdictionRow } from "@fiscalon/contract/views";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import { notFound } from "../../base/errors.ts";
import type { AppContext } from "../../appContext.ts";
import { described } from "../../base/validation.ts";
import type { Work } from "../../base/work.ts";
import { deleteJurisdiction, saveJurisdiction } from "../../books/ownPacks.ts";

const params = Joi.object({ ref: Joi.string().max(20).required() });

export async function jurisdictionRoutes(app: FastifyInstance, { practice }: AppContext): Promise<void> {
  app.get("/jurisdictions", { schema: described("All jurisdictions", "Set up") }, (request) =>
    rows(request.work),
  );

  app.get(
    "/jurisdictions/own",
    { schema: described("The practice's own jurisdictions, whole", "Set up") },
    (request) => request.work.law.jurisdictions,
  );

  app.get<{ Params: { ref: string } }>(
    "/jurisdictions/:ref",
    {
      schema: described("A jurisdiction as a file; a shipped one as a start for another", "Set up", {
        params,
      }),
    },
    async (request, reply) => {
      const made = request.work.law.jurisdictions.find(({ id }) => id === request.params.ref);
      const file = made ? fileOfJurisdiction(made) : shippedFile(request.params.ref);
      return reply
        .header("content-disposition", `attachment; filename="jurisdiction-${request.params.ref}.json"`)
        .send(file);
    },
  );

  app.put<{ Params: { ref: string }; Body: JurisdictionFile }>(
    "/jurisdictions/:ref",
    { schema: described("Make or change an own jurisdiction", "Set up", { params, body: jurisdictionBody }) },
    async (request) => {
      const { format: _format, version: _version, ...jurisdiction } = request.body;
      await saveJurisdiction(request.work, { ...jurisdiction, id: request.params.ref });
      return rows(await practice.begin());
    },
  );

  app.delete<{ Params: { ref: string } }>(
    "/jurisdictions/:ref",
    { schema: described("Take out an own jurisdiction that is not in use", "Set up", { params }) },
    async (request, reply) => {
      await practice.summaries.settled();
      await deleteJurisdiction(request.work, request.params.ref);
      return reply.status(204).send();
    },
  );
}

function rows({ packs }: Work): JurisdictionRow[] {
  return packs.all.map(({ id, country, name, currency, levies, codes, forms }) => ({
    id,
    country,
    name,
    currency,
    levies: levies.map(({ levy }) => levy),
    codes: codes.length,
    forms: [...new Set(forms.map((form) => form.name))],
    shipped: SHIPPED.some((pack) => pack.id === id),
  }));
}

/** A shipped pack under another id: what is code in it becomes data, so that it can be changed and kept. */
function shippedFile(ref: string): JurisdictionFile {
  const shipped = SHIPPED.find((pack) => pack.id === ref);
  if (!shipped) throw notFound("This jurisdiction");
  const {
    checkNumber: _check,
    regionOfNumber: _region,
    sourcing: _sourcing,
    union: _union,
    aliases: _aliases,
    holidays,
    ...pack
  } = shipped;
  const { extra: _extra, weekendUntil: _weekend, ...calendar } = holidays;
  return fileOfJurisdiction({
    ...pack,
    id: `own-${ref}`,
    holidays: calendar,
    electronic: false,
    numberPattern: "",
  });
}
