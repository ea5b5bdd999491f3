import { chart } from "../shared/chart.ts";
import { oneStop } from "./oneStop.ts";

export const accounts = chart({ outOfScope: "V0", exempt: "V0", export: "EXP", blocked: "VN" }, [
  { levy: "VAT", name: "VAT", at: 2200, authority: "the tax office", input: true, scheme: true },
  oneStop.account,
]);
