import { chart } from "../shared/chart.ts";

export const accounts = chart({ outOfScope: "OP", exempt: "EP", export: "Z", blocked: "BL" }, [
  { levy: "GST", name: "GST", at: 2200, authority: "IRAS", input: true, scheme: true },
]);
