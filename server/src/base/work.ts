import { dayIn } from "@fiscalon/core/calendar/timeZone";
import type { Packs } from "@fiscalon/core/model/packs";
import type { Bind, BulkTable, Database, Tx } from "../db/database.ts";
import type { BulkInsert } from "../db/bulkInsert.ts";
import type { Models } from "../db/models.ts";
import type { Reading } from "../db/readers.ts";
import { hashOf } from "./chain.ts";
import type { Change } from "./change.ts";
import type { Law } from "./law.ts";
import { refuseOvertaken } from "./overtaken.ts";
import type { Seen } from "./overtaken.ts";

/** What every piece of work stands on. */
export interface Ground {
  /** The file it is about: that of the practice, or that of one client. */
  db: Database;
  /** The folder this file is in, with its papers. */
  folder: string;
  law: Law;
  /** When what it reads is given up. */
  reading?: Reading;
  /** Who does it, and when. */
  person: number;
  at: string;
  /** The time zone its days are of. */
  zone: string;
  /** Done first and last in each transaction of this work: what refuses there, or fails, undoes all of it. */
  around?: Around;
  /** How far whoever does it had seen the audit trail, where they say so. */
  seen?: Seen;
}

/** A read somebody waits for is stopped after so long. */
const LIMIT_MS = 60_000;

/** What goes with every change of a piece of work, in the same transaction. */
export interface Around {
  begin?: (work: Writing) => Promise<void>;
  end?: (work: Writing, value: unknown) => Promise<void>;
}

/** Who does something, when, and what goes with every change of it. */
export interface Begun {
  person?: number;
  at?: string;
  around?: Around;
  /** The last entry of the audit trail they had seen: what was changed after it is not changed unseen. */
  seenUpTo?: number;
  /** Whoever asked is gone: what is read is given up. */
  signal?: AbortSignal;
  /** Somebody waits: a read that takes too long is stopped. */
  limited?: boolean;
}

/** Something done for a person at a moment, with the jurisdictions known then. Reads only; see write. */
export class Work {
  readonly #ground: Ground;
  readonly tx: Tx | undefined;
  #today: string | undefined;

  constructor(ground: Ground, tx?: Tx) {
    this.#ground = ground;
    this.tx = tx;
  }

  get packs(): Packs {
    return this.#ground.law.packs;
  }

  get law(): Law {
    return this.#ground.law;
  }

  /** The folder that holds the file and its papers. */
  get folder(): string {
    return this.#ground.folder;
  }

  get person(): number {
    return this.#ground.person;
  }

  /** The moment, ISO 8601. */
  get at(): string {
    return this.#ground.at;
  }

  /** The time zone its days are of: that of the client's place. */
  get zone(): string {
    return this.#ground.zone;
  }

