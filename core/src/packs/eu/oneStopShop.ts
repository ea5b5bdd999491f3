import type { CorrectionRule } from "../../model/correction.ts";
import type { BasisOffer } from "../../model/basis.ts";
import type { FilingRhythm, Levy, PackCheck } from "../../model/pack.ts";
import type { ReturnForm } from "../../model/returnForm.ts";
import type { ReturnRegister } from "../../model/returnRegister.ts";
import type { SupplyRule } from "../../model/supplyRule.ts";
import type { Boxes, Component, RateRow, RateSchedules, TaxCode } from "../../model/taxCode.ts";
import type { DueRule } from "../../calendar/dueDate.ts";
import { headOf } from "../shared/codeRows.ts";
import { computed, sum, taxed } from "../shared/formBoxes.ts";
import { line, table } from "../shared/formTables.ts";
import { rulesOf } from "../shared/rules.ts";
import type { RuleRow } from "../shared/rules.ts";
import { UNION_MEMBERS } from "./members.ts";
import { memberRates } from "./reducedRates.ts";

/** The levy of a registration for the union scheme: the tax of the other members, reported here. */
export const OSS = "OSS";

const LAW = "VATD art. 369a to 369k";
const BEGINNING = "2021-07-01";
const RANKS = ["standard rate", "reduced rate", "second reduced rate", "third reduced rate"] as const;

/** Tax class of services that follow the consumer. */
export const ELECTRONIC = {
  id: "electronic",
  name: "Electronic, telecommunication and broadcasting services",
};
/** Who is asked about the scheme at set-up. */
export const DISTANCE_SELLING = {
  id: "distance-sales",
  name: "Goods sent, or electronic services, to consumers in other members",
  classes: [ELECTRONIC.id],
};

/** Codes of a home country for electronic services. */
export interface ElectronicCodes {
  home: string;
  toBusiness: string;
  outside: string;
  bought: string;
  unregistered: string;
  fromUnion: string;
  fromOutside: string;
}

const levy = (authority: string): Levy => ({
  levy: OSS,
  name: "VAT of other members, one-stop shop",
  short: "One-stop shop",
  authority,
  onlyFor: [DISTANCE_SELLING.id],
  deducted: false,
  creditNotes: "later-period",
  correction,
});

const correction: CorrectionRule = {
  limit: { years: 3, from: "own-due" },
  per: "return",
  counts: "net",
  cases: [{ when: {}, way: "on-return", says: "a correction on this return, by member and period" }],
  source: "VATD art. 369g(4)",
};

const due: DueRule[] = [
  { levies: [OSS], months: 1, day: "end", shift: "none", source: "VATD art. 369f; no day moves" },
];

const rhythms: FilingRhythm[] = [
  {
    id: "oss",
    name: "Quarterly, one-stop shop",
    frequency: "quarterly",
    anchor: "2026-03-31",
    levies: [OSS],
  },
];

const bases: BasisOffer[] = [
  {
    basis: "accrual",
    name: "Each supply in the quarter of its tax point",
    levies: [OSS],
    source: "VATD art. 369g",
  },
];

const registers: ReturnRegister[] = [
  {
    id: "oss",
    name: "Supplies and corrections by member",
    kind: "members",
    onlyFor: [OSS],
    source: "Impl. Reg. (EU) 2020/194, annex III",
  },
  {
    id: "oss-record",
    name: "Record of supplies",
    kind: "supplies",
    onlyFor: [OSS],
    source: "Impl. Reg. (EU) 282/2011 art. 63c; kept ten years",
  },
];

const members = [...UNION_MEMBERS.keys()];
const part = (id: string) => ({ part: id });
const value = { holds: "value" } as const;

