import { mkdirSync } from "node:fs";
import { join } from "node:path";
import sqlite3 from "sqlite3";

/**
 * Holds a data folder for this process, so that no second server works on it. The system gives it free when the process
 * ends, however it ends.
 * @returns what gives it free
 * @throws Error in words, where another one holds it or it cannot be written
 */
export async function holdFolder(dataDir: string): Promise<() => Promise<void>> {
  try {
    mkdirSync(dataDir, { recursive: true });
  } catch (error) {
    throw new Error(
      `The data folder ${dataDir} cannot be made: ${(error as Error).message}. Choose another with FISCALON_DATA.`,
      { cause: error },
    );
  }
  const lock = await opened(join(dataDir, "server.lock"));
  try {
    await run(lock, "PRAGMA locking_mode = EXCLUSIVE");
    await run(lock, "BEGIN EXCLUSIVE");
  } catch (error) {
    await closed(lock);
    const busy = (error as { code?: string }).code === "SQLITE_BUSY";
    throw new Error(
      busy
        ? `Another Fiscalon server works on ${dataDir}. Stop it, or choose another folder with FISCALON_DATA.`
        : `The data folder ${dataDir} cannot be written: ${(error as Error).message}. Check its rights and its space.`,
      { cause: error },
    );
  }
  return () => closed(lock);
}

function opened(file: string): Promise<sqlite3.Database> {
  return new Promise((done, failed) => {
    const lock = new sqlite3.Database(file, (error) => {
      if (error)
        failed(
          new Error(`The data folder cannot be written: ${error.message}. Check its rights and its space.`),
        );
      else done(lock);
    });
  });
}

function run(lock: sqlite3.Database, sql: string): Promise<void> {
  return new Promise((done, failed) => {
    lock.run(sql, (error) => (error ? failed(error) : done()));
  });
}

function closed(lock: sqlite3.Database): Promise<void> {
  return new Promise((done) => {
    lock.close(() => done());
  });
}
