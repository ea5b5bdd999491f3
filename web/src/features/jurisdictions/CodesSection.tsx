import { useState } from "react";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { blankCode, CodeForm } from "../../records/CodeForm.tsx";
import { stackParts } from "../../records/codeWords.ts";
import type { BuilderPart } from "./builderPart.ts";

/** The codes with their levies and boxes. */
export function CodesSection(part: BuilderPart) {
  const { draft, set, error } = part;
  const [editing, setEditing] = useState<number | null>(null);
  const wrong = draft.codes.map((code, index) => {
    const paths = ["code", "components", ...code.components.flatMap((_, at) => pathsOf(at))];
    return paths.map((path) => error(`codes[${index}].${path}`)).find(Boolean);
  });
  return (
    <section aria-label="Codes">
      <h2 className="mb-1">Codes</h2>
      <table className="sheet-table max-w-4xl">
        <thead>
          <tr>
            <th>Code</th>
            <th>Name</th>
            <th>Levies</th>
            <th>Boxes</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {draft.codes.map((code, index) => (
            <tr key={index}>
              <td>
                <span className="code-chip">{code.code}</span>
              </td>
              <td>
                {code.name}
                {wrong[index] && <span className="block text-error">{wrong[index]}</span>}
              </td>
              <td>
                {stackParts(code, draft.schedules)
                  .map(({ component, rate }) => `${component.levy} ${rate}`)
                  .join(" + ")}
              </td>
              <td className="quiet font-mono text-[12px]">{boxesInWords(code)}</td>
              <td className="text-right whitespace-nowrap">
                <button
                  type="button"
                  className="word-link"
                  aria-label={`Change code ${code.code}`}
                  onClick={() => setEditing(index)}
                >
                  Change
                </button>
                <button
                  type="button"
                  className="word-link ml-3"
                  onClick={() => set({ codes: draft.codes.filter((_, at) => at !== index) })}
                >
                  Take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="action mt-2" onClick={() => setEditing(draft.codes.length)}>
        Add code
      </button>
      {editing !== null && (
        <CodeDialog
          code={draft.codes[editing] ?? blankCode()}
          index={editing}
          part={part}
          onClose={() => setEditing(null)}
        />
      )}
    </section>
  );
}

function pathsOf(at: number): string[] {
  return [
    "levy",
    "rate.schedule",
    "rate.formula",
    "splits",
    "recoverable",
    "boxes.sale",
    "boxes.purchase",
  ].map((path) => `components[${at}].${path}`);
}

function boxesInWords(code: TaxCode): string {
  return code.components
    .flatMap(({ boxes }) => [boxes.sale, boxes.purchase])
    .filter((text): text is string => typeof text === "string" && text !== "")
    .join(" · ");
}

function CodeDialog({
  code,
  index,
  part: { draft, set, error },
  onClose,
}: {
  code: TaxCode;
  index: number;
  part: BuilderPart;
  onClose: () => void;
}) {
  const [edited, setEdited] = useState(code);
  return (
    <FormDialog
      title={code.code === "" ? "New code" : `Change ${code.code}`}
      action="Take over"
      wide
      onClose={onClose}
      onSubmit={() => {
        const codes = [...draft.codes];
        codes[index] = edited;
        set({ codes });
        onClose();
      }}
    >
      <CodeForm
        draft={edited}
        levies={draft.levies.map(({ levy }) => levy)}
        schedules={draft.schedules}
        error={(path) => error(`codes[${index}].${path}`)}
        onChange={setEdited}
      />
    </FormDialog>
  );
}
