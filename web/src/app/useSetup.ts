import { useMemo } from "react";
import { setupFromPlain } from "@fiscalon/core/facts/plainSetup";
import { usePacks } from "../api/packs.ts";
import { usePlainSetup } from "./records.ts";

/** The client's set-up, as the server has it and as core wants it: with all jurisdictions, to work out documents. */
export function useSetup() {
  const packs = usePacks();
  const plain = usePlainSetup();
  return useMemo(() => (plain ? { plain, effect: setupFromPlain(plain, packs) } : undefined), [plain, packs]);
}
