import type { Account } from "../../model/account.ts";
import { chart } from "../shared/chart.ts";

const AUTHORITY = "the Government";
const running = (levy: string, name: string, at: number) =>
  ({ levy, name, at, authority: AUTHORITY, input: true, held: true, only: "running" }) as const;

const ofIncomeTax: Account[] = [
  {
    code: "2350",
    name: "Income tax collected at source",
    type: "liability",
    role: "collected-at-source",
    levy: null,
    topic: null,
    usualCode: "TCS",
  },
  {
    code: "1295",
    name: "Tax deducted from us, s.51 and s.52",
    type: "asset",
    role: "deducted-at-source",
    levy: null,
    topic: null,
    usualCode: null,
  },
];

const ofGst = chart({ outOfScope: "OS", exempt: "PE", export: "EXL" }, [
  running("CGST", "CGST", 2200),
  running("SGST", "SGST", 2210),
  running("UTGST", "UTGST", 2220),
  running("IGST", "IGST", 2230),
  running("CESS", "cess", 2240),
  {
    levy: "CGST/SGST/UTGST/IGST/CESS",
    name: "GST",
    at: 2290,
    authority: AUTHORITY,
    input: false,
    carried: true,
    scheme: true,
    only: "shared",
  },
  { levy: "SVAT", name: "state VAT", at: 2300, authority: "the State", input: true, only: "running" },
  { levy: "CST", name: "central sales tax", at: 2310, authority: "the State", input: false, only: "running" },
  { levy: "SVAT/CST", name: "VAT and CST", at: 2390, authority: "the State", input: false, only: "shared" },
]);

export const accounts: Account[] = [...ofGst, ...ofIncomeTax].sort((a, b) => (a.code < b.code ? -1 : 1));
