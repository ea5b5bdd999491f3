import type { ImportReport } from "@fiscalon/contract/imports";
import { keepFile } from "../../base/files.ts";
import type { Work } from "../../base/work.ts";
import { givingWay } from "../../jobs/giveWay.ts";
import type { Progress } from "../../base/progress.ts";
import { Overtaken, postStaged, refuseProblems } from "./postStaged.ts";
import { stageImport } from "./stage.ts";

/** The dry run: reads the whole file and says what posting it would do. Changes nothing but the report. */
export async function checkImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<ImportReport> {
  const { report, rejected } = await stageImport(work, clientId, importId, progress);
  const rejectedHash = rejected === null ? null : keepFile(work.folder, Buffer.from(rejected));
  await work.write((work) =>
    work.models.imports.update(
      { report, rejectedHash, state: "checked" },
      { where: { id: importId }, ...work.options },
    ),
  );
  return report;
}

/**
 * Posts the file: all documents that are not there yet, in one transaction, or none. What the dry run staged is posted
 * as it is; where something changed since, it is staged anew before anything is locked, and under the lock where the
 * books change again meanwhile. Who saves meanwhile goes first.
 */
export function postImport(
  work: Work,
  clientId: number,
  importId: number,
  progress: Progress,
): Promise<ImportReport> {
  return givingWay(work.database, progress, (locked) => {
    const post = (work: Work) => work.write((work) => postStaged(work, clientId, importId, locked));
    const postAnew = async (work: Work, progress: Progress) => {
      refuseProblems((await stageImport(work, clientId, importId, progress)).report);
      return post(work);
    };
    return post(work)
      .catch(unlessOvertaken(() => postAnew(work, progress)))
      .catch(unlessOvertaken(() => work.write((work) => postAnew(work, locked))));
  });
}

/** Goes another way where what was staged does not fit any more; every other failure stays one. */
function unlessOvertaken<T>(otherwise: () => Promise<T>): (error: unknown) => Promise<T> {
  return (error) => {
    if (error instanceof Overtaken) return otherwise();
    throw error;
  };
}
