import fc from "fast-check";
import { afterAll, beforeAll, expect, test } from "vitest";
import type { ControlAgreementView } from "@fiscalon/contract/settlement";
import type { PeriodTile, ReturnView, StationCounts } from "@fiscalon/contract/returns";
import type { AgencyPosition } from "@fiscalon/contract/views";
import { LANDS } from "./support/lands.ts";
import { act, Books } from "./support/life.ts";
import { startServer } from "./support/testServer.ts";
import type { TestServer } from "./support/testServer.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

/**
 * The frame around every screen asks for counts and nets alone, so that it waits for no screen; they are those of the
 * screens all the same.
 */
test.each(Object.entries(LANDS))(
  "%s: what the frame tells of each period is what its screens tell",
  async (_name, land) => {
    const books = await Books.begin(server, land);
    for (const one of fc.sample(act, { seed: 21, numRuns: 24 })) await books.perform(one);
    const { base, registration } = books;
    const rid = Number(registration.split("/").at(-1));
    const tiles = await server.ok<PeriodTile[]>("GET", `${registration}/periods`);
    const positions = await server.ok<AgencyPosition[]>("GET", `${base}/positions`);
    const position = positions.find(({ registration: id }) => id === rid);
    const told = [...(position?.due ?? []), ...(position?.running ? [position.running] : [])];
    for (const end of land.ends) {
      const view = await server.ok<ReturnView>("GET", `${registration}/returns/${end}`);
      const agreement = await server.ok<ControlAgreementView>(
        "GET",
        `${registration}/agreements/${end}/control`,
      );
      const counts = await server.ok<StationCounts>("GET", `${registration}/stations/${end}`);
      const unanswered = view.findings.filter(({ accepted }) => accepted === null);
      expect([end, counts.findings, counts.stops, counts.left]).toEqual([
        end,
        unanswered.length,
        unanswered.filter(({ severity }) => severity === "stop").length,
        agreement.left,
      ]);
      const tile = tiles.find(({ to }) => to === end);
      expect([end, tile?.net, tile?.due, tile?.state === "ahead" ? "open" : tile?.state]).toEqual([
        end,
        view.net,
        view.due,
        view.state,
      ]);
      const waiting = told.find(({ to }) => to === end);
      if (waiting) {
        expect([end, waiting.net, waiting.due]).toEqual([end, view.net, view.due]);
        expect(["open", "in-review", "sealed"]).toContain(view.state);
      }
    }
  },
);
