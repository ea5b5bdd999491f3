import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { Content, TableCell } from "pdfmake/interfaces.js";
import { PLAIN_WORDS } from "@fiscalon/core/packs/shared/paperWords";
import type { Packs } from "@fiscalon/core/model/packs";
import type { PricedLine } from "@fiscalon/core/model/pricedDocument";
import { levyTotals } from "@fiscalon/core/tax/priceDocument";
import { levyWords } from "@fiscalon/core/tax/levyWords";
import { displayAmount } from "@fiscalon/core/money/amount";
import { kindOf } from "@fiscalon/core/model/documentKinds";
import { taxPointOf } from "@fiscalon/core/model/document";
import type { EInvoiceParty } from "@fiscalon/core/formats/einvoice/eInvoice";
import { FiscalError } from "@fiscalon/core/errors";
import { INK, pdfOf, QUIET, RULED } from "../../exports/pdf.ts";
import type { PrintedDocument } from "./salesDocument.ts";

/**
 * A sales document as it goes to the customer: what the law of its place asks for, and the split by levy and rate. On
 * the margin scheme no tax is shown.
 * @throws FiscalError `export/not-sales` for documents that are not the business's own
 */
export function salesPdf(printed: PrintedDocument): Promise<Buffer> {
  const { input } = printed.document;
  const { paper, name } = kindOf(input.kind);
  if (paper === null)
    throw new FiscalError("export/not-sales", `A ${name.toLowerCase()} is not written by this business.`);
  return pdfOf({
    info: { title: input.number },
    content: [...head(printed), lines(printed), totals(printed), ...homeTax(printed), statements(printed)],
  });
}

function wordsOf({ setup, registration, seller }: PrintedDocument) {
  const pack = registration
    ? setup.effect.packs.byId(registration.pack)
    : setup.effect.packs.ofCountry(seller.country || setup.client.country);
  return { words: pack?.words ?? PLAIN_WORDS, pack };
}

