import { ArrowDown, ArrowUp, X } from "lucide-react";
import { TREATMENTS } from "@fiscalon/core/model/taxCode";
import type { Component, RateSchedules, TaxCode } from "@fiscalon/core/model/taxCode";
import { DateField } from "../kit/DateField.tsx";
import { Field, SelectField } from "../kit/Field.tsx";
import { ComponentFields } from "./ComponentFields.tsx";

const BLANK: Component = {
  levy: "",
  rate: { kind: "percent", schedule: "" },
  partOfLaterBases: false,
  charged: "charged",
  recoverable: "100",
  boxes: {},
};

export function blankCode(): TaxCode {
  return {
    code: "",
    name: "",
    direction: "both",
    supply: "both",
    treatment: "standard",
    from: null,
    to: null,
    note: "",
    source: "",
    components: [BLANK],
  };
}

/** The fields of a code: its head, and its levies in the order of charging. */
export function CodeForm({
  draft,
  levies,
  schedules,
  error,
  onChange,
}: {
  draft: TaxCode;
  levies: readonly string[];
  schedules: RateSchedules;
  error: (path: string) => string | undefined;
  onChange: (code: TaxCode) => void;
}) {
  const set = (change: Partial<TaxCode>) => onChange({ ...draft, ...change });
  const components = (next: Component[]) => set({ components: next });
  const move = (index: number, by: number) => {
    const next = [...draft.components];
    const [one] = next.splice(index, 1);
    if (one) next.splice(index + by, 0, one);
    components(next);
  };
  return (
    <div className="grid max-h-[66vh] grid-cols-4 gap-4 overflow-y-auto pr-1">
      <Field
        label="Code"
        value={draft.code}
        required
        className="font-mono"
        error={error("code")}
        onChange={(event) => set({ code: event.target.value })}
      />
      <Field
        className="col-span-3"
        label="Name"
        value={draft.name}
        required
        error={error("name")}
        onChange={(event) => set({ name: event.target.value })}
      />
      <SelectField
        label="For"
        value={draft.direction}
        onChange={(event) => set({ direction: event.target.value as TaxCode["direction"] })}
      >
        <option value="both">sales and purchases</option>
        <option value="sale">sales</option>
        <option value="purchase">purchases</option>
      </SelectField>
      <SelectField
        label="Supply"
        value={draft.supply}
        onChange={(event) => set({ supply: event.target.value as TaxCode["supply"] })}
      >
        <option value="both">goods and services</option>
        <option>goods</option>
        <option>services</option>
      </SelectField>
      <SelectField
        label="Treatment"
        value={draft.treatment}
        onChange={(event) => set({ treatment: event.target.value as TaxCode["treatment"] })}
      >
        {TREATMENTS.map((one) => (
          <option key={one} value={one}>
            {one.replaceAll("-", " ")}
          </option>
        ))}
      </SelectField>
      <SelectField
        label="The amount is"
        value={draft.amountIs ?? "price"}
        onChange={(event) => set({ amountIs: event.target.value as NonNullable<TaxCode["amountIs"]> })}
      >
        <option value="price">a price</option>
        <option value="gross">always with tax</option>
        <option value="tax">the tax itself</option>
        <option value="base">only the base</option>
      </SelectField>
      <DateField
        label="Usable from"
        value={draft.from ?? ""}
        optional
        className="w-full"
        onChange={(from) => set({ from: from || null })}
      />
      <DateField
        label="to"
        value={draft.to ?? ""}
        optional
        className="w-full"
        onChange={(to) => set({ to: to || null })}
      />
      <Field
        className="col-span-2"
        label="Source"
        value={draft.source}
        onChange={(event) => set({ source: event.target.value })}
      />
      <Field
        className="col-span-4"
        label="Note"
        value={draft.note}
        onChange={(event) => set({ note: event.target.value })}
      />
      {draft.components.map((component, index) => (
        <fieldset key={index} className="col-span-4 border-t border-base-content pt-2">
          <div className="mb-1 flex items-center gap-2">
            <legend className="font-semibold">
              {index + 1}. {component.levy || "levy"}
            </legend>
            <span className="ml-auto flex gap-1">
              <IconButton
                label={`Charge ${component.levy} earlier`}
                disabled={index === 0}
                onClick={() => move(index, -1)}
              >
                <ArrowUp size={14} aria-hidden />
              </IconButton>
              <IconButton
                label={`Charge ${component.levy} later`}
                disabled={index === draft.components.length - 1}
                onClick={() => move(index, 1)}
              >
                <ArrowDown size={14} aria-hidden />
              </IconButton>
              <IconButton
                label={`Take ${component.levy} out`}
                disabled={draft.components.length === 1}
                onClick={() => components(draft.components.filter((_, at) => at !== index))}
              >
                <X size={14} aria-hidden />
              </IconButton>
            </span>
          </div>
          <ComponentFields
            component={component}
            direction={draft.direction}
            levies={levies}
            schedules={schedules}
            last={index === draft.components.length - 1}
            error={(path) => error(`components[${index}].${path}`)}
            onChange={(next) => components(draft.components.map((one, at) => (at === index ? next : one)))}
          />
        </fieldset>
      ))}
      <button
        type="button"
        className="word-link col-span-4 justify-self-start"
        onClick={() => components([...draft.components, BLANK])}
      >
        Add a levy
      </button>
    </div>
  );
}

function IconButton({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className="action !min-h-0 !p-1"
      aria-label={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
