import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { FiscalError } from "@fiscalon/core/errors";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import type { TakingsBody, TakingsDayBody, TakingsSheet } from "@fiscalon/contract/takings";
import type { Work, Writing } from "../../base/work.ts";
import type { NewDocument } from "../../books/documents/newDocument.ts";
import { changeable, postOne, replaceDocument, voidDocument } from "../../books/documents/replaceDocument.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { sheetKey } from "./sheet.ts";
import { takingsCodes } from "./takingsRule.ts";

/** Keeps days of the sheet, all or none: a cash sale a day, corrected where there is one, taken out where a day is emptied. */
export async function keepTakings(
  work: Work,
  clientId: number,
  { account, days }: TakingsBody,
): Promise<void> {
  await work.write(async (work) => {
    const setup = await loadSetup(work, clientId);
    const codes = takingsCodes(work, setup);
    for (const [index, day] of days.entries())
      await keepDay(work, setup, codes, account, day, `days[${index}]`);
  });
}

async function keepDay(
  work: Writing,
  setup: ClientSetup,
  codes: TakingsSheet["codes"],
  account: string,
  { date, amounts, seen }: TakingsDayBody,
  path: string,
): Promise<void> {
  const unknown = Object.keys(amounts).find((code) => !codes.some((one) => one.code === code));
  if (unknown !== undefined)
    throw new FiscalError(
      "takings/code",
      `${unknown} is no code of takings here. Columns are ${codes.map(({ code }) => code).join(", ")}.`,
      `${path}.amounts`,
    );
  const known = await work.row<{ id: number }>(
    "SELECT id FROM documents WHERE client_id = $1 AND source_key = $2 AND state = 'posted'",
    [setup.client.id, sheetKey(date)],
  );
  const old = known ? await changeable(work, setup, known.id) : null;
  // What is not told stays as it is.
  const kept = new Map(old?.input.lines.map(({ code, amount }) => [code, amount]));
  for (const [code, before] of Object.entries(seen ?? {})) {
    const now = parseAmount(kept.get(code) || "0", setup.plain.digits);
    if (code in amounts && now !== before) throw overtaken(setup, date, code, now, path);
  }
  const lines = codes.flatMap(({ code, name }) => {
    const amount = amounts[code] ?? kept.get(code) ?? "";
    return amount === "" || parseAmount(amount, setup.plain.digits) === 0
      ? []
      : [{ text: name, amount, code, supply: "goods" as const }];
  });
  if (lines.length === 0) {
    if (old) await voidDocument(work, setup, old, "nothing in the takings sheet");
    return;
  }
  const document: NewDocument = {
    input: {
      kind: "cash-sale",
      number: `TAKINGS-${date}`,
      date,
      prices: "inclusive",
      paidThrough: account,
      lines,
    },
    contact: null,
    place: old?.place ?? null,
    sourceKey: sheetKey(date),
  };
  await (old ? replaceDocument(work, setup, old, document) : postOne(work, setup, document));
}

function overtaken(
  { plain }: ClientSetup,
  date: string,
  code: string,
  now: number,
  path: string,
): FiscalError {
  return new FiscalError(
    "takings/overtaken",
    `${code} of ${displayDate(date)} was changed to ${formatAmount(now, plain.digits)} after you opened the sheet. Look at it, and keep yours again if it is right.`,
    `${path}.amounts.${code}`,
  );
}
