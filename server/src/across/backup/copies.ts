import { spawn } from "node:child_process";
import type { ChildProcess } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { FiscalError } from "@fiscalon/core/errors";
import type { CopiesView, CopyView } from "@fiscalon/contract/copies";
import type { Config } from "../../config.ts";
import { COPY } from "./backup.ts";
import { isCopy, noteOf } from "./copyFolder.ts";
import { isSealed, passphraseIn } from "./sealing.ts";

const commandOf = (name: string) =>
  fileURLToPath(new URL(`../../../dist/across/backup/${name}.js`, import.meta.url));
const HOUR_MS = 3_600_000;
/** How many are kept where nothing is set. */
const USUAL_KEEP = 14;

/**
 * Copies of a practice: made, and restored into a new place, in a process of its own, so that nobody waits; one at a time.
 */
export class Copies {
  readonly #config: Pick<Config, "dataDir" | "backup" | "backupKey">;
  readonly #failed: (words: string) => void;
  readonly folder: string;
  #running:
    { child: ChildProcess; what: "copy" | "restore"; name: string | null; end: Promise<void> } | undefined;
  #last: CopiesView["last"] = null;
  /** Finished copies that were read: they never change. */
  readonly #opened = new Map<string, CopyView>();

  /** @param failed is told of what came to nothing, in words */
  constructor(config: Pick<Config, "dataDir" | "backup" | "backupKey">, failed: (words: string) => void) {
    this.#config = config;
    this.#failed = failed;
    this.folder = config.backup?.folder ?? `${config.dataDir}-copies`;
  }

  async view(): Promise<CopiesView> {
    const { backup, backupKey } = this.#config;
    const running = this.#running && { what: this.#running.what, name: this.#running.name };
    return {
      folder: this.folder,
      byItself: backup && { hours: backup.hours, keep: backup.keep },
      copies: await this.#copies(),
      sealed: backupKey !== null,
      running: running ?? null,
      last: this.#last,
    };
  }

  /** Newest first, one after the other: to open a sealed one takes a while, and 32 MB. */
  async #copies(): Promise<CopyView[]> {
    const views: CopyView[] = [];
    for (const name of copiesIn(this.folder)) {
      const view = this.#opened.get(name) ?? (await copyView(this.folder, name, this.#config.backupKey));
      if (view.holds !== null) this.#opened.set(name, view);
      views.push(view);
    }
    return views;
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
    if (!copiesIn(this.folder).includes(name))
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
    const newest = Math.max(0, ...copiesIn(this.folder).map((name) => Date.parse(madeOf(name))));
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

/** The names of finished copies in a folder, newest first. */
function copiesIn(folder: string): string[] {
  if (!existsSync(folder)) return [];
  const names = readdirSync(folder).filter((name) => COPY.test(name) && isCopy(join(folder, name)));
  return names.sort().reverse();
}

/** What was proved of a copy; of one that is sealed only with its passphrase. */
async function copyView(folder: string, name: string, key: string | null): Promise<CopyView> {
  const copy = join(folder, name);
  const view = { name, made: madeOf(name), sealed: isSealed(copy) };
  try {
    const { proof } = await noteOf(copy, view.sealed && key !== null ? passphraseIn(key) : null);
    const sum = (what: "documents" | "files") =>
      proof.clients.reduce((total, client) => total + client[what], 0);
    return {
      ...view,
      holds: { clients: proof.clients.length, documents: sum("documents"), papers: sum("files") },
      closed: null,
    };
  } catch (error) {
    return { ...view, holds: null, closed: (error as Error).message };
  }
}

/** When a copy was made, by its name. */
function madeOf(name: string): string {
  const { day, h, m, s, ms } = COPY.exec(name)?.groups ?? {};
  return `${day}T${h}:${m}:${s}.${ms}Z`;
}
