import type { CodeQuestion } from "@fiscalon/core/model/pricedDocument";
import type { DraftLine } from "./draft.ts";
import { LineNote } from "./LineNote.tsx";

/** The one thing a line must say before it has a code, asked right under it. */
export function LineQuestion({
  row,
  question,
  classes,
  regions,
  onAnswer,
  onPlace,
  onContact,
}: {
  row: number;
  question: CodeQuestion;
  classes: readonly { id: string; name: string }[];
  /** Regions of our country, for what depends on where it is supplied from. */
  regions: readonly { code: string; name: string }[];
  onPlace: (region: string) => void;
  onAnswer: (change: Partial<DraftLine>) => void;
  onContact: (() => void) | null;
}) {
  return (
    <LineNote label={`Question on line ${row + 1}`}>
      <span>{question.text}</span>
      {question.about === "supply" &&
        (["goods", "services"] as const).map((supply) => (
          <button key={supply} type="button" className="action !py-0" onClick={() => onAnswer({ supply })}>
            {supply}
          </button>
        ))}
      {question.about === "taxClass" && (
        <select
          className="entry !w-[220px] !py-0"
          aria-label={`Tax class of line ${row + 1}`}
          value=""
          onChange={({ target }) => onAnswer({ taxClass: target.value })}
        >
          <option value="" disabled>
            choose
          </option>
          {classes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
      {question.about === "place" && (
        <select
          className="entry !w-[220px] !py-0"
          aria-label={`Place of line ${row + 1}`}
          value=""
          onChange={({ target }) => onPlace(target.value)}
        >
          <option value="" disabled>
            choose
          </option>
          {regions.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      )}
      {(question.about === "region" || question.about === "standing") && onContact && (
        <button type="button" className="action !py-0" onClick={onContact}>
          Open the contact
        </button>
      )}
    </LineNote>
  );
}