function head(printed: PrintedDocument): Content[] {
  const { document, seller, buyer, registration } = printed;
  const { input } = document;
  const { words, pack } = wordsOf(printed);
  const registered = registration !== undefined && seller.taxNumber !== "";
  const title =
    kindOf(input.kind).sign < 0
      ? words.creditNote
      : registered
        ? words.invoice
        : words.invoice.replace(/^Tax invoice/, "Invoice");
  const facts: [string, string][] = [
    ["Number", input.number],
    ["Date", displayDate(input.date)],
    ...(taxPointOf(input) === input.date
      ? []
      : [["Tax point", displayDate(taxPointOf(input))] as [string, string]]),
    ...(input.due ? [["Due", displayDate(input.due)] as [string, string]] : []),
    ...(document.corrects ? [["Corrects", document.corrects] as [string, string]] : []),
  ];
  const numberName = capital(pack?.numberName ?? "tax number");
  return [
    { text: title, style: "title", margin: [0, 0, 0, 8] },
    {
      layout: "noBorders",
      margin: [0, 0, 0, 14],
      table: {
        widths: [70, "*"],
        body: facts.map(([label, value]) => [
          { text: label, style: "quiet" },
          { text: value, font: "Mono" },
        ]),
      },
    },
    {
      columns: [
        party("From", seller, registered ? numberName : null),
        buyer.name === "" ? "" : party("To", buyer, numberName),
      ],
      columnGap: 30,
      margin: [0, 0, 0, 24],
    },
  ];
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function party(
  label: string,
  { name, taxNumber, country, region }: EInvoiceParty,
  numberName: string | null,
): Content {
  const place = [region, country].filter(Boolean).join(", ");
  return {
    stack: [
      { text: label, style: "quiet", fontSize: 9 },
      { text: name, bold: true, fontSize: 11 },
      ...(place ? [{ text: place }] : []),
      ...(numberName !== null && taxNumber
        ? [{ text: `${numberName} ${taxNumber}`, style: "quiet" as const }]
        : []),
    ],
  };
}

function lines({ document, effect, digits, setup }: PrintedDocument): Content {
  const heads = ["Supply", "Quantity", "Price", "Net", "Tax"].map((text, index): TableCell => ({
    text,
    fontSize: 9,
    color: QUIET,
    alignment: index === 0 ? "left" : "right",
  }));
  const figure = (text: string): TableCell => ({ text, style: "figure", fontSize: 9.5 });
  const rows = effect.printed.lines.map((line): TableCell[] => {
    const input = document.input.lines[line.no - 1];
    const margin = line.code?.treatment === "margin";
    return [
      { text: input?.text || line.code?.name || "" },
      figure(input?.quantity ?? ""),
      figure(input?.unitPrice ?? ""),
      figure(displayAmount(margin ? line.gross : line.net, digits)),
      {
        text: margin ? "" : ratesOf(line, setup.effect.packs),
        style: "quiet",
        fontSize: 9,
        alignment: "right",
      },
    ];
  });
  return {
    layout: RULED,
    table: { headerRows: 1, dontBreakRows: true, widths: ["*", 46, 64, 64, 96], body: [heads, ...rows] },
  };
}

/** The rates of a line, those the customer accounts for too. */
function ratesOf({ taxes }: PricedLine, packs: Packs): string {
  return taxes
    .filter(({ rate }) => rate !== null)
    .map(({ component, rate }) =>
      levyWords(
        {
          levy: component.levy,
          rate,
          per:
            component.rate.kind === "per-unit"
              ? "unit"
              : component.rate.kind === "per-document"
                ? "document"
                : "percent",
          charged: "charged",
        },
        packs,
      ),
    )
    .join("\n");
}

/** Net, the tax of each levy and rate, and what is to be paid. */
function totals({ effect, currency, digits, setup }: PrintedDocument): Content {
  const open = effect.printed.lines.filter(({ code }) => code?.treatment !== "margin");
  const levies = levyTotals(open).filter((row) => row.rate !== null && row.charged !== "self-assessed");
  const tax = open.reduce((sum, line) => sum + line.gross - line.net, 0);
  const rows: [string, string][] =
    open.length === 0
      ? []
      : [
          ["Net", displayAmount(effect.printed.gross - tax, digits)],
          ...levies.map((row): [string, string] => [
            `${levyWords(row, setup.effect.packs)} on ${displayAmount(row.net, digits)}`,
            displayAmount(row.tax, digits),
          ]),
        ];
  return {
    margin: [200, 12, 0, 0],
    layout: {
      hLineWidth: (line, { table }) => (line === table.body.length - 1 ? 0.7 : 0),
      vLineWidth: () => 0,
      hLineColor: () => INK,
      paddingLeft: () => 0,
      paddingRight: () => 0,
      paddingTop: () => 3,
    },
    table: {
      dontBreakRows: true,
      keepWithHeaderRows: rows.length,
      widths: ["*", 100],
      body: [
        ...rows.map(([label, amount]): TableCell[] => [
          { text: label, style: "quiet" },
          { text: amount, style: "figure" },
        ]),
        [
          { text: `Total ${currency}`, bold: true, fontSize: 12 },
          { text: displayAmount(effect.printed.gross, digits), style: "figure", fontSize: 12 },
        ],
      ],
    },
  };
}

/** The tax in the currency of the seller's country, where its law wants it beside a foreign one. */
function homeTax(printed: PrintedDocument): Content[] {
  const { effect, currency, setup } = printed;
  const home = setup.client.currency;
  if (!wordsOf(printed).words.taxInHomeCurrency || currency === home || effect.priced.tax === 0) return [];
  const rate = printed.document.input.exchange;
  const source = rate?.source ? `, ${rate.source}` : "";
  return [
    {
      margin: [200, 4, 0, 0],
      fontSize: 9.5,
      style: "quiet",
      text: `Tax in ${home}: ${displayAmount(effect.priced.tax, setup.plain.digits)} (1 ${currency} = ${rate?.rate ?? ""} ${home}${source})`,
    },
  ];
}

function statements(printed: PrintedDocument): Content {
  const { words } = wordsOf(printed);
  const said = new Set(
    printed.effect.printed.lines.flatMap(({ code }) => {
      const statement = code ? words.statements[code.treatment] : undefined;
      return statement ? [statement] : [];
    }),
  );
  return { text: [...said, printed.document.note].filter(Boolean).join("\n"), margin: [0, 18, 0, 0] };
}
