import type { JurisdictionPack } from "../model/pack.ts";
import { ae } from "./ae/pack.ts";
import { au } from "./au/pack.ts";
import { ca } from "./ca/pack.ts";
import { de } from "./de/pack.ts";
import { gb } from "./gb/pack.ts";
import { ie } from "./ie/pack.ts";
import { inPack } from "./in/pack.ts";
import { nz } from "./nz/pack.ts";
import { ph } from "./ph/pack.ts";
import { sg } from "./sg/pack.ts";
import { us } from "./us/pack.ts";
import { za } from "./za/pack.ts";

/** Every pack that ships. */
export const SHIPPED: readonly JurisdictionPack[] = [gb, ie, ca, au, nz, sg, inPack, ae, za, de, us, ph];
