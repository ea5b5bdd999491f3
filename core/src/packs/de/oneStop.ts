import { oneStopShop } from "../eu/oneStopShop.ts";

/** The one-stop shop of businesses identified in Germany. */
export const oneStop = oneStopShop(
  "eu-de",
  "DE",
  "the Federal Central Tax Office",
  {
    home: "S19",
    toBusiness: "IGS",
    outside: "NSB",
    bought: "V19",
    unregistered: "V0",
    fromUnion: "R46",
    fromOutside: "R84",
  },
  ["reduced"],
);
