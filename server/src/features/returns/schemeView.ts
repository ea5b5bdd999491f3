import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { at, found, textAt } from "@fiscalon/core/at";
import { groupBy } from "@fiscalon/core/groupBy";
import { schemeOn } from "@fiscalon/core/model/scheme";
import type { SchemeView } from "@fiscalon/contract/schemeView";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";
import { periodEnding } from "../../books/returns/periods.ts";
import { contentOfPeriod } from "../../books/returns/schemes.ts";
import { schemeCourse } from "../../books/returns/schemeCourse.ts";
import type { SchemeOnReturn } from "../../books/returns/schemeOnReturn.ts";
import type { ReportTable } from "../../exports/reportTable.ts";

/** The workpapers of the schemes on a return. */
export async function schemeViews(
  work: Work,
  { plain }: ClientSetup,
  r: RegistrationRecord,
  end: string,
): Promise<SchemeView[]> {
  periodEnding(r, end);
  const { schemes } = await contentOfPeriod(work, r, end);
  const views: SchemeView[] = [];
  for (const scheme of schemes) {
    const course = await schemeCourse(work, r, scheme, end);
    views.push({ ...viewOf(scheme, end, plain.digits), course });
  }
  return views;
}

function viewOf(
  { definition, spans, result, setAside, gain }: SchemeOnReturn,
  end: string,
  digits: number,
): Omit<SchemeView, "course"> {
  const { id, name, note, source, settings } = definition;
  // After it was left, what turns up of its time is worked out with its last answers.
  const span = schemeOn(spans, end) ?? at(spans, spans.length - 1);
  const byCode = groupBy(setAside, ({ code, direction }) => JSON.stringify([code, direction]));
  return {
    id,
    name,
    note,
    source,
    digits,
    from: span.from,
    to: span.to,
    settings: settings.flatMap((setting) => {
      const answer = textAt(span.settings, setting.id);
      if (setting.holds === "amount") return answer === "" ? [] : [{ name: setting.name, value: answer }];
      return {
        name: setting.name,
        value: found(setting.values, ({ value }) => value === answer, answer).name,
      };
    }),
    owed: result.owed,
    steps: result.steps.map(({ id: step, words, arithmetic, amount, box }) => ({
      id: step,
      words,
      arithmetic,
      amount,
      box: box ?? null,
    })),
    setAside: [...byCode.values()].map((groups) =>
      groups.reduce((sum, one) => ({
        ...sum,
        count: sum.count + one.count,
        net: sum.net + one.net,
        tax: sum.tax + one.tax,
        recoverable: sum.recoverable + one.recoverable,
      })),
    ),
    gain,
  };
}

/** One of them as a table. */
export async function schemeTable(
  work: Work,
  setup: ClientSetup,
  r: RegistrationRecord,
  end: string,
  id: string,
): Promise<ReportTable> {
  const view = (await schemeViews(work, setup, r, end)).find((one) => one.id === id);
  if (!view) throw notFound("This scheme");
  return {
    title: `Workpaper: ${view.name}`,
    about: `${setup.client.name}, period to ${displayDate(end)} (${view.source})`,
    digits: view.digits,
    columns: [
      { name: "Box", width: 40 },
      { name: "Step", width: 260 },
      { name: "Worked out", width: 220 },
      { name: "Amount", amount: true },
    ],
    rows: [
      ...view.steps.map(({ box, words, arithmetic, amount }) => ({
        cells: [box ?? "", words, arithmetic, amount],
      })),
      ...view.setAside.map(({ code, direction, count, tax, recoverable }) => ({
        cells: [
          "",
          `Set aside: ${code}, ${direction === "sale" ? "charged" : "not deducted"}`,
          `${count} lines`,
          direction === "sale" ? tax : recoverable,
        ],
      })),
    ],
  };
}
