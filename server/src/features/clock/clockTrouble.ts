import { displayMoment } from "@fiscalon/core/calendar/displayDate";
import type { Work } from "../../base/work.ts";

/** Clocks are put right by seconds all the time; what is more than this was moved. */
const MOVED_MS = 10 * 60_000;

/** When this process began by the clock of the machine, counted back by one that nobody can move. */
const began = Date.now() - performance.now();

/**
 * Why the clock of this machine is not to be trusted: it was moved while the server ran, or what was recorded last is
 * still to come by it.
 */
export async function clockTrouble(work: Work): Promise<string | null> {
  const moved = Date.now() - performance.now() - began;
  if (Math.abs(moved) > MOVED_MS)
    return `The clock of this machine was moved ${moved > 0 ? "ahead" : "back"} by ${inWords(Math.abs(moved))} while Fiscalon ran. Look whether it is right before anything is sealed or filed.`;
  const last = await work.row<{ at: string }>("SELECT at FROM changes ORDER BY id DESC LIMIT 1");
  if (!last || Date.parse(last.at) <= Date.parse(work.at) + MOVED_MS) return null;
  return `Something was recorded on ${displayMoment(last.at)}, and by the clock of this machine it is only ${displayMoment(work.at)}. Put the clock right before anything is sealed or filed.`;
}

function inWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  return minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
}
