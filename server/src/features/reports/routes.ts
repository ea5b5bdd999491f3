import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { FastifyInstance } from "fastify";
import Joi from "joi";
import { FiscalError } from "@fiscalon/core/errors";
import { REPORT_KINDS, reportFilterFields } from "@fiscalon/contract/reports";
import type { ReportFilter, ReportKind } from "@fiscalon/contract/reports";
import { sendTable } from "../../exports/sendTable.ts";
import type { TableFormat } from "../../exports/sendTable.ts";
import { PdfThread } from "../../exports/pdfThread.ts";
import type { ReportTable } from "../../exports/reportTable.ts";
import type { Work } from "../../base/work.ts";
import { clientParams, described } from "../../base/validation.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { taxDetails, taxSummary } from "./queries.ts";
import { byCodeTable, detailTable, REPORT_TITLES, summaryTable } from "./reportTables.ts";

/** Beyond this a file helps nobody; the days or filters are narrowed. A PDF is for reading. */
const MOST_ROWS = { csv: 200_000, xlsx: 100_000, pdf: 5_000 };

type Client = { Params: { id: number } };
type Page = { offset: number; limit: number };
const filter = Joi.object(reportFilterFields);

export async function reportRoutes(app: FastifyInstance): Promise<void> {
  const pdfs = new PdfThread();
  app.addHook("onClose", () => pdfs.end());
  app.get<Client & { Querystring: ReportFilter }>(
    "/clients/:id/reports/tax/summary",
    {
      schema: described("Tax by levy, code and rate", "Reports", {
        params: clientParams,
        querystring: filter,
      }),
    },
    async (request) => {
      const setup = await loadSetup(request.work, request.params.id);
      return taxSummary(request.work, request.params.id, request.query, codeNames(setup));
    },
  );

  app.get<Client & { Querystring: ReportFilter & Page }>(
    "/clients/:id/reports/tax/details",
    {
      schema: described("The lines behind it, by page", "Reports", {
        params: clientParams,
        querystring: Joi.object({
          ...reportFilterFields,
          offset: Joi.number().integer().min(0).default(0),
          limit: Joi.number().integer().min(1).max(500).default(100),
        }),
      }),
    },
    (request) => {
      const { offset, limit, ...rest } = request.query;
      return taxDetails(request.work, request.params.id, rest, { order: "time", offset, limit });
    },
  );

  app.get<Client & { Querystring: ReportFilter & { kind: ReportKind; format: TableFormat } }>(
    "/clients/:id/reports/tax/export",
    {
      schema: described("A tax report as CSV, workbook or PDF", "Reports", {
        params: clientParams,
        querystring: Joi.object({
          ...reportFilterFields,
          kind: Joi.string()
            .valid(...REPORT_KINDS)
            .required(),
          format: Joi.string()
            .valid(...Object.keys(MOST_ROWS))
            .required(),
        }),
      }),
    },
    async (request, reply) => {
      const { kind, format, ...rest } = request.query;
      const table = await reportTable(request.work, request.params.id, kind, format, rest);
      return sendTable(reply, `tax-${kind}-${rest.from}-${rest.to}`, format, table, pdfs);
    },
  );

  async function reportTable(
    work: Work,
    clientId: number,
    kind: ReportKind,
    format: TableFormat,
    wanted: ReportFilter,
  ): Promise<ReportTable> {
    const setup = await loadSetup(work, clientId);
    const head = { title: REPORT_TITLES[kind], about: aboutOf(setup, wanted), digits: setup.plain.digits };
    const named = <R extends { levy: string }>(rows: readonly R[]): R[] =>
      rows.map((row) => ({ ...row, levy: work.packs.levyName(row.levy) }));
    if (kind === "summary") {
      return { ...head, ...summaryTable(named(await taxSummary(work, clientId, wanted, codeNames(setup)))) };
    }
    const limit = MOST_ROWS[format];
    const order = kind === "by-code" ? "code" : "time";
    const { total, rows } = await taxDetails(work, clientId, wanted, { order, offset: 0, limit });
    if (total > limit) {
      throw new FiscalError(
        "report/too-long",
        `${total} lines are too many for one ${format.toUpperCase()} file of at most ${limit}. Choose fewer days, or a code.`,
      );
    }
    return { ...head, ...(kind === "by-code" ? byCodeTable(named(rows)) : detailTable(named(rows))) };
  }
}

function codeNames(setup: ClientSetup): (code: string) => string {
  return (code) => setup.effect.codes.get(code)?.name ?? "";
}

const CHARGED_WORDS: Readonly<Record<ReportFilter["charged"], string>> = {
  "": "",
  reverse: "reverse charges, both sides",
  "self-assessed": "reverse charges owed here",
  "declared-only": "reverse charges owed by customers",
};

function aboutOf(setup: ClientSetup, { from, to, by, direction, levy, code, charged }: ReportFilter): string {
  const days =
    by === "period"
      ? `reported in periods ending ${displayDate(from)} to ${displayDate(to)}`
      : `tax points ${displayDate(from)} to ${displayDate(to)}`;
  return [
    setup.client.name,
    days,
    direction && `${direction}s`,
    CHARGED_WORDS[charged],
    levy,
    code && `code ${code}`,
    setup.client.currency,
  ]
    .filter(Boolean)
    .join(", ");
}
