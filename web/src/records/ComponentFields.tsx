import { usePacks } from "../api/packs.ts";
import type { Boxes, Component, RateSchedules, RateSpec, Split, TaxCode } from "@fiscalon/core/model/taxCode";
import { Field, SelectField } from "../kit/Field.tsx";

const KINDS: { value: RateSpec["kind"]; name: string }[] = [
  { value: "percent", name: "percentage" },
  { value: "per-unit", name: "amount a unit" },
  { value: "per-document", name: "amount a document" },
  { value: "formula", name: "formula" },
  { value: "typed", name: "figure on a document" },
  { value: "none", name: "no tax" },
];

/** The fields of one levy of a code. */
export function ComponentFields({
  component,
  direction,
  levies,
  schedules,
  last,
  error,
  onChange,
}: {
  component: Component;
  direction: TaxCode["direction"];
  levies: readonly string[];
  schedules: RateSchedules;
  last: boolean;
  error: (path: string) => string | undefined;
  onChange: (component: Component) => void;
}) {
  const packs = usePacks();
  const set = (change: Partial<Component>) => onChange({ ...component, ...change });
  const { rate } = component;
  return (
    <div className="grid grid-cols-4 gap-3">
      <SelectField
        label="Levy"
        value={component.levy}
        required
        error={error("levy")}
        onChange={(event) => set({ levy: event.target.value })}
      >
        <option value="">choose</option>
        {[...new Set([component.levy, ...levies].filter(Boolean))].map((levy) => (
          <option key={levy}>{levy}</option>
        ))}
      </SelectField>
      <SelectField
        label="Tax is a"
        value={rate.kind}
        onChange={(event) => set({ rate: rateOfKind(event.target.value as RateSpec["kind"], rate) })}
      >
        {KINDS.map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </SelectField>
      {"schedule" in rate && (
        <SelectField
          className="col-span-2"
          label="Rates by date"
          value={rate.schedule}
          required
          error={error("rate.schedule")}
          onChange={(event) => set({ rate: { ...rate, schedule: event.target.value } })}
        >
          <option value="">choose</option>
          {Object.entries(schedules).map(([id, rows]) => (
            <option key={id} value={id}>
              {packs.rateName(id)} ({rows.at(-1)?.rate})
            </option>
          ))}
        </SelectField>
      )}
      {rate.kind === "formula" && (
        <Field
          className="col-span-2 font-mono"
          label="Formula"
          value={rate.formula}
          required
          error={error("rate.formula")}
          hint="net, gross, quantity, unitPrice, prior, inputs; {rate}; min, max, abs; a ? b : c"
          onChange={(event) => set({ rate: { ...rate, formula: event.target.value } })}
        />
      )}
      <SelectField
        label="Charged"
        value={component.charged}
        onChange={(event) => set({ charged: event.target.value as Component["charged"] })}
      >
        <option value="charged">on the document</option>
        <option value="self-assessed">self-assessed</option>
        <option value="declared-only">shown only</option>
      </SelectField>
      <Field
        label="Deducted, percent"
        value={component.recoverable}
        inputMode="decimal"
        error={error("recoverable")}
        disabled={direction === "sale"}
        onChange={(event) => set({ recoverable: event.target.value })}
      />
      <BaseFields component={component} error={error} onChange={onChange} />
      {!last && (
        <label className="col-span-4 flex cursor-pointer items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={component.partOfLaterBases}
            onChange={(event) => set({ partOfLaterBases: event.target.checked })}
          />
          The next levies are charged on a price that includes this one
        </label>
      )}
      <BoxFields component={component} direction={direction} error={error} onChange={onChange} />
      <SplitField component={component} error={error} onChange={onChange} />
    </div>
  );
}

function rateOfKind(kind: RateSpec["kind"], before: RateSpec): RateSpec {
  if (kind === "formula") return { kind, formula: before.kind === "formula" ? before.formula : "" };
  if (kind === "none" || kind === "typed") return { kind };
  return { kind, schedule: "schedule" in before ? before.schedule : "" };
}

type Part = {
  component: Component;
  error: (path: string) => string | undefined;
  onChange: (component: Component) => void;
};

function BaseFields({ component, error, onChange }: Part) {
  const { base, ...rest } = component;
  if (component.rate.kind !== "percent") return null;
  const of = base?.of ?? "net";
  const share = base?.share ?? "";
  const change = (nextOf: string, nextShare: string) =>
    onChange(
      nextOf === "net" && nextShare === "" && base?.over === undefined && base?.upTo === undefined
        ? rest
        : {
            ...rest,
            base: {
              ...base,
              of: nextOf as "net" | "gross",
              ...(nextShare === "" ? {} : { share: nextShare }),
            },
          },
    );
  return (
    <>
      <SelectField label="On" value={of} onChange={(event) => change(event.target.value, share)}>
        <option value="net">the price without tax</option>
        <option value="gross">the price with tax</option>
      </SelectField>
      <Field
        label="Of it, percent"
        value={share}
        placeholder="100"
        inputMode="decimal"
        error={error("base.share")}
        onChange={(event) => change(of, event.target.value)}
      />
    </>
  );
}

const SIDES = [
  ["sale", "Boxes on sales", "sale"],
  ["saleCredit", "on sales credit notes", "sale"],
  ["purchase", "Boxes on purchases", "purchase"],
  ["purchaseCredit", "on purchase credit notes", "purchase"],
] as const;

function BoxFields({ component, direction, error, onChange }: Part & { direction: TaxCode["direction"] }) {
  return SIDES.filter(([, , side]) => direction === "both" || direction === side).map(([key, label]) => {
    const value: Boxes | undefined = component.boxes[key];
    const routed = typeof value === "object";
    return (
      <Field
        key={key}
        className="col-span-2 font-mono"
        label={label}
        value={routed ? `${value.length} routes by supply` : (value ?? "")}
        disabled={routed}
        placeholder={key.endsWith("Credit") ? "the same, opposite sign" : "1 +t, 6 +n"}
        error={error(`boxes.${key}`)}
        hint={key === "sale" || (key === "purchase" && direction === "purchase") ? BOX_HINT : undefined}
        onChange={(event) => {
          const { [key]: _, ...others } = component.boxes;
          const text = event.target.value;
          onChange({ ...component, boxes: text === "" ? others : { ...others, [key]: text } });
        }}
      />
    );
  });
}

const BOX_HINT = "n net, t tax, r deducted, u not deducted, g both, b base";

/** Shares of the tax to accounts, one line each: "60 2200, 40 2300". */
function SplitField({ component, error, onChange }: Part) {
  const text = (component.splits?.invoice ?? [])
    .map((split) => `${split.share} ${split.account ?? split.role}`)
    .join(", ");
  return (
    <Field
      className="col-span-4 font-mono"
      label="Shares to accounts, where not all to the usual one"
      defaultValue={text}
      placeholder="60 2200, 40 cost"
      error={error("splits.invoice") ?? error("splits")}
      onBlur={(event) => {
        const { splits: _, ...rest } = component;
        const rows = event.target.value
          .split(",")
          .map((part) => part.trim().split(/\s+/))
          .filter((part) => part.length === 2);
        onChange(rows.length === 0 ? rest : { ...rest, splits: { invoice: rows.map(splitOf) } });
      }}
    />
  );
}

const ROLES = ["output-tax", "input-tax", "cost", "due-to-authority"];

function splitOf([share = "", target = ""]: string[]): Split {
  return ROLES.includes(target)
    ? { share, role: target as NonNullable<Split["role"]> }
    : { share, account: target };
}
