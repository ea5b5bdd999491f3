import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useState } from "react";
import { textAt } from "@fiscalon/core/at";
import { addDays } from "@fiscalon/core/calendar/date";
import { filingPeriods } from "@fiscalon/core/calendar/filingPeriods";
import { excludeEachOther } from "@fiscalon/core/model/scheme";
import type { SchemeDefinition, SchemeInForce, Turnover } from "@fiscalon/core/model/scheme";
import type { RegistrationView } from "@fiscalon/contract/views";
import { displayAmount } from "@fiscalon/core/money/amount";
import { useScope } from "../../app/scope.ts";
import { SchemeEffect, useSchemeEffect } from "./SchemeEffect.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { plainAmount, showPeriod, today } from "../../kit/format.ts";

/** How far ahead a scheme can be joined or left, in days. */
const AHEAD = 400;

/** The special schemes of a registration: what is in force, what can be joined, and how it is left. */
export function SchemeFields({
  offered,
  schemes,
  registration,
  onChange,
}: {
  offered: readonly SchemeDefinition[];
  schemes: readonly SchemeInForce[];
  registration: RegistrationView;
  onChange: (schemes: SchemeInForce[]) => void;
}) {
  const [joining, setJoining] = useState<SchemeInForce | null>(null);
  const periods = filingPeriods(registration, registration.from, addDays(today(), AHEAD));
  const definitionOf = (id: string) => offered.find((one) => one.id === id);
  const definition = joining ? definitionOf(joining.scheme) : undefined;
  const joined = joining ? withJoined(schemes, joining) : schemes;
  const against = (one: SchemeDefinition) =>
    schemes.filter(({ scheme }) => {
      const other = definitionOf(scheme);
      return other !== undefined && excludeEachOther(one, other);
    });
  const open = offered.filter((one) => against(one).every(({ to }) => to !== null));
  const { data: effect } = useSchemeEffect(registration.id, joined);
  return (
    <fieldset className="col-span-2 border-t border-base-300 pt-3">
      <legend className="font-semibold">Special schemes</legend>
      {schemes.map((one) => (
        <SchemeRow
          key={`${one.scheme}/${one.from}`}
          one={one}
          definition={definitionOf(one.scheme)}
          ends={periods.map(({ to }) => to).filter((end) => end >= one.from)}
          onChange={() => setJoining(changed(one, periods))}
          onSettings={(settings) =>
            onChange(schemes.map((other) => (other === one ? { ...one, settings } : other)))
          }
          onEnd={(to) => onChange(schemes.map((other) => (other === one ? { ...one, to } : other)))}
          onTakeOut={() => onChange(schemes.filter((other) => other !== one))}
        />
      ))}
      {!joining && open.length > 0 && (
        <p className="quiet">
          {schemes.length === 0 && "None: output tax less input tax. "}
          {open.map((one) => (
            <button
              key={one.id}
              type="button"
              className="word-link mr-3"
              onClick={() => setJoining(blankScheme(one, periods, against(one).at(-1)))}
            >
              Join: {one.name}
            </button>
          ))}
        </p>
      )}
      {joining && definition && (
        <div role="group" aria-label={`Join: ${definition.name}`} className="mt-2 grid grid-cols-2 gap-4">
          <SelectField
            label="From the period"
            value={joining.from}
            onChange={({ target }) => setJoining({ ...joining, from: target.value })}
          >
            {periods.map(({ from, to }) => (
              <option key={from} value={from}>
                {showPeriod(from, to)}
              </option>
            ))}
          </SelectField>
          {definition.settings.map(({ id, name, values, holds }) =>
            holds === "amount" ? (
              <Field
                key={id}
                label={name}
                inputMode="decimal"
                className="w-full font-mono"
                value={textAt(joining.settings, id)}
                onChange={({ target }) =>
                  setJoining({
                    ...joining,
                    settings: { ...joining.settings, [id]: plainAmount(target.value) },
                  })
                }
              />
            ) : (
              <SelectField
                key={id}
                label={name}
                value={joining.settings[id]}
                onChange={({ target }) =>
                  setJoining({ ...joining, settings: { ...joining.settings, [id]: target.value } })
                }
              >
                {values.map(({ value, name: answer }) => (
                  <option key={value} value={value}>
                    {answer}
                  </option>
                ))}
              </SelectField>
            ),
          )}
          <div className="col-span-2 text-[13px]">
            <p>{definition.note}</p>
            <ul className="mt-1">
              {definition.conditions.map((condition) => (
                <Condition key={condition.says} condition={condition} turnover={effect?.turnover} />
              ))}
            </ul>
            <SchemeEffect registration={registration.id} schemes={joined} />
            <p className="mt-2 flex gap-3">
              <button
                type="button"
                className="action !py-0.5"
                onClick={() => {
                  onChange([...joined]);
                  setJoining(null);
                }}
              >
                {schemes.some((one) => !joined.includes(one)) ? "Change" : "Join"} from{" "}
                {displayDate(joining.from)}
              </button>
              <button type="button" className="word-link" onClick={() => setJoining(null)}>
                Not now
              </button>
            </p>
          </div>
        </div>
      )}
      {!joining && schemes !== registration.schemes && (
        <SchemeEffect registration={registration.id} schemes={schemes} />
      )}
    </fieldset>
  );
}