function formOf(pack: string): ReturnForm {
  const standard = `${pack}.${OSS}-*`;
  const supplied = (id: string, title: string) => [
    sum(`*.${id}`, title, { ...value, ...part("supplies"), members }),
    taxed(`*.${id}.t`, `${title}: tax`, `*.${id}`, standard, part("supplies")),
  ];
  return {
    id: `${pack}-oss`,
    name: "One-stop shop, union scheme",
    levies: [OSS],
    turnover: ["*.S", "*.E.*", "*.G", "*.D.*"],
    frequencies: ["quarterly"],
    from: BEGINNING,
    to: null,
    parts: [
      { id: "supplies", name: "Supplies and corrections by member of consumption" },
      { id: "due", name: "What is due" },
    ],
    boxes: [
      ...supplied("S", "Services supplied from here"),
      ...supplied("E.*", "Services of an establishment elsewhere"),
      ...supplied("G", "Goods sent from here"),
      ...supplied("D.*", "Goods sent from another member"),
      sum("*.C", "Corrections of earlier periods: tax", { ...part("supplies"), members }),
      computed("*.due", "Balance", "[*.S.t] + [*.E.*.t] + [*.G.t] + [*.D.*.t] + [*.C]", part("supplies")),
      computed("*.pay", "To be paid", "max([*.due], 0)", { ...part("supplies"), helper: true }),
      computed("T1", "Total VAT to be paid", "[*.pay]", part("due")),
      computed("T2", "Refunded by members themselves", "[*.pay] - [*.due]", {
        ...part("due"),
        helper: true,
        words: "Negative balances of members; each member refunds its own, nothing is set off.",
      }),
      computed("T3", "Balance of all members", "[T1] - [T2]", { ...part("due"), helper: true }),
    ],
    tables: [
      table(
        "Supplied from here, and what is due, by member of consumption",
        "Services | VAT | Goods | VAT | Corrections | Balance",
        [line("", "", "*.S *.S.t *.G *.G.t *.C *.due")],
      ),
      table("Supplied from other members", "Value | VAT", [
        line("", "Services of an establishment elsewhere", "*.E.* *.E.*.t"),
        line("", "Goods sent from another member", "*.D.* *.D.*.t"),
      ]),
      table("What is due", "", [line("", "Total VAT to be paid", "T1", "result")]),
    ],
    net: { output: "[T1]", input: "[T2]", due: "[T3]", shown: "T1" },
    source: `${LAW}; Impl. Reg. (EU) 2020/194, annex III; from memory`,
  };
}

/** The rates of members as schedules: OSS-FR the standard rate, OSS-FR-1 the highest reduced one. */
function schedulesOf(pack: string): { schedules: RateSchedules; rateNames: Record<string, string> } {
  const schedules: Record<string, readonly RateRow[]> = {};
  const rateNames: Record<string, string> = {};
  for (const [member, name] of UNION_MEMBERS) {
    RANKS.forEach((words, rank) => {
      const rows = memberRates(member, rank);
      if (rows === undefined) return;
      schedules[scheduleId(pack, member, rank)] = rows;
      rateNames[scheduleId(pack, member, rank)] = `${name}, ${words}`;
    });
  }
  return { schedules, rateNames };
}

function scheduleId(pack: string, member: string, rank: number): string {
  return `${pack}.${OSS}-${member}${rank === 0 ? "" : `-${rank}`}`;
}

/** Codes for goods and for services at each rank of rate; the customer's country chooses the member. */
function codesOf(pack: string, home: string): TaxCode[] {
  const others = [...UNION_MEMBERS.keys()].filter((member) => member !== home);
  return RANKS.flatMap((words, rank) =>
    [
      {
        code: "OSG",
        supply: "goods" as const,
        what: "Goods",
        here: "G",
        elsewhere: "D",
        from: "dispatch",
        note: "The line's attribute `dispatch` holds the member goods are sent from, where it is another one.",
      },
      {
        code: "OSS",
        supply: "services" as const,
        what: "Services",
        here: "S",
        elsewhere: "E",
        from: "establishment",
        note: "The line's attribute `establishment` holds the member of the establishment that supplies, where it is another one.",
      },
    ].map(({ code, supply, what, here, elsewhere, from, note }): TaxCode => {
      const landing: Boxes = [
        { when: { [`@${from}`]: others }, tags: `{country}.${elsewhere}.{@${from}} +n` },
        { tags: `{country}.${here} +n` },
      ];
      const component = (member: string): Component => ({
        levy: OSS,
        rate: { kind: "percent", schedule: scheduleId(pack, member, rank) },
        partOfLaterBases: false,
        charged: "charged",
        recoverable: "0",
        when: { country: member, [`@${from}`]: member === home ? others : ["", home, ...others] },
        boxes: { sale: landing, saleCredit: "{country}.C +t", saleLate: "{country}.C +t" },
      });
      const consumed = supply === "goods" ? [...others, home] : others;
      const members = consumed.filter((member) => memberRates(member, rank) !== undefined);
      const standing = rank === 0 ? "" : `, at their ${words}`;
      return {
        ...headOf(pack, {
          code: rank === 0 ? code : `${code}${rank}`,
          name: `${what} to consumers in other members, ${words}`,
          direction: "sale",
          treatment: rank === 0 ? "standard" : "reduced",
          supply,
          from: BEGINNING,
          note,
          source: LAW,
        }),
        noneApplies: `this code is for consumers in ${inWords(members)}${standing}, what is supplied from elsewhere with the two capital letters of a member. Set the country of the customer or correct the letters, or choose another code.`,
        components: members.map(component),
      };
    }),
  );
}

