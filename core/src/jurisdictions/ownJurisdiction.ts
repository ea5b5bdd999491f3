import { PLAIN_BASES } from "../model/basis.ts";
import type { Basis, BasisOffer } from "../model/basis.ts";
import type { JurisdictionPack } from "../model/pack.ts";
import { checkedByShape } from "../packs/shared/numberCheck.ts";
import { PLAIN_WORDS } from "../packs/shared/paperWords.ts";

/** What of a pack is more than plain data, or has a plain default. */
type Filled =
  | "bases"
  | "rateNames"
  | "checkNumber"
  | "regionOfNumber"
  | "sourcing"
  | "union"
  | "words"
  | "dateOrder"
  | "bankNames"
  | "watched";

/** A jurisdiction made by the practice: a pack as plain data, with a pattern in the place of the number check. */
export type OwnJurisdiction = Omit<JurisdictionPack, Filled> &
  Partial<Pick<JurisdictionPack, "rateNames" | "words" | "dateOrder" | "bankNames" | "watched">> & {
    /** Each by its name, or with what the law says of it. */
    bases: readonly (Basis | BasisOffer)[];
    /** A regular expression the whole number must match, without blanks; empty for any number. */
    numberPattern: string;
  };

/** An own jurisdiction as a pack among the others; its codes say where they come from, as those of shipped ones do. */
export function packOf(jurisdiction: OwnJurisdiction): JurisdictionPack {
  const { numberPattern, bases, ...rest } = jurisdiction;
  const pattern = numberPattern === "" ? /^.+$/ : new RegExp(`^(?:${numberPattern})$`);
  const { id, numberName, numberHint, forms, authority } = jurisdiction;
  return {
    dateOrder: "dmy",
    bankNames: authority
      .toLowerCase()
      .split(/\W+/)
      .filter((word) => word.length > 2),
    rateNames: Object.fromEntries(
      Object.keys(jurisdiction.schedules).map((id) => [id, nameOfSchedule(jurisdiction, id)]),
    ),
    watched: [...new Set(forms.flatMap(({ net }) => net.shown))],
    words: PLAIN_WORDS,
    ...rest,
    bases: bases.map((basis) => (typeof basis === "string" ? PLAIN_BASES[basis] : basis)),
    codes: jurisdiction.codes.map((code) => ({ ...code, pack: id })),
    checkNumber: checkedByShape(pattern, numberName, numberHint),
  };
}

/** A schedule nobody named is called after the codes that use it. */
function nameOfSchedule({ codes }: OwnJurisdiction, id: string): string {
  const using = codes.filter(({ components }) =>
    components.some(({ rate }) => "schedule" in rate && rate.schedule === id),
  );
  return using[0]?.name ?? id;
}
