import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { Dialog, DialogActions } from "./Dialog.tsx";
import { differences } from "./differences.ts";
import { showMoment } from "./format.ts";
import type { Overtaken } from "./overtaken.ts";
import { fieldWords, valueWords } from "./versionWords.ts";

/** Two people changed the same: both versions where they differ, and the choice between them. */
export function OvertakenDialog({
  of: { by, at, theirs },
  yours,
  onKeepMine,
  onTakeTheirs,
}: {
  of: Overtaken;
  /** What was about to be kept; what it does not speak about stays as it is. */
  yours: object;
  onKeepMine: () => void;
  onTakeTheirs: () => void;
}) {
  const spokenOf = Object.keys(yours);
  const ofThem = Object.entries(theirs ?? {}).filter(([key]) => spokenOf.includes(key));
  const apart = differences(Object.fromEntries(ofThem), yours);
  const words = (path: string, value: string | null) =>
    value === null ? <span className="quiet">empty</span> : valueWords(path, value, {}, displayDate);
  return (
    <Dialog open wide title="Changed meanwhile" onClose={onTakeTheirs}>
      <p className="mb-3">
        {by} {theirs === null ? "took this out" : "changed this"} on {showMoment(at)}, after you opened it.
        Which of the two shall stand?
      </p>
      {theirs !== null && apart.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th />
              <th>Theirs</th>
              <th>Yours</th>
            </tr>
          </thead>
          <tbody>
            {apart.map(({ path, before, after }) => (
              <tr key={path}>
                <td className="font-semibold">{fieldWords(path)}</td>
                <td className="!whitespace-normal">{words(path, before)}</td>
                <td className="!whitespace-normal">{words(path, after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {theirs !== null && apart.length === 0 && <p>Both say the same.</p>}
      <DialogActions>
        <button type="button" className="action" onClick={onTakeTheirs}>
          Take theirs
        </button>
        <button type="button" className="action main" onClick={onKeepMine}>
          Keep mine
        </button>
      </DialogActions>
    </Dialog>
  );
}
