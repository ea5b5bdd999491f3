import { oneStopShop } from "../eu/oneStopShop.ts";

/** The one-stop shop of businesses identified in Ireland. */
export const oneStop = oneStopShop(
  "ie",
  "IE",
  "Revenue",
  {
    home: "S23",
    toBusiness: "EUSV",
    outside: "XS",
    bought: "S23",
    unregistered: "NR",
    fromUnion: "EUP",
    fromOutside: "RCN",
  },
  ["reduced", "second-reduced"],
);
