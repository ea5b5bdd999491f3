import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../../books/loadSetup.ts";

export interface TrailScope {
  work: Work;
  setup: ClientSetup;
}
