import { bookOf, dealsDone, line } from "./bookMaker.ts";
import { inventedBusinessNumber } from "./nimbusRidge.ts";
import type { Quarter } from "./quarters.ts";
import { Random } from "./random.ts";

/** Tamarack Signs: two provinces, each with its own sales tax, and customers whose standing decides. */
export function tamarackSigns(quarters: readonly Quarter[], today: string): object {
  const random = new Random(20_260_505);
  const start = quarters[0]?.from ?? today;
  const documents = dealsDone(
    quarters,
    [
      {
        kind: "sales-invoice",
        number: "TS-",
        perQuarter: [26, 32],
        parties: ["c1", "c2", "c3", "c4"],
        more: { place: "p1" },
        lines: (r) => [
          {
            text: "Shop sign, made to order",
            amount: r.amount(240, 1900),
            supply: "goods",
            taxClass: "standard",
          },
        ],
      },
      {
        kind: "sales-invoice",
        number: "TM-",
        perQuarter: [6, 10],
        parties: ["c5"],
        more: { place: "p2" },
        lines: (r) => [
          { text: "Banner and stand", amount: r.amount(120, 640), supply: "goods", taxClass: "standard" },
        ],
      },
      {
        kind: "purchase-bill",
        number: "AL-",
        perQuarter: [9, 14],
        parties: ["s1"],
        more: { place: "p1" },
        lines: (r) => [line(r, "Sheet aluminium and vinyl", [150, 980], "G5", "5000")],
      },
    ],
    random,
    today,
  );
  const plotter = {
    kind: "purchase-bill",
    number: "CP-7702",
    date: quarters[1]?.from ?? today,
    contact: "s1",
    place: "p1",
    lines: [{ text: "Cutting plotter", amount: "4200.00", code: "G5-C", account: "0100" }],
  };
  return bookOf(
    { name: "Tamarack Signs", country: "CA" },
    {
      places: [
        { id: "p1", name: "Regina shop", country: "CA", region: "SK" },
        { id: "p2", name: "Brandon stall", country: "CA", region: "MB" },
      ],
      registrations: [
        {
          id: "r1",
          pack: "ca",
          levies: ["GST", "HST"],
          number: `${inventedBusinessNumber("85520113")}RT0001`,
          from: start,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
          schemes: [
            {
              scheme: "ca-quick-method",
              from: start,
              to: null,
              settings: { seat: "federal", sells: "services", used: "" },
            },
          ],
        },
        {
          id: "r2",
          pack: "ca",
          levies: ["SKPST"],
          number: "4471208",
          from: start,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
        },
        {
          id: "r3",
          pack: "ca",
          levies: ["MBRST"],
          number: `${inventedBusinessNumber("85520113")}MT0001`,
          from: start,
          frequency: "quarterly",
          anchor: quarters[0]?.to,
        },
      ],
      contacts: [
        { id: "c1", name: "Wascana Diner", country: "CA", region: "SK" },
        {
          id: "c2",
          name: "Moose Jaw Hardware",
          country: "CA",
          region: "SK",
          standing: { GST: "registered" },
        },
        {
          id: "c3",
          name: "Qu'Appelle Print Resale",
          country: "CA",
          region: "SK",
          standing: { SKPST: "resale" },
        },
        { id: "c4", name: "Lethbridge Feeds", country: "CA", region: "AB" },
        { id: "c5", name: "Assiniboine Fairs", country: "CA", region: "MB" },
        { id: "s1", name: "Poundmaker Metals", country: "CA", region: "SK", standing: { GST: "registered" } },
      ],
      documents: [
        plotter,
        ...documents,
        {
          kind: "purchase-bill",
          number: "AL-NOCODE",
          date: quarters[4]?.from,
          contact: "s1",
          place: "p1",
          prices: "exclusive",
          lines: [{ text: "Offcuts, nobody said what tax", amount: "88.00", account: "5000" }],
        },
      ],
    },
  );
}
