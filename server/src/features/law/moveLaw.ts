import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { RateRow } from "@fiscalon/core/model/taxCode";
import { inField } from "../../base/errors.ts";
import type { Law } from "../../base/law.ts";
import { UNWATCHED } from "../../base/progress.ts";
import type { Progress } from "../../base/progress.ts";
import type { Work, Writing } from "../../base/work.ts";
import { recomputeDocuments } from "../../books/documents/recomputeDocuments.ts";
import { loadSetup } from "../../books/loadSetup.ts";
import type { Practice } from "../../practice/practice.ts";
import { clientsUnder, documentsMoved } from "./touched.ts";

/** One change of the law, from what it was to what it becomes. */
export interface LawMove {
  from: Law;
  to: Law;
  change: LawChange;
  /** Where it stands in what was sent. */
  field?: string;
}

interface Schedule {
  pack: string;
  schedule: string;
}

/** What moves in the books of a client: schedules, and how many documents each of them. */
type Moved = Map<number, { one: Schedule; documents: number }[]>;

/**
 * Moves the law of a practice and the open documents of every client that it moves: the clients' books are worked out
 * anew and not yet committed, the practice commits the law with a note of whose books are to follow, then they do. After
 * a kill in between, what was noted follows at the next start; anything that refuses before leaves all as it was.
 */
export async function moveLaw(
  practice: Practice,
  work: Work,
  steps: readonly LawMove[],
  progress: Progress,
  note: (work: Writing) => Promise<void>,
): Promise<void> {
  const moved: Moved = new Map();
  for (const step of steps) await gather(practice, step, moved);
  const last = steps.at(-1);
  if (!last) return;
  const told = together(moved, progress);
  const { law: from } = work;
  const clients = [...moved.keys()].sort((a, b) => a - b);
  const through = async (index: number): Promise<void> => {
    const client = clients[index];
    if (client === undefined) {
      await work.write(async (work) => {
        await note(work);
        for (const [id, schedules] of moved) await notePending(work, id, schedules, from);
      });
      return;
    }
    const { person, at } = work;
    await practice.onClient(
      client,
      (books) =>
        books.write(async (books) => {
          for (const { one, documents } of moved.get(client) ?? [])
            await recompute(books, client, one, { from, to: last.to, progress: told(documents) });
          await through(index + 1);
        }),
      { person, at },
    );
  };
  await through(0);
  if (clients.length > 0) await work.begun({ around: {} }).write((work) => forget(work, clients));
}

/** Gives each part its own progress, so that they tell together how far the whole is. */
function together(moved: Moved, progress: Progress): (documents: number) => Progress {
  const total = [...moved.values()].flat().reduce((sum, { documents }) => sum + documents, 0);
  let before = 0;
  return (documents) => {
    const begun = before;
    before += documents;
    return { step: (done, _, message) => progress.step(begun + done, total, message) };
  };
}

/**
 * Works out what a kill between the law and the books left behind.
 * @param told of books that cannot follow now; they are tried again at the next start
 */
export async function followLaw(practice: Practice, told: (error: unknown) => void): Promise<void> {
  const work = await practice.begin();
  const pending = await work.rows<{ client: number; schedule: string; was: string }>(
    "SELECT client_id AS client, schedule, was FROM law_pending",
  );
  const left = new Set<number>();
  for (const { client, schedule, was } of pending) {
    const follow = practice.inPassing(client, (books) =>
      books.write(async (books) => {
        const documents = await documentsMoved(books, client, schedule, JSON.parse(was) as RateRow[]);
        await recomputeDocuments(books, await loadSetup(books, client), documents, UNWATCHED);
      }),
    );
    await follow.catch((error: unknown) => {
      left.add(client);
      told(error);
    });
  }
  const followed = pending.flatMap(({ client }) => (left.has(client) ? [] : [client]));
  if (followed.length > 0) await work.write((work) => forget(work, followed));
}

function forget(work: Writing, clients: readonly number[]): Promise<void> {
  return work.run("DELETE FROM law_pending WHERE client_id IN (SELECT value FROM json_each($1))", [
    JSON.stringify(clients),
  ]);
}

async function gather(practice: Practice, { from, to, change, field }: LawMove, moved: Moved): Promise<void> {
  if (change.kind !== "rate") return;
  const one = { pack: change.pack, schedule: change.schedule };
  for (const { id } of await clientsUnder(practice, from, change.pack)) {
    const count = async (books: Work) =>
      (await documentsMoved(books, id, one.schedule, rowsOf(to, one))).length;
    const found = await practice.inPassing(id, (books) =>
      field === undefined ? count(books) : inField(field, () => count(books)),
    );
    if (found > 0) moved.set(id, [...(moved.get(id) ?? []), { one, documents: found }]);
  }
}

async function recompute(
  books: Writing,
  client: number,
  one: Schedule,
  { from, to, progress }: { from: Law; to: Law; progress: Progress },
): Promise<void> {
  const documents = await documentsMoved(books.under(from), client, one.schedule, rowsOf(to, one));
  const after = books.under(to);
  await recomputeDocuments(after, await loadSetup(after, client), documents, progress);
}

async function notePending(
  work: Writing,
  client: number,
  schedules: readonly { one: Schedule }[],
  from: Law,
): Promise<void> {
  for (const { one } of schedules)
    await work.run(
      "INSERT OR REPLACE INTO law_pending (client_id, pack, schedule, was) VALUES ($1, $2, $3, $4)",
      [client, one.pack, one.schedule, JSON.stringify(rowsOf(from, one))],
    );
}

function rowsOf({ packs }: Law, { pack, schedule }: Schedule): readonly RateRow[] {
  return packs.byId(pack).schedules[schedule] ?? [];
}
