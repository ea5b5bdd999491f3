import type { BoxDefinition, ReturnForm } from "@fiscalon/core/model/returnForm";
import { Field } from "../../kit/Field.tsx";
import type { BuilderPart } from "./builderPart.ts";

const KINDS = [
  ["sum", "sums lines"],
  ["formula", "formula"],
  ["typed", "typed in"],
  ["carried", "box of the period before"],
  ["taxed", "tax on a box, by its rates"],
] as const;

const TOTALS = [
  ["output", "Output tax"],
  ["input", "Input tax"],
  ["due", "Due, negative to reclaim"],
] as const;

/** The boxes of each form, and what the return comes to. */
export function BoxesSection({ draft, set, error }: BuilderPart) {
  const setForm = (index: number, form: ReturnForm) =>
    set({ forms: draft.forms.map((one, at) => (at === index ? form : one)) });
  return (
    <section aria-label="Boxes">
      {draft.forms.map((form, index) => {
        const path = `forms[${index}]`;
        const boxes = (next: BoxDefinition[]) => setForm(index, { ...form, boxes: next });
        return (
          <div key={form.id} className="mb-6">
            <h2 className="mb-1">{form.name}</h2>
            <table className="sheet-table">
              <thead>
                <tr>
                  <th className="w-[90px]">Box</th>
                  <th>Title</th>
                  <th className="w-[190px]">Holds</th>
                  <th className="w-[240px]">Formula or box</th>
                  <th className="w-[110px]">Rounded to</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {form.boxes.map((box, at) => (
                  <BoxRow
                    key={at}
                    box={box}
                    error={error(`${path}.boxes[${at}].formula`) ?? error(`${path}.boxes[${at}]`)}
                    onChange={(next) => boxes(form.boxes.map((one, place) => (place === at ? next : one)))}
                    onRemove={() => boxes(form.boxes.filter((_, place) => place !== at))}
                  />
                ))}
              </tbody>
            </table>
            {error(`${path}.boxes`) && <p className="text-error">{error(`${path}.boxes`)}</p>}
            <button
              type="button"
              className="action mt-2"
              onClick={() => boxes([...form.boxes, { ...BLANK, id: String(form.boxes.length + 1) }])}
            >
              Add box
            </button>
            <div className="mt-3 grid grid-cols-4 gap-4">
              {TOTALS.map(([key, label]) => (
                <Field
                  key={key}
                  className="font-mono"
                  label={label}
                  value={form.net[key]}
                  error={error(`${path}.net.${key}`)}
                  onChange={(event) =>
                    setForm(index, { ...form, net: { ...form.net, [key]: event.target.value } })
                  }
                />
              ))}
              <Field
                className="font-mono"
                label="Box that shows it"
                value={form.net.shown}
                error={error(`${path}.net.shown`)}
                onChange={(event) =>
                  setForm(index, { ...form, net: { ...form.net, shown: event.target.value } })
                }
              />
            </div>
          </div>
        );
      })}
    </section>
  );
}

const BLANK: BoxDefinition = {
  id: "",
  title: "Box",
  short: "Box",
  holds: "tax",
  rounding: { mode: "half-up", step: 1 },
  words: "What the codes put here.",
  kind: "sum",
};

function BoxRow({
  box,
  error,
  onChange,
  onRemove,
}: {
  box: BoxDefinition;
  error: string | undefined;
  onChange: (box: BoxDefinition) => void;
  onRemove: () => void;
}) {
  return (
    <tr>
      <td>
        <input
          className="entry font-mono"
          aria-label="Box"
          value={box.id}
          onChange={(event) => onChange({ ...box, id: event.target.value })}
        />
      </td>
      <td>
        <input
          className="entry"
          aria-label={`Title of ${box.id}`}
          value={box.title}
          onChange={(event) => onChange({ ...box, title: event.target.value, short: event.target.value })}
        />
        {error && <span className="block text-[12.5px] text-error">{error}</span>}
      </td>
      <td>
        <select
          className="entry cursor-pointer"
          aria-label={`What ${box.id} holds`}
          value={box.kind}
          onChange={(event) => onChange(ofKind(box, event.target.value as BoxDefinition["kind"]))}
        >
          {KINDS.map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </td>
      <td>
        <WorkedFrom box={box} onChange={onChange} />
      </td>
      <td>
        <select
          className="entry cursor-pointer"
          aria-label={`Rounding of ${box.id}`}
          value={`${box.rounding.mode} ${box.rounding.step}`}
          onChange={(event) => {
            const [mode = "half-up", step = "1"] = event.target.value.split(" ");
            onChange({ ...box, rounding: { mode: mode as "half-up", step: Number(step) } });
          }}
        >
          <option value="half-up 1">cents</option>
          <option value="half-up 100">whole, nearest</option>
          <option value="down 100">whole, cut</option>
        </select>
      </td>
      <td className="text-right">
        <button type="button" className="word-link" aria-label={`Take out box ${box.id}`} onClick={onRemove}>
          Take out
        </button>
      </td>
    </tr>
  );
}

/** What the box is worked out from: a formula, another box, or a box and the schedule of its rates. */
function WorkedFrom({ box, onChange }: { box: BoxDefinition; onChange: (box: BoxDefinition) => void }) {
  const from = box.kind === "formula" ? box.formula : "of" in box ? box.of : "";
  return (
    <span className="flex gap-1">
      <input
        className="entry font-mono"
        aria-label={`Formula of ${box.id}`}
        value={from}
        disabled={box.kind === "sum" || box.kind === "typed"}
        placeholder={box.kind === "formula" ? "[1] - [2]" : ""}
        onChange={({ target: { value } }) =>
          onChange("of" in box ? { ...box, of: value } : { ...ofKind(box, "formula"), formula: value })
        }
      />
      {box.kind === "taxed" && (
        <input
          className="entry font-mono"
          aria-label={`Rates of ${box.id}`}
          value={box.schedule}
          placeholder="schedule"
          onChange={({ target: { value } }) => onChange({ ...box, schedule: value })}
        />
      )}
    </span>
  );
}

/** What a box of a kind has beside what all boxes have, to begin with. */
const BEGINS: Readonly<Record<BoxDefinition["kind"], (id: string) => object>> = {
  sum: () => ({}),
  typed: () => ({}),
  formula: () => ({ formula: "" }),
  carried: (id) => ({ of: id }),
  taxed: (id) => ({ of: id, schedule: "" }),
};

function ofKind<K extends BoxDefinition["kind"]>(
  box: BoxDefinition,
  kind: K,
): Extract<BoxDefinition, { kind: K }> {
  const { id, title, short, holds, rounding, words, part } = box;
  const base = { id, title, short, holds, rounding, words, ...(part === undefined ? {} : { part }) };
  return { ...base, ...BEGINS[kind](id), kind } as Extract<BoxDefinition, { kind: K }>;
}
