import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { documentBody } from "@fiscalon/contract/document";
import type { ContactView, DocumentView, ItemView } from "@fiscalon/contract/views";
import { setupFromPlain } from "@fiscalon/core/facts/plainSetup";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { kindsWhere } from "@fiscalon/core/model/documentKinds";
import { Packs } from "@fiscalon/core/model/packs";
import { SHIPPED } from "@fiscalon/core/packs/shipped";
import {
  BLANK_LINE,
  blankDraft,
  bodyOf,
  copyOf,
  creditNoteOf,
  draftOfBody,
  inputOf,
  isBlank,
  lineInput,
} from "../src/features/documents/draft.ts";
import type { Draft, DraftAround, DraftLine } from "../src/features/documents/draft.ts";
import { lineFromItem, withProposals } from "../src/features/documents/proposals.ts";

const line = (part: Partial<DraftLine>): DraftLine => ({ ...BLANK_LINE, ...part });
const draft = (part: Partial<Draft>): Draft => ({
  ...blankDraft("sales-invoice"),
  date: "2026-05-11",
  ...part,
});
const AROUND: DraftAround = { places: [], items: [], original: null, recordedRates: undefined };
const REED = { id: 7, name: "Reed & Co", country: "GB", standing: {} } as unknown as ContactView;

describe("what is typed becomes what is sent", () => {
  test("blank lines are left out, and the computation knows which line is which", () => {
    const typed = draft({
      lines: [line({ text: " " }), line({ amount: "10" }), line({}), line({ tax: "2" })],
    });
    expect(bodyOf(typed).lines).toEqual([{ amount: "10" }, { amount: "0", typedTotal: "2" }]);
    expect(inputOf(typed, AROUND).at).toEqual([1, 3]);
    expect(isBlank(line({ account: "4000", code: "S20" }))).toBe(true);
  });

  test.each([
    ["thousands and the long minus", { amount: " −1,234.50 " }, { amount: "-1234.50" }],
    ["a share off", { amount: "1", discount: "5 %" }, { amount: "1", discount: { percent: "5" } }],
    ["an amount off", { amount: "1", discount: "1,000" }, { amount: "1", discount: { amount: "1000" } }],
    ["one tax figure", { amount: "1", tax: "0.20" }, { amount: "1", typedTotal: "0.20" }],
    ["of one levy", { amount: "1", tax: "0.20", taxOf: "GST" }, { amount: "1", typedTax: { GST: "0.20" } }],
    [
      "levy by levy, which counts before the one figure",
      { amount: "1", tax: "9", taxes: { CGST: "0.09", SGST: " ", IGST: "" } },
      { amount: "1", typedTax: { CGST: "0.09" } },
    ],
    ["a tax without a value", { tax: "12" }, { amount: "0", typedTotal: "12" }],
    [
      "a code and who chose it",
      { amount: "1", code: "S20" },
      { amount: "1", code: "S20", codeReason: "typed" },
    ],
    [
      "what the code asks for, without empty answers",
      { amount: "1", attributes: { cost: " 5 ", place: "" } },
      { amount: "1", attributes: { cost: "5" } },
    ],
  ])("%s", (_, typed, sent) => expect(lineInput(line(typed))).toEqual(sent));

  test("a rate of exchange only beside another currency", () => {
    expect(bodyOf(draft({ rate: "0.85" }))).not.toHaveProperty("exchange");
    expect(bodyOf(draft({ currency: "EUR", rate: "0.85", rateSource: " ECB " }))).toMatchObject({
      currency: "EUR",
      exchange: { rate: "0.85", source: "ECB" },
    });
  });
});

const decimal = fc.integer({ min: -99_999, max: 99_999 }).map((cents) => (cents / 100).toFixed(2));
const words = fc.constantFrom("", "Bowls", "Jug, large");
const anyLine = fc.record({
  text: words,
  amount: fc.oneof(fc.constant(""), decimal),
  quantity: fc.constantFrom("", "3", "0.5"),
  unitPrice: fc.constantFrom("", "12.50"),
  prices: fc.constantFrom("" as const, "exclusive" as const, "inclusive" as const),
  discount: fc.constantFrom("", "5%", "1.00"),
  code: fc.constantFrom("", "S20"),
  supply: fc.constantFrom("" as const, "goods" as const),
  taxClass: fc.constantFrom("", "zero"),
  account: fc.constantFrom("", "4000"),
});
const anyDraft = fc.record({
  kind: fc.constantFrom(...kindsWhere(({ entry, direction }) => entry === "typed" && direction !== null)),
  number: fc.constantFrom("", "A-1"),
  prices: fc.constantFrom("exclusive" as const, "inclusive" as const),
  taxPoint: fc.constantFrom("", "2026-05-01"),
  currency: fc.constantFrom("", "EUR"),
  rate: fc.constantFrom("", "0.8734"),
  note: words,
  opening: fc.boolean(),
  discount: fc.constantFrom("", "2.5%"),
  tax: fc.constantFrom("", "3.00"),
  corrects: fc.constantFrom("", "SI-1"),
  lines: fc.array(anyLine, { maxLength: 5 }),
});

