import type { AgencyPosition } from "@fiscalon/contract/views";
import type { Work } from "../../base/work.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import { periodTiles } from "../../books/returns/periods.ts";

const DONE = new Set(["filed", "settled"]);

/** By registration: what is due now (ended and not filed), and what builds up for the running period. */
export async function agencyPositions(work: Work, clientId: number): Promise<AgencyPosition[]> {
  const { registrations } = await loadSetup(work, clientId);
  const now = work.today;
  const positions: AgencyPosition[] = [];
  for (const r of registrations) {
    const tiles = await periodTiles(work, r);
    const ended = tiles.filter((tile) => tile.to < now && !DONE.has(tile.state));
    const inUse = ended.filter((tile) => tile.output !== 0 || tile.input !== 0 || tile === ended.at(-1));
    const running = tiles.find((tile) => tile.from <= now && now <= tile.to);
    positions.push({
      registration: r.id,
      due: inUse.map(({ from, to, due, net, state }) => ({ from, to, due, net, state })),
      running: running
        ? { from: running.from, to: running.to, due: running.due, net: running.net, state: running.state }
        : null,
    });
  }
  return positions;
}