/** A condition of a scheme, ticked or not where the books can tell. */
function Condition({
  condition: { says, source, limit },
  turnover,
}: {
  condition: SchemeDefinition["conditions"][number];
  turnover: Turnover | undefined;
}) {
  const { minorDigits } = useScope();
  const known = limit !== undefined && turnover !== undefined;
  const met = known && turnover[limit.of] <= limit.upTo;
  return (
    <li>
      <span aria-hidden className={met ? "text-success" : known ? "text-error" : "quiet"}>
        {met ? "✓" : known ? "▲" : "·"}
      </span>{" "}
      {says} {known && <>The last twelve months: {displayAmount(turnover[limit.of], minorDigits)}. </>}
      <span className="quiet">({source})</span>
    </li>
  );
}

function SchemeRow({
  one,
  definition,
  ends,
  onChange,
  onSettings,
  onEnd,
  onTakeOut,
}: {
  one: SchemeInForce;
  definition: SchemeDefinition | undefined;
  ends: readonly string[];
  /** To other answers, from a later period on. */
  onChange: () => void;
  onSettings: (settings: SchemeInForce["settings"]) => void;
  onEnd: (to: string | null) => void;
  onTakeOut: () => void;
}) {
  const answers = definition?.settings.flatMap(({ id, values }) =>
    values.filter(({ value }) => value === one.settings[id]).map(({ name }) => name),
  );
  const amounts = definition?.settings.filter(({ holds }) => holds === "amount") ?? [];
  return (
    <div className="mb-2 flex flex-wrap items-end gap-4">
      <p className="grow">
        {definition?.name ?? one.scheme} from {displayDate(one.from)}
        {answers && answers.length > 0 && (
          <span className="quiet block text-[13px]">{answers.join(", ")}</span>
        )}
      </p>
      <SelectField
        className="w-[150px]"
        label="Left on"
        value={one.to ?? ""}
        onChange={({ target }) => onEnd(target.value || null)}
      >
        <option value="">stays on it</option>
        {ends.map((end) => (
          <option key={end} value={end}>
            {displayDate(end)}
          </option>
        ))}
      </SelectField>
      {one.to === null && definition?.settings.some(({ holds }) => holds === undefined) && (
        <button type="button" className="word-link pb-1.5" onClick={onChange}>
          Change from …
        </button>
      )}
      <button type="button" className="word-link pb-1.5" onClick={onTakeOut}>
        Take out
      </button>
      {amounts.length > 0 && (
        <div className="flex w-full flex-wrap gap-4">
          {amounts.map(({ id, name }) => (
            <Field
              key={id}
              className="w-[200px] font-mono"
              label={name}
              inputMode="decimal"
              value={textAt(one.settings, id)}
              onChange={({ target }) => onSettings({ ...one.settings, [id]: plainAmount(target.value) })}
            />
          ))}
        </div>
      )}
    </div>
  );
}

/** The schemes with one more; where it is the same with other answers, what was before ends the day before. */
function withJoined(schemes: readonly SchemeInForce[], joining: SchemeInForce): SchemeInForce[] {
  return [
    ...schemes.map((one) =>
      one.scheme === joining.scheme && one.to === null && one.from < joining.from
        ? { ...one, to: addDays(joining.from, -1) }
        : one,
    ),
    joining,
  ];
}

/** The same scheme again from the first period after it began that has not ended. */
function changed(one: SchemeInForce, periods: readonly { from: string; to: string }[]): SchemeInForce {
  const next = periods.find(({ from, to }) => from > one.from && to >= today());
  return { ...one, from: next?.from ?? one.from };
}

/** The first period after the scheme before, or the one that runs. */
function blankScheme(
  { id: scheme, settings: asked }: SchemeDefinition,
  periods: readonly { from: string; to: string }[],
  last: SchemeInForce | undefined,
): SchemeInForce {
  const after = last?.to ?? null;
  const first = periods.find(({ from, to }) => (after === null ? to >= today() : from > after));
  const settings = asked.map(({ id, values }) => [id, values[0]?.value ?? ""]);
  return {
    scheme,
    from: first?.from ?? today(),
    to: null,
    settings: Object.fromEntries(settings) as Record<string, string>,
  };
}