  /** The day of the moment, at the client's place. */
  get today(): string {
    return (this.#today ??= dayIn(this.zone, this.at));
  }

  /** Who made a row, and when. */
  get made(): { createdAt: string; createdBy: number } {
    return { createdAt: this.at, createdBy: this.person };
  }

  get models(): Models {
    return this.#ground.db.models;
  }

  /** What each call of a model takes along, so that it happens in the transaction where there is one. */
  get options(): { transaction?: Tx } {
    return this.tx ? { transaction: this.tx } : {};
  }

  rows<T extends object>(sql: string, bind: Bind = []): Promise<T[]> {
    return this.#ground.db.rows<T>(sql, bind, this.tx, this.#ground.reading);
  }

  row<T extends object>(sql: string, bind: Bind = []): Promise<T | undefined> {
    return this.#ground.db.row<T>(sql, bind, this.tx, this.#ground.reading);
  }

  /**
   * The one row of a query that always has one: of an aggregate.
   * @throws RangeError where there is none: a defect, never an answer
   */
  async one<T extends object>(sql: string, bind: Bind = []): Promise<T> {
    const row = await this.row<T>(sql, bind);
    if (row === undefined) throw new RangeError("A query that always has a row had none.");
    return row;
  }

  /**
   * What `work` gives, worked out once as long as nothing in the file, the law and the day is another. It is shared:
   * nobody changes it. Inside a transaction it is worked out each time.
   * @param asked everything beside the file that it depends on
   */
  remembered<T>(what: string, asked: unknown, work: (work: Work) => Promise<T>): Promise<T> {
    if (this.tx) return work(this);
    // Others may wait for it, too: it goes on when whoever asked first is gone.
    const unhurried = new Work({ ...this.#ground, reading: { limitMs: LIMIT_MS } });
    const key = JSON.stringify([what, this.today, numberOf(this.law), asked]);
    return this.database.memory.remembered(key, () => work(unhurried));
  }

  /** Reads what the file holds at one moment, however long it takes; nothing is written in it. */
  atOneMoment<T>(read: (work: Work) => Promise<T>): Promise<T> {
    if (this.tx) return read(this);
    return this.database.snapshot((tx) => read(new Work(this.#ground, tx)));
  }

  /** Runs `work` in one transaction, all or nothing; within one, in that one. */
  write<T>(work: (work: Writing) => Promise<T>): Promise<T> {
    if (this.tx) return work(new Writing(this.#ground, this.tx));
    const { db, around } = this.#ground;
    return db.write(async (tx) => {
      const writing = new Writing(this.#ground, tx);
      await around?.begin?.(writing);
      const value = await work(writing);
      await around?.end?.(writing, value);
      return value;
    });
  }

  /** The same work, begun in another way. */
  begun({ person, at, around, seenUpTo, signal, limited }: Begun): Work {
    const { reading } = this.#ground;
    return new Work(
      this.groundWith({
        ...(person === undefined ? {} : { person }),
        ...(at === undefined ? {} : { at }),
        ...(around === undefined ? {} : { around }),
        ...(seenUpTo === undefined ? {} : { seen: { upTo: seenUpTo } }),
        reading: {
          ...reading,
          ...(signal ? { signal } : {}),
          ...(limited ? { limitMs: LIMIT_MS } : {}),
        },
      }),
    );
  }

  protected groundWith(changed: Partial<Ground>): Ground {
    return { ...this.#ground, ...changed };
  }

  /** How far whoever does it had seen the audit trail. */
  protected get seen(): Seen | undefined {
    return this.#ground.seen;
  }

  /** How far that was, for work that goes on elsewhere. */
  get seenUpTo(): number | undefined {
    return this.#ground.seen?.upTo;
  }

  /** The file it is about. */
  get database(): Database {
    return this.#ground.db;
  }
}

const laws = new WeakMap<Law, number>();
let lastLaw = 0;

/** A number that stands for one law: the same object is the same law. */
function numberOf(law: Law): number {
  const known = laws.get(law) ?? (lastLaw += 1);
  laws.set(law, known);
  return known;
}

/** Work inside a transaction: the only kind that changes anything. */
export class Writing extends Work {
  declare readonly tx: Tx;

  constructor(ground: Ground, tx: Tx) {
    super(ground, tx);
  }

  /** The same work under another law. */
  under(law: Law): Writing {
    return new Writing(this.groundWith({ law }), this.tx);
  }

  /** The same work in the name of another person, or at another moment. */
  as({ person = this.person, at = this.at }: { person?: number; at?: string }): Writing {
    return new Writing(this.groundWith({ person, at }), this.tx);
  }

  run(sql: string, bind: Bind): Promise<void> {
    return this.database.run(sql, bind, this.tx);
  }

  lastId(table: BulkTable): Promise<number> {
    return this.database.lastId(table, this.tx);
  }

  /** Many rows in several tables, with statements that are prepared once. */
  bulk<T>(work: (bulk: BulkInsert) => Promise<T>): Promise<T> {
    return this.database.bulk(this.tx, work);
  }

  insertRows(
    table: BulkTable,
    columns: readonly string[],
    rows: readonly (readonly unknown[])[],
  ): Promise<void> {
    return this.database.insertRows(table, columns, rows, this.tx);
  }

  /**
   * Notes a change at the end of the audit trail's chain.
   * @throws FiscalError `request/overtaken` where somebody else changed the same after it was seen
   */
  async record(change: Change): Promise<void> {
    if (this.seen) await refuseOvertaken(this, this.seen, change);
    const entry = {
      at: this.at,
      person: this.person,
      action: change.action,
      entity: change.entity,
      entityId: change.id,
      before: change.before === undefined ? null : JSON.stringify(change.before),
      after: change.after === undefined ? null : JSON.stringify(change.after),
    };
    const last = await this.row<{ hash: string }>("SELECT hash FROM changes ORDER BY id DESC LIMIT 1");
    await this.run(
      `INSERT INTO changes (at, person_id, action, entity, entity_id, before, after, hash)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
      [...Object.values(entry), hashOf(last?.hash ?? "", entry)],
    );
  }
}
