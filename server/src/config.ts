import { join } from "node:path";

/** What can be set from outside, all by environment variables (README, "Settings"). */
export interface Config {
  dataDir: string;
  host: string;
  port: number;
  /** Name of the person seeded into a new database; there is no sign-in yet. */
  person: string;
  /** Base address of the tax authority; empty means the simulator that ships with the server. */
  authorityUrl: string;
  /** Whether the simulators of authority, bank, card terminals and number register answer. */
  simulators: boolean;
  logLevel: string;
  /** Further names this server is reached by, beside localhost, its own name and its addresses. */
  hosts: readonly string[];
  /** Where copies are made by itself, how many hours apart, and how many are kept; null where none are. */
  backup: { folder: string; hours: number; keep: number } | null;
  /** The file with the passphrase copies are sealed with; null where they are not. */
  backupKey: string | null;
  /** The folder into which it is noted, signed, where the audit trails end. */
  digests: string;
}

export function configFromEnvironment(env: NodeJS.ProcessEnv): Config {
  const dataDir = env["FISCALON_DATA"] ?? join(process.cwd(), ".data");
  return {
    dataDir,
    digests: env["FISCALON_DIGESTS"] || join(dataDir, "digests"),
    host: env["FISCALON_HOST"] ?? "127.0.0.1",
    port: Number(env["FISCALON_PORT"] ?? 4600),
    person: env["FISCALON_PERSON"] ?? "Practice owner",
    authorityUrl: env["FISCALON_AUTHORITY_URL"] ?? "",
    simulators: env["FISCALON_SIMULATORS"] !== "off",
    logLevel: env["FISCALON_LOG"] ?? "info",
    backup: env["FISCALON_BACKUP"]
      ? {
          folder: env["FISCALON_BACKUP"],
          hours: positive(env, "FISCALON_BACKUP_HOURS", 24),
          keep: positive(env, "FISCALON_BACKUP_KEEP", 14),
        }
      : null,
    backupKey: env["FISCALON_BACKUP_KEY"] || null,
    hosts: (env["FISCALON_HOSTS"] ?? "").split(",").flatMap((host) => host.trim() || []),
  };
}

/** @throws Error in words where it is no number above nought */
function positive(env: NodeJS.ProcessEnv, name: string, usual: number): number {
  const number = Number(env[name] ?? usual);
  if (number > 0) return number;
  throw new Error(
    `${name} is ${String(env[name])}. Set it to a number above 0, or leave it away for ${usual}.`,
  );
}
