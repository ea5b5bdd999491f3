import type { ReasonAsked } from "./AskReason.tsx";
import { onDemand } from "./onDemand.tsx";

const AskReason = onDemand<ReasonAsked>(() => import("./AskReason.tsx").then((one) => one.AskReason));

/** Asks for a reason before something unusual is done. */
export function ReasonDialog({ open, ...asked }: ReasonAsked & { open: boolean }) {
  return open ? <AskReason {...asked} /> : null;
}