function inWords(members: readonly string[]): string {
  const all = members.length > 20;
  return all ? "other members of the European Union" : members.join(", ");
}

/** Rules that hold while the business is registered for the scheme, and those of electronic services without it. */
function rulesFor(pack: string, codes: ElectronicCodes, reduced: readonly string[]): SupplyRule[] {
  const toConsumer = (taxClass: string, supply: RuleRow[2], code: string, words: string): RuleRow => [
    "sale",
    taxClass,
    supply,
    "any",
    "union",
    "unregistered",
    code,
    words,
    LAW,
  ];
  const goods = "Goods sent to a consumer in another member: its tax, by the one-stop shop.";
  const needing = rulesOf(`${pack}-oss`, [
    toConsumer("standard", "goods", "OSG", goods),
    ...reduced.map((one) =>
      toConsumer(one, "goods", "OSG1", `${goods} Look which of its reduced rates the goods have there.`),
    ),
    toConsumer(
      ELECTRONIC.id,
      "any",
      "OSS",
      "Electronic services to a consumer in another member: its tax, by the one-stop shop.",
    ),
  ]).map((rule) => ({ ...rule, needs: OSS }));
  return [...needing, ...electronicRules(pack, codes)];
}

// prettier-ignore
function electronicRules(pack: string, codes: ElectronicCodes): SupplyRule[] {
  const place = "VATD art. 44, 58, 59c";
  return rulesOf(`${pack}-electronic`, [
    ["sale", ELECTRONIC.id, "any", "any", "home", "any", codes.home, "Supplied here: standard rate.", place],
    ["sale", ELECTRONIC.id, "any", "any", "union", "registered", codes.toBusiness, "Services to a business in another member state.", place],
    ["sale", ELECTRONIC.id, "any", "any", "union", "unregistered", codes.home, "Electronic services to a consumer in another member, below the threshold of 10,000 euros.", place],
    ["sale", ELECTRONIC.id, "any", "any", "outside-union", "any", codes.outside, "Electronic services are supplied where the customer is.", place],
    ["purchase", ELECTRONIC.id, "any", "any", "home", "registered", codes.bought, "Bought from a business here.", place],
    ["purchase", ELECTRONIC.id, "any", "any", "home", "unregistered", codes.unregistered, "No tax on the paper.", place],
    ["purchase", ELECTRONIC.id, "any", "any", "union", "any", codes.fromUnion, "Services of a business in another member state.", place],
    ["purchase", ELECTRONIC.id, "any", "any", "outside-union", "any", codes.fromOutside, "Services from outside the EU.", place],
  ]);
}

const check: PackCheck = {
  id: "distance-sales",
  kind: "distance-sales",
  levy: OSS,
  classes: [ELECTRONIC.id],
  limits: [{ from: 2021, year: 10_000_00, yearBefore: 10_000_00 }],
  says: "Goods sent and electronic services to consumers in other members come to {amount} in {year}, more than {limit}.",
};

/**
 * The union scheme of the one-stop shop as a member of the union offers it: a registration of its own beside that for the
 * member's own tax, with the rates of the others by date.
 * @param reduced tax classes whose goods bear a reduced rate at home
 * @source VATD art. 369a ff. and 59c, since July 2021; rates from memory
 */
export function oneStopShop(
  pack: string,
  home: string,
  authority: string,
  electronic: ElectronicCodes,
  reduced: readonly string[],
) {
  return {
    levy: levy(authority),
    ...schedulesOf(pack),
    codes: codesOf(pack, home),
    rules: rulesFor(pack, electronic, reduced),
    form: formOf(pack),
    bases,
    due,
    rhythms,
    registers,
    check,
    account: { levy: OSS, name: "One-stop shop", at: 2230, authority, input: false },
  };
}
