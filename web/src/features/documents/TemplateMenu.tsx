import { ChevronDown } from "lucide-react";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { TemplateView } from "@fiscalon/contract/templates";
import { Menu, MenuItem } from "../../kit/Menu.tsx";
import { draftOfBody, isBlank } from "./draft.ts";
import type { Draft, DraftLine } from "./draft.ts";

/** Puts the lines of a template under those that are typed already. */
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
  const insert = ({ document }: TemplateView) => {
    const { lines } = draftOfBody(document, null);
    onLines([...draft.lines.filter((line) => !isBlank(line)), ...lines]);
  };
  return (
    <Menu
      className="action"
      trigger={
        <>
          Lines of a template <ChevronDown size={14} aria-hidden />
        </>
      }
    >
      {fitting.map((template) => (
        <MenuItem key={template.id} onSelect={() => insert(template)}>
          {template.name}
        </MenuItem>
      ))}
    </Menu>
  );
}
