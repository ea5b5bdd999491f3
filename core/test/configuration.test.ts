import { describe, expect, test } from "vitest";
import { FiscalError } from "@fiscalon/core/errors";
import { blankJurisdiction, withLevy } from "@fiscalon/core/jurisdictions/blankJurisdiction";
import { checkPack } from "@fiscalon/core/jurisdictions/checkPack";
import { memberStart } from "@fiscalon/core/jurisdictions/memberStart";
import { UNION_MEMBERS } from "@fiscalon/core/packs/eu/members";
import type { OwnJurisdiction } from "@fiscalon/core/jurisdictions/ownJurisdiction";
import { PACKS } from "./support/packs.ts";
import { missingRoles } from "@fiscalon/core/model/account";
import { rhythmInWords } from "@fiscalon/core/calendar/rhythmInWords";
import { proposeSetup } from "@fiscalon/core/supply/proposeSetup";
import { standingsAsked } from "@fiscalon/core/supply/standingsAsked";
import type { Component } from "@fiscalon/core/model/taxCode";

/** The blank jurisdiction with its taxed code's levy changed. */
function withComponent(change: Partial<Component>, more: Partial<OwnJurisdiction> = {}): OwnJurisdiction {
  const own = { ...blankJurisdiction(), ...more };
  return {
    ...own,
    codes: own.codes.map((code) =>
      code.code === "S"
        ? { ...code, components: code.components.map((component) => ({ ...component, ...change })) }
        : code,
    ),
  };
}

function withBox(id: string, formula: string): OwnJurisdiction {
  const own = blankJurisdiction();
  return {
    ...own,
    forms: own.forms.map((form) => ({
      ...form,
      boxes: form.boxes.map((box) => (box.id === id ? { ...box, kind: "formula" as const, formula } : box)),
    })),
  };
}

function refusal(own: OwnJurisdiction): { code: string; field: string | undefined } | null {
  try {
    checkPack(own);
    return null;
  } catch (error) {
    if (!(error instanceof FiscalError)) throw error;
    expect(error.message.length).toBeGreaterThan(20);
    return { code: error.code, field: error.field };
  }
}

const rate = (from: string, to: string | null) => ({ from, to, rate: "10", source: "" });

describe("a configuration that cannot be computed, posted or filed is refused with the place of the fault", () => {
  test("the blank one, one with a further levy, and the start of every member of the Union pass", () => {
    for (const country of UNION_MEMBERS.keys()) expect(refusal(memberStart(country)), country).toBeNull();
    expect(refusal(blankJurisdiction())).toBeNull();
    expect(refusal(withLevy(blankJurisdiction(), "BOTTLE", false))).toBeNull();
  });
  test.each<[string, OwnJurisdiction, string, string]>([
    [
      "shares that do not sum to 100",
      withComponent({
        splits: {
          invoice: [
            { share: "60", role: "output-tax" },
            { share: "30", role: "cost" },
          ],
        },
      }),
      "tax/shares",
      "codes[0].components[0].splits.invoice",
    ],
    [
      "overlapping rates",
      {
        ...blankJurisdiction(),
        schedules: { "own.STD": [rate("2020-01-01", null), rate("2024-01-01", null)] },
      },
      "tax/overlapping-rates",
      "schedules.own.STD",
    ],
    ["boxes in a circle", withBox("3", "[4] + 1"), "returns/circular-boxes", "forms[0].boxes"],
    ["a formula that does not parse", withBox("4", "[2] - ("), "formula/not-understood", "forms[0]"],
    ["a formula that calls something", withBox("4", "process.exit(1)"), "formula/not-allowed", "forms[0]"],
    [
      "a formula that runs too long",
      withBox("4", Array.from({ length: 400 }, () => "[2]").join("+")),
      "formula/too-long",
      "forms[0]",
    ],
    [
      "a levy without an account",
      withComponent(
        {},
        { accounts: blankJurisdiction().accounts.filter(({ role }) => role !== "output-tax") },
      ),
      "tax/no-account",
      "codes[0].components[0].levy",
    ],
    ["an unknown box", withComponent({ boxes: { sale: "9 +t" } }), "tax/unknown-box", "codes[0]"],
    ["an unknown levy", withComponent({ levy: "VAT" }), "tax/unknown-levy", "codes[0].components[0].levy"],
    [
      "an unknown schedule",
      withComponent({ rate: { kind: "percent", schedule: "own.NONE" } }),
      "tax/unknown-schedule",
      "codes[0].components[0].rate.schedule",
    ],
  ])("%s", (_what, own, code, field) => {
    const found = refusal(own);
    expect(found?.code).toBe(code);
    expect(found?.field).toContain(field);
  });
});

