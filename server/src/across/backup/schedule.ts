import { spawn } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";
import { fileURLToPath } from "node:url";
import type { FastifyInstance } from "fastify";
import type { Config } from "../../config.ts";
import { COPY } from "./backup.ts";

const COMMAND = fileURLToPath(new URL("../../../dist/across/backup/backupCommand.js", import.meta.url));
const HOUR_MS = 3_600_000;
/** How often it is looked whether a copy is due. */
const LOOK_MS = 5 * 60_000;

/**
 * Makes copies by itself while the server runs, where a folder for them is set: in a process of its own, so that nobody
 * waits, and no sooner than the hours set after the last one, whoever made it. One that fails is logged and tried again.
 */
export function backUpByItself(app: FastifyInstance, { dataDir, backup }: Config): void {
  if (backup === null) return;
  const { folder, hours, keep } = backup;
  let running: Promise<void> | undefined;
  let child: ReturnType<typeof spawn> | undefined;
  const copy = async () => {
    child = spawn(process.execPath, [COMMAND, folder, String(keep)], {
      env: { ...process.env, FISCALON_DATA: dataDir },
      stdio: ["ignore", "ignore", "pipe"],
    });
    let said = "";
    child.stderr?.on("data", (text: Buffer) => (said += text.toString()));
    const code = await new Promise<number | null>((ended) => child?.once("exit", ended));
    if (code !== 0) app.log.error(`No copy was made in ${folder}. ${said.trim()}`);
  };
  const look = () => {
    if (running !== undefined || Date.now() - lastCopy(folder) < hours * HOUR_MS) return;
    running = copy().finally(() => (running = undefined));
  };
  const timer = setInterval(look, LOOK_MS).unref();
  app.addHook("onListen", async () => look());
  app.addHook("preClose", async () => {
    clearInterval(timer);
    child?.kill();
    await running;
  });
}

/** When the newest copy in a folder was made, in milliseconds; 0 where there is none. Its name says it. */
function lastCopy(folder: string): number {
  if (!existsSync(folder)) return 0;
  const moments = readdirSync(folder).flatMap((name) => {
    const made = COPY.exec(name)?.groups;
    return made ? [Date.parse(`${made["day"]}T${made["h"]}:${made["m"]}:${made["s"]}Z`)] : [];
  });
  return Math.max(0, ...moments);
}
