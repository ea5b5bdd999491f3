import type { JurisdictionPack } from "../model/pack.ts";

/** A pack that ships and is fetched when it is needed. */
export interface PackOnDemand {
  /** Its id and other names of it. */
  names: readonly string[];
  /** ISO 3166 alpha-2. */
  country: string;
  load: () => Promise<JurisdictionPack>;
}

/** The packs of `shipped.ts` one by one, in the same order, for who does not need all of them. */
export const ON_DEMAND: readonly PackOnDemand[] = [
  { names: ["gb", "uk"], country: "GB", load: async () => (await import("./gb/pack.ts")).gb },
  { names: ["ie"], country: "IE", load: async () => (await import("./ie/pack.ts")).ie },
  { names: ["ca"], country: "CA", load: async () => (await import("./ca/pack.ts")).ca },
  { names: ["au"], country: "AU", load: async () => (await import("./au/pack.ts")).au },
  { names: ["nz"], country: "NZ", load: async () => (await import("./nz/pack.ts")).nz },
  { names: ["sg"], country: "SG", load: async () => (await import("./sg/pack.ts")).sg },
  { names: ["in"], country: "IN", load: async () => (await import("./in/pack.ts")).inPack },
  { names: ["ae"], country: "AE", load: async () => (await import("./ae/pack.ts")).ae },
  { names: ["za"], country: "ZA", load: async () => (await import("./za/pack.ts")).za },
  { names: ["eu-de", "de", "eu"], country: "DE", load: async () => (await import("./de/pack.ts")).de },
  { names: ["us"], country: "US", load: async () => (await import("./us/pack.ts")).us },
  { names: ["ph"], country: "PH", load: async () => (await import("./ph/pack.ts")).ph },
];