describe("which standings a contact is asked", () => {
  const site = (name: string, country: string, region: string | null, closedOn: string | null = null) => ({
    name,
    country,
    region,
    closedOn,
  });
  const asked = (...sites: ReturnType<typeof site>[]) =>
    standingsAsked(sites, [], "2026-11-25", PACKS).map(({ levy, reason }) => `${levy} ${reason}`);

  /** Common practice, no source: the question follows from where the business is and which levies that place has. */
  test("opening a place adds questions with their reason, closing it takes them away", () => {
    const workshop = site("Nelson workshop", "CA", "BC");
    expect(asked(workshop)).toEqual([
      "GST because you sell from Nelson workshop, BC",
      "BCPST because you sell from Nelson workshop, BC",
    ]);
    const depot = site("Regina depot", "CA", "SK");
    expect(asked(workshop, depot)).toContain("SKPST because you sell from Regina depot, SK");
    expect(asked(workshop, { ...depot, closedOn: "2026-11-25" })).toEqual(asked(workshop));
  });
  test("a registration asks too, while it is in force", () => {
    const registration = { pack: "ca", levies: ["QST"], from: "2026-01-01", to: "2026-06-30" };
    const on = (day: string) => standingsAsked([], [registration], day, PACKS).map(({ reason }) => reason);
    expect(on("2026-03-01")).toEqual(["because you are registered for it since 1 Jan 2026"]);
    expect(on("2026-07-01")).toEqual([]);
  });
});

describe("the first set-up", () => {
  test("proposes what the place needs, and why", () => {
    const canada = proposeSetup(
      { country: "CA", region: "SK", activity: "services", customers: ["home"] },
      PACKS,
    );
    expect(canada.registrations.map(({ levies, certain }) => [levies.join("+"), certain])).toEqual([
      ["GST+HST", true],
      ["SKPST", false],
    ]);
    expect(canada.registrations[1]?.why).toContain("Saskatchewan");
    const meadery = proposeSetup(
      { country: "AU", region: "VIC", activity: "wine", customers: ["abroad"] },
      PACKS,
    );
    expect(meadery.registrations[0]?.levies).toEqual(["GST", "WET"]);
    expect(meadery.classes.find(({ id }) => id === "wine")?.sale).toBe("WW");
    expect(meadery.abroad.map(({ code }) => code)).toEqual(["SX"]);
  });
  test("says nothing where no pack is known", () => {
    expect(
      proposeSetup({ country: "AQ", region: null, activity: "goods", customers: [] }, PACKS).pack,
    ).toBeUndefined();
  });
  test.each(PACKS.all.map((pack) => [pack.id, pack] as const))(
    "the chart of %s has an account for every levy",
    (_id, pack) => {
      for (const { levy } of PACKS.byId(pack.id).levies) {
        expect(missingRoles(pack.accounts, pack.levies, levy), levy).toEqual([]);
      }
    },
  );
  test("rhythms are said in words", () => {
    expect(rhythmInWords("quarterly", "2026-01-31")).toBe("Quarterly to January, April, July, October");
    expect(rhythmInWords("monthly", "2026-01-31")).toBe("Monthly");
    expect(rhythmInWords("annual", "2026-06-30")).toBe("Annual to June");
  });
});
