import { FiscalError, withinField } from "../errors.ts";
import { minorDigits } from "../money/currency.ts";
import { checkForm } from "../returns/checkForm.ts";
import { checkCode } from "../tax/checkCode.ts";
import { checkSchedules } from "../tax/checkSchedules.ts";
import { codesByName } from "../tax/expandCode.ts";
import { checkSchemes } from "./checkSchemes.ts";
import type { OwnJurisdiction } from "./ownJurisdiction.ts";

type PackData = Omit<OwnJurisdiction, "numberPattern">;

/**
 * The contract every jurisdiction keeps, shipped or made by the practice: rates that say one figure a day, codes that
 * can be computed, posted and landed, forms that can be evaluated, rules that lead to codes, a form and a due date for
 * each rhythm, schemes that name what is there.
 * @throws FiscalError with the path of what does not fit
 */
export function checkPack(pack: PackData): void {
  minorDigits(pack.currency);
  checkSchedules(pack.schedules);
  pack.forms.forEach((form, index) => withinField(`forms[${index}]`, () => checkForm(form, pack.schedules)));
  checkCodes(pack);
  checkRules(pack);
  checkCorrection(pack);
  checkSchemes(pack);
  for (const [list, field] of [
    [pack.levies, "levies"],
    [pack.codes, "codes"],
    [pack.forms, "forms"],
    [pack.rhythms, "rhythms"],
    [pack.roundings, "roundings"],
    [pack.due, "due"],
  ] as const) {
    if (list.length > 0) continue;
    throw new FiscalError("jurisdiction/empty", `A jurisdiction needs at least one entry here.`, field);
  }
}

function checkCodes(pack: PackData): void {
  const levies = new Set(pack.levies.map(({ levy }) => levy));
  const boxes = new Set(pack.forms.flatMap((form) => form.boxes.map((box) => box.id)));
  const around = {
    levies,
    schedules: pack.schedules,
    accounts: pack.accounts,
    hasBox: (box: string) => boxes.has(box),
  };
  const names = new Set<string>();
  pack.codes.forEach((code, index) =>
    withinField(`codes[${index}]`, () => {
      if (names.has(code.code))
        throw new FiscalError(
          "jurisdiction/double-code",
          `There are two codes ${code.code}. Give one another name.`,
          "code",
        );
      names.add(code.code);
      checkCode(code, around);
    }),
  );
}

function checkRules(pack: PackData): void {
  const codes = codesByName(pack.codes);
  const classes = new Set(pack.classes.map(({ id }) => id));
  pack.rules.forEach((rule, index) => {
    if (rule.code !== "" && !codes.has(rule.code)) {
      throw new FiscalError(
        "supply/unknown-code",
        `Rule ${rule.id} leads to ${rule.code}, which is no code.`,
        `rules[${index}].code`,
      );
    }
    if (classes.has(rule.taxClass)) return;
    throw new FiscalError(
      "supply/unknown-class",
      `Rule ${rule.id} is for ${rule.taxClass}, which is no tax class.`,
      `rules[${index}].taxClass`,
    );
  });
}

/** A rule for corrections answers whatever is asked: its last case has no test. */
function checkCorrection({ correction }: PackData): void {
  const last = correction.cases.at(-1);
  if (last && Object.keys(last.when).length === 0) return;
  throw new FiscalError(
    "jurisdiction/correction",
    "The last case of the rule for corrections must have no test, so that every error has an answer.",
    "correction.cases",
  );
}
