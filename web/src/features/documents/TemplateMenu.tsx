import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { TemplateView } from "@fiscalon/contract/templates";
import { draftOfBody, isBlank } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";

/** Puts the lines of a kept document under those that are typed already. */
export function TemplateMenu({
  templates,
  draft,
  onLines,
}: {
  templates: readonly TemplateView[];
  draft: Draft;
  onLines: (lines: DraftLine[]) => void;
}) {
  const { direction } = DOCUMENT_KINDS[draft.kind];
  const fitting = templates.filter(({ kind }) => DOCUMENT_KINDS[kind].direction === direction);
  if (fitting.length === 0) return null;
  const insert = (id: string) => {
    const found = fitting.find((one) => String(one.id) === id);
    if (!found) return;
    const { lines } = draftOfBody(found.document, null);
    onLines([...draft.lines.filter((line) => !isBlank(line)), ...lines]);
  };
  return (
    <select
      className="action w-[130px] cursor-pointer"
      aria-label="Lines of a kept document"
      value=""
      onChange={(event) => insert(event.target.value)}
    >
      <option value="" disabled>
        Lines from …
      </option>
      {fitting.map(({ id, name }) => (
        <option key={id} value={id} className="bg-base-100 text-base-content">
          {name}
        </option>
      ))}
    </select>
  );
}
