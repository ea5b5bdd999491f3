import Papa from "papaparse";
import { actorNow } from "../actor.ts";
import { Database } from "../db/database.ts";
import { createClient } from "../features/clients/createClient.ts";
import { checkImport, postImport } from "../features/imports/runImport.ts";
import { receiveFile } from "../features/imports/service.ts";
import { UNWATCHED } from "../jobs/task.ts";
import type { BenchRow } from "./report.ts";
import { bestTime, perSecond } from "./report.ts";

const ROWS = 50_000;

/** A register imported end to end (receive, dry run, post), beside the time the CSV parser alone takes. */
export async function importBench(dataDir: string): Promise<BenchRow[]> {
  const text = register();
  const parsing = await bestTime(3, () => Papa.parse<string[]>(text, { delimiter: "," }));
  const db = await Database.open(dataDir, "Bench");
  const clientId = await db.write((tx) =>
    createClient(db, tx, actorNow(), {
      name: "Bench",
      country: "GB",
      registration: { pack: "gb", from: "2025-01-01", to: null, frequency: "quarterly", basis: "accrual" },
    }),
  );
  const content = Buffer.from(text);
  const importId = await receiveFile(db, dataDir, actorNow(), clientId, {
    direction: "sale",
    name: "bench.csv",
    bytes: content,
  });
  const start = performance.now();
  await checkImport(db, dataDir, clientId, importId, UNWATCHED);
  const checked = performance.now();
  await postImport(db, dataDir, actorNow(), clientId, importId, UNWATCHED);
  const posted = performance.now();
  await db.close();
  const row = (what: string, time: number): BenchRow => ({
    what,
    ours: perSecond(ROWS, time),
    reference: `parser alone ${perSecond(ROWS, parsing)}`,
    ratio: time / parsing,
  });
  return [
    row("rows checked in a dry run of a 50,000-row register", checked - start),
    row("rows posted from it, entries and facts written", posted - checked),
  ];
}

function register(): string {
  const lines = ["Invoice No,Date,Customer,Details,Net,VAT,Gross"];
  for (let n = 0; n < ROWS; n += 1) {
    const net = 1000 + ((n * 7919) % 90_000);
    const tax = Math.floor((net * 20 + 50) / 100);
    const money = (pence: number) => (pence / 100).toFixed(2);
    const day = String(1 + (n % 28)).padStart(2, "0");
    lines.push(
      `B${n},${day}/05/2026,Customer ${n % 400},Goods,${money(net)},${money(tax)},${money(net + tax)}`,
    );
  }
  return lines.join("\n");
}
