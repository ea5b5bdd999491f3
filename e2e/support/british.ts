import { send } from "./api.ts";
import type { RunningServer } from "./server.ts";

/** A client in Great Britain that declares by the quarter, to try things with. */
export function british(server: RunningServer, name: string, registration: object = {}) {
  return send(server, "POST", "/api/clients", {
    name,
    country: "GB",
    place: { name: "Shop", country: "GB" },
    registration: {
      pack: "gb",
      from: "2026-01-01",
      frequency: "quarterly",
      anchor: "2026-03-31",
      number: "",
      ...registration,
    },
  });
}
