import { usePacks } from "../../api/packs.ts";
import { useFormState, useWatch } from "react-hook-form";
import { ruleBody } from "@fiscalon/contract/code";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { useScope } from "../../app/scope.ts";
import { Combo } from "../../kit/Combo.tsx";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { placeChoices } from "./ruleWords.ts";

/** Makes, changes or deletes one supply rule. */
export function RuleDialog({
  rule,
  direction,
  setup,
  onClose,
  onSave,
  onDelete,
}: {
  rule: SupplyRule | null;
  direction: "sale" | "purchase";
  setup: PlainSetup;
  onClose: () => void;
  /** Fails with what the server refused. */
  onSave: (rule: SupplyRule) => Promise<unknown>;
  onDelete: (() => void) | undefined;
}) {
  const packs = usePacks();
  const { client } = useScope();
  const dialog = useBodyForm({
    values: {
      ...(rule ?? { ...BLANK, direction }),
      code: rule?.code === "" ? NO_CODE : (rule?.code ?? ""),
      validFrom: rule?.validFrom ?? "",
      validTo: rule?.validTo ?? "",
    },
    schema: ruleBody,
    body: ({ id, code, validFrom, validTo, ...rest }): Partial<SupplyRule> => ({
      ...rest,
      ...(code === "" ? {} : { code: code === NO_CODE ? "" : code }),
      ...(id === "" ? {} : { id }),
      validFrom: validFrom || null,
      validTo: validTo || null,
    }),
    send: (body) => onSave(body as SupplyRule),
    onSaved: onClose,
  });
  const { control, setValue } = dialog.form;
  const [taxClass, code] = useWatch({ control, name: ["taxClass", "code"] });
  const codeError = useFormState({ control }).errors.code?.message;
  const places = placeChoices(
    packs,
    [client?.country ?? "", ...setup.places.map(({ country }) => country)].filter(Boolean),
  );
  const pack = packs.ofCountry(client?.country ?? "");
  const classes = [...new Set([...(pack?.classes ?? []).map(({ id }) => id), taxClass])];
  const codes = [
    ...setup.codes
      .flatMap((code) => expandCode({ ...code, variants: [] }))
      .filter((code) => code.direction === "both" || code.direction === direction)
      .map((code) => ({ value: code.code, label: `${code.code} ${code.name}` })),
    { value: NO_CODE, label: "– no code: the sentence says why" },
  ];
  const placeOptions = places.map(({ value, name }) => (
    <option key={value} value={value}>
      {name}
    </option>
  ));
  return (
    <BodyDialog
      of={dialog}
      title={rule ? "Change the rule" : `New rule for ${direction}s`}
      action={rule ? "Save" : "Make rule"}
      wide
      className="grid grid-cols-3 gap-4"
      onClose={onClose}
    >
      <ChoiceField name="taxClass" label="Tax class">
        {classes.map((id) => (
          <option key={id}>{id}</option>
        ))}
      </ChoiceField>
      <ChoiceField name="supply" label="Supply">
        <option value="any">goods and services</option>
        <option>goods</option>
        <option>services</option>
      </ChoiceField>
      <ChoiceField name="party" label="Other side is">
        {["any", "registered", "unregistered", ...(pack?.standings ?? []).map(({ id }) => id)].map((id) => (
          <option key={id}>{id}</option>
        ))}
      </ChoiceField>
      <ChoiceField name="from" label="From">
        {placeOptions}
      </ChoiceField>
      <ChoiceField name="to" label="To">
        {placeOptions}
      </ChoiceField>
      <Combo
        label="Code"
        value={code}
        choices={codes}
        mono
        error={codeError}
        onChange={(next) => setValue("code", next)}
      />
      <DayField name="validFrom" label="From the day" optional />
      <DayField name="validTo" label="to" optional />
      <TextField name="source" label="Source" />
      <TextField className="col-span-3" name="words" label="The sentence that explains it" />
      {onDelete && (
        <button type="button" className="word-link justify-self-start" onClick={onDelete}>
          Delete this rule
        </button>
      )}
    </BodyDialog>
  );
}

/** Chosen where there can be no code; left empty, one is missing. */
const NO_CODE = "–";

const BLANK: SupplyRule = {
  id: "",
  direction: "sale",
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
};
