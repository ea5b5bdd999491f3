import { chart } from "../shared/chart.ts";

export const accounts = chart({ outOfScope: "DO", exempt: "DN", export: "VZ", blocked: "DB" }, [
  {
    levy: "VAT",
    name: "VAT",
    at: 2200,
    authority: "the BIR",
    input: true,
    carried: true,
    scheme: true,
  },
]);
