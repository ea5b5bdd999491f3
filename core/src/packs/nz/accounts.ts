import { chart } from "../shared/chart.ts";

export const accounts = chart({ outOfScope: "P0", exempt: "P0", export: "SZ", blocked: "PB" }, [
  { levy: "GST", name: "GST", at: 2200, authority: "Inland Revenue", input: true },
]);
