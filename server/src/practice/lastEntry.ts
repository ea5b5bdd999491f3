import sqlite3 from "sqlite3";

/** The last entry of an audit trail. */
export interface LastEntry {
  id: number;
  hash: string;
}

/** The last entry of the audit trail in a file, without opening it for work; null where it has none or cannot be read. */
export async function lastEntry(file: string): Promise<LastEntry | null> {
  const db = await new Promise<sqlite3.Database | null>((done) => {
    const opened = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (error) => done(error ? null : opened));
  });
  if (db === null) return null;
  try {
    return await new Promise<LastEntry | null>((done) =>
      db.get<LastEntry>("SELECT id, hash FROM changes ORDER BY id DESC LIMIT 1", (error, row) =>
        done(error ? null : (row ?? null)),
      ),
    );
  } finally {
    await new Promise((closed) => db.close(closed));
  }
}
