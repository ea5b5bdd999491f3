import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { FiscalError } from "@fiscalon/core/errors";
import type { CopiesView, CopyView } from "@fiscalon/contract/copies";
import type { Config } from "../../config.ts";
import { COPY, PROOF } from "./backup.ts";
import type { BackupNote } from "./backup.ts";

const commandOf = (name: string) =>
  fileURLToPath(new URL(`../../../dist/across/backup/${name}.js`, import.meta.url));
const HOUR_MS = 3_600_000;
/** How many are kept where nothing is set. */
const USUAL_KEEP = 14;

/**
 * Copies of a practice: made, and restored into a new place, in a process of its own, so that nobody waits; one at a time.
 */
export class Copies {
  readonly #config: Pick<Config, "dataDir" | "backup">;
  readonly #failed: (words: string) => void;
  readonly folder: string;
  #running:
    { child: ChildProcess; what: "copy" | "restore"; name: string | null; end: Promise<void> } | undefined;
  #last: CopiesView["last"] = null;

  /** @param failed is told of what came to nothing, in words */
  constructor(config: Pick<Config, "dataDir" | "backup">, failed: (words: string) => void) {
    this.#config = config;
    this.#failed = failed;
    this.folder = config.backup?.folder ?? `${config.dataDir}-copies`;
  }

  view(): CopiesView {
    const { backup } = this.#config;
    const running = this.#running && { what: this.#running.what, name: this.#running.name };
    return {
      folder: this.folder,
      byItself: backup && { hours: backup.hours, keep: backup.keep },
      copies: copiesIn(this.folder),
      running: running ?? null,
      last: this.#last,
    };
  }

  /** @throws FiscalError `copies/running` */
  make(): void {
    const keep = this.#config.backup?.keep ?? USUAL_KEEP;
    this.#run("copy", null, "backupCommand", [this.folder, String(keep)]);
  }

  /**
   * Restores a copy beside the copies, and proves that the same figures are there.
   * @throws FiscalError `copies/running`, `copies/unknown`
   */
  restore(name: string): void {
    if (!copiesIn(this.folder).some((copy) => copy.name === name))
      throw new FiscalError("copies/unknown", `There is no copy ${name} in ${this.folder}.`);
    const moment = new Date().toISOString().replace(/[:.]/g, "-");
    const target = join(this.folder, `restored-${moment}`);
    this.#run("restore", name, "restoreCommand", [join(this.folder, name), target]);
  }

  /** Breaks off what runs; what was begun is left unfinished, and taken away in time. */
  cancel(): void {
    this.#running?.child.kill();
  }

  /** Makes one where the last is older than the hours set. */
  makeWhenDue(): void {
    const { backup } = this.#config;
    if (backup === null || this.#running) return;
    const newest = Math.max(0, ...copiesIn(this.folder).map(({ made }) => Date.parse(made)));
    if (Date.now() - newest >= backup.hours * HOUR_MS) this.make();
  }

  async end(): Promise<void> {
    this.cancel();
    await this.#running?.end;
  }

  #run(what: "copy" | "restore", name: string | null, command: string, args: string[]): void {
    if (this.#running)
      throw new FiscalError(
        "copies/running",
        "A copy is being worked on. Wait for its end, or break it off.",
      );
    const child = spawn(process.execPath, [commandOf(command), ...args], {
      env: { ...process.env, FISCALON_DATA: this.#config.dataDir },
      stdio: ["ignore", "pipe", "pipe"],
    });
    let said = "";
    for (const stream of [child.stdout, child.stderr])
      stream.on("data", (text: Buffer) => (said += text.toString()));
    const end = new Promise<void>((ended) =>
      child.once("close", (code, signal) => {
        const says = signal ? "It was broken off." : said.trim();
        this.#last = { ok: code === 0, says };
        if (code !== 0)
          this.#failed(
            `${what === "copy" ? "No copy was made" : "Nothing was restored"} in ${this.folder}. ${says}`,
          );
        this.#running = undefined;
        ended();
      }),
    );
    this.#running = { child, what, name, end };
  }
}

/** Finished copies in a folder, newest first. */
function copiesIn(folder: string): CopyView[] {
  if (!existsSync(folder)) return [];
  const names = readdirSync(folder).filter(
    (name) => COPY.test(name) && existsSync(join(folder, name, PROOF)),
  );
  return names
    .sort()
    .reverse()
    .map((name) => {
      const { made, proof } = JSON.parse(readFileSync(join(folder, name, PROOF), "utf8")) as BackupNote;
      const sum = (what: "documents" | "files") =>
        proof.clients.reduce((total, client) => total + client[what], 0);
      return { name, made, clients: proof.clients.length, documents: sum("documents"), papers: sum("files") };
    });
}
