import { usePacks } from "../../api/packs.tsx";
import { useState } from "react";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { useScope } from "../../app/scope.ts";
import { Combo } from "../../kit/Combo.tsx";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { placeChoices } from "./ruleWords.ts";

/** Makes, changes or deletes one supply rule. */
export function RuleDialog({
  rule,
  direction,
  setup,
  error,
  onClose,
  onSave,
  onDelete,
}: {
  rule: SupplyRule | null;
  direction: "sale" | "purchase";
  setup: PlainSetup;
  error: Error | null;
  onClose: () => void;
  onSave: (rule: SupplyRule) => void;
  onDelete: (() => void) | undefined;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const [draft, setDraft] = useState<SupplyRule>(
    rule ?? {
      id: "",
      direction,
      taxClass: "standard",
      supply: "any",
      from: "any",
      to: "any",
      party: "any",
      validFrom: null,
      validTo: null,
      code: "",
      words: "",
      source: "",
    },
  );
  const set = (change: Partial<SupplyRule>) => setDraft({ ...draft, ...change });
  const places = placeChoices(
    packs,
    [client?.country ?? "", ...setup.places.map(({ country }) => country)].filter(Boolean),
  );
  const pack = packs.ofCountry(client?.country ?? "");
  const classes = [...new Set([...(pack?.classes ?? []).map(({ id }) => id), draft.taxClass])];
  const codes = setup.codes
    .flatMap((code) => expandCode({ ...code, variants: [] }))
    .filter((code) => code.direction === "both" || code.direction === direction)
    .map((code) => ({ value: code.code, label: `${code.code} ${code.name}` }));
  const placeOptions = places.map(({ value, name }) => (
    <option key={value} value={value}>
      {name}
    </option>
  ));
  return (
    <FormDialog
      title={rule ? "Change the rule" : `New rule for ${direction}s`}
      action={rule ? "Save" : "Make rule"}
      wide
      className="grid grid-cols-3 gap-4"
      error={error}
      onClose={onClose}
      onSubmit={() => {
        const { id, ...rest } = draft;
        onSave(id === "" ? (rest as SupplyRule) : draft);
      }}
    >
      <SelectField
        label="Tax class"
        value={draft.taxClass}
        onChange={(event) => set({ taxClass: event.target.value })}
      >
        {classes.map((id) => (
          <option key={id}>{id}</option>
        ))}
      </SelectField>
      <SelectField
        label="Supply"
        value={draft.supply}
        onChange={(event) => set({ supply: event.target.value as SupplyRule["supply"] })}
      >
        <option value="any">goods and services</option>
        <option>goods</option>
        <option>services</option>
      </SelectField>
      <SelectField
        label="Other side is"
        value={draft.party}
        onChange={(event) => set({ party: event.target.value })}
      >
        {["any", "registered", "unregistered", ...(pack?.standings ?? []).map(({ id }) => id)].map((id) => (
          <option key={id}>{id}</option>
        ))}
      </SelectField>
      <SelectField label="From" value={draft.from} onChange={(event) => set({ from: event.target.value })}>
        {placeOptions}
      </SelectField>
      <SelectField label="To" value={draft.to} onChange={(event) => set({ to: event.target.value })}>
        {placeOptions}
      </SelectField>
      <Combo label="Code" value={draft.code} choices={codes} mono onChange={(code) => set({ code })} />
      <DateField
        label="From the day"
        value={draft.validFrom ?? ""}
        optional
        className="w-full"
        onChange={(date) => set({ validFrom: date || null })}
      />
      <DateField
        label="to"
        value={draft.validTo ?? ""}
        optional
        className="w-full"
        onChange={(date) => set({ validTo: date || null })}
      />
      <Field label="Source" value={draft.source} onChange={(event) => set({ source: event.target.value })} />
      <Field
        className="col-span-3"
        label="The sentence that explains it"
        value={draft.words}
        required
        onChange={(event) => set({ words: event.target.value })}
      />
      {onDelete && (
        <button type="button" className="word-link justify-self-start" onClick={onDelete}>
          Delete this rule
        </button>
      )}
    </FormDialog>
  );
}