test("any draft: what is sent fits the schema of the API, and typed on from there it sends the same again", () => {
  fc.assert(
    fc.property(anyDraft, (parts) => {
      const typed = draft({ ...parts, lines: parts.lines.map(line) });
      const body = bodyOf(typed);
      if (body.lines.length > 0) expect(documentBody.validate(body).error?.message).toBeUndefined();
      const again = bodyOf(draftOfBody(JSON.parse(JSON.stringify(body)) as typeof body, null));
      expect(again).toEqual(body);
    }),
    { numRuns: 300 },
  );
});

describe("a new document from one that is there", () => {
  const posted = (kind: "sales-invoice" | "journal" | "sales-credit-note"): DocumentView =>
    ({
      id: 5,
      state: "posted",
      input: {
        kind,
        number: "SI-5",
        date: "2026-04-01",
        taxPoint: "2026-03-30",
        prices: "exclusive",
        note: "thanks",
        lines: [{ amount: "100.00", code: "S20", codeReason: "typed" }],
      },
      place: null,
      contact: REED,
      foreignGross: null,
    }) as unknown as DocumentView;

  test("a copy has today's date, no number and no tax point", () =>
    expect(copyOf(posted("sales-invoice"))).toMatchObject({ number: "", taxPoint: "", contact: REED }));

  test("a credit note names what it corrects and keeps the date whose rate counts", () => {
    expect(creditNoteOf(posted("sales-invoice"))).toMatchObject({
      kind: "sales-credit-note",
      corrects: "SI-5",
      originalDate: "2026-03-30",
      number: "",
    });
    expect(creditNoteOf(posted("sales-credit-note"))).toBeNull();
    expect(creditNoteOf(posted("journal"))).toBeNull();
  });
});

describe("codes are proposed while typing, by what the server posts with", () => {
  const packs = new Packs(SHIPPED);
  const gb = packs.byId("gb");
  const plain = {
    digits: 2,
    currency: "GBP",
    codes: gb.codes,
    archived: [],
    rules: gb.rules,
    schedules: gb.schedules,
    accounts: gb.accounts,
    registrations: [],
    places: [
      {
        id: 1,
        name: "Falmouth",
        country: "GB",
        region: null,
        closedOn: null,
        saleCode: null,
        purchaseCode: null,
      },
    ],
    saleCode: "S20",
    purchaseCode: "S20",
    sealed: [],
    today: "2026-11-01",
  } as unknown as PlainSetup;
  const setup = setupFromPlain(plain, packs);
  const around: DraftAround = { ...AROUND, places: plain.places };
  const proposed = (part: Partial<Draft>) => withProposals(draft(part), setup, around).lines;

  test("the usual code, with its sentence; nothing on a line that is not begun; a typed code stays", () => {
    const lines = [line({ amount: "1" }), line({}), line({ amount: "1", code: "Z", codeTyped: true })];
    expect(proposed({ lines }).map(({ code, codeReason }) => [code, codeReason])).toEqual([
      ["S20", "the business's usual sale code"],
      ["", ""],
      ["Z", ""],
    ]);
  });

  test("a customer abroad: the line asks for the one thing that decides, and takes the code once it is said", () => {
    const contact = { ...REED, country: "NO", registered: null, taxNumber: null };
    const [asking] = proposed({ contact, lines: [line({ amount: "1" })] });
    expect([asking?.code, asking?.asks?.about]).toEqual(["", "supply"]);
    const [told] = proposed({ contact, lines: [line({ amount: "1", supply: "goods" })] });
    expect([told?.code, told?.asks]).toEqual(["XG", null]);
  });

  test("a line that did not change stays the same object, so that its row is not drawn again", () => {
    const one = draft({ lines: [line({ amount: "1" }), line({ amount: "2" })] });
    const first = withProposals(one, setup, around);
    const changed = { ...one, lines: [line({ amount: "1.5" }), ...one.lines.slice(1)] };
    const second = withProposals(changed, setup, around);
    expect(second.lines[1]).toBe(first.lines[1]);
    expect(second.lines[0]).not.toBe(first.lines[0]);
  });

  test("an item fills what is empty and leaves what was typed", () => {
    const item = {
      ref: "bowl",
      name: "Bowl",
      unitPrice: "12.50",
      saleAccount: "4000",
      supply: "goods",
      taxClass: null,
    } as unknown as ItemView;
    expect(lineFromItem(line({ text: "Blue bowl" }), item, "sale")).toMatchObject({
      item: "bowl",
      text: "Blue bowl",
      unitPrice: "12.50",
      quantity: "1",
      account: "4000",
      supply: "goods",
    });
  });
});
