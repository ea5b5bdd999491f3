import { chart } from "../shared/chart.ts";
import { oneStop } from "./oneStop.ts";

export const accounts = chart({ outOfScope: "OS", exempt: "EX", export: "XG", blocked: "BL" }, [
  { levy: "VAT", name: "VAT", at: 2200, authority: "Revenue", input: true, scheme: true },
  oneStop.account,
]);
