import { usePacks } from "../../api/packs.ts";
import clsx from "clsx";
import { useState } from "react";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { circumstancesOf } from "@fiscalon/core/supply/circumstances";
import { answerOfRules, tryRules, WORD_FOR } from "@fiscalon/core/supply/tryRules";
import { useScope } from "../../app/scope.ts";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { today } from "../../kit/format.ts";
import { placeWords } from "./ruleWords.ts";

/** Which rule answers for a supply, and why the others do not. */
export function RuleTester({
  setup,
  direction,
}: {
  setup: { plain: PlainSetup; effect: EffectSetup };
  direction: "sale" | "purchase";
}) {
  const packs = usePacks();
  const { client } = useScope();
  const { places, registrations } = setup.plain;
  const [taxClass, setTaxClass] = useState("standard");
  const [supply, setSupply] = useState<"goods" | "services">("goods");
  const [place, setPlace] = useState(0);
  const [country, setCountry] = useState("");
  const [region, setRegion] = useState("");
  const [party, setParty] = useState("registered");
  const [on, setOn] = useState(today());
  const site = places[place] ?? { country: client?.country ?? "", region: null };
  const pack = packs.ofCountry(site.country);
  const other = country || site.country;
  const circumstances = circumstancesOf(
    {
      site,
      party: {
        country: other,
        region: region || (other === site.country ? site.region : null),
        registered: party === "registered",
        taxNumber: null,
        standing: ["registered", "unregistered"].includes(party) ? {} : { "*": party },
      },
    },
    { supply },
    direction,
    false,
    packs,
  );
  const question = {
    direction,
    taxClass,
    supply,
    on,
    circumstances,
    registeredFor: (levy: string) =>
      registrations.some((r) => r.levies.includes(levy) && r.from <= on && (r.to === null || on <= r.to)),
  };
  const trials = tryRules(setup.plain.rules, question);
  const { rule: answered, missing } = answerOfRules(setup.plain.rules, question);
  const answer = trials.find(({ rule }) => rule === answered);
  const others = trials.filter((trial) => !trial.applies && trial.rule.taxClass === taxClass);
  const classes = [...new Set(setup.plain.rules.map((rule) => rule.taxClass))];
  const regions = packs.ofCountry(other)?.regions ?? [];
  return (
    <section aria-label="Rule tester" className="h-full overflow-y-auto px-4 pt-3 pb-8">
      <h2 className="mb-3">Which code?</h2>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <SelectField label="Tax class" value={taxClass} onChange={(event) => setTaxClass(event.target.value)}>
          {classes.map((id) => (
            <option key={id}>{id}</option>
          ))}
        </SelectField>
        <SelectField
          label="Supply"
          value={supply}
          onChange={(event) => setSupply(event.target.value as "goods" | "services")}
        >
          <option>goods</option>
          <option>services</option>
        </SelectField>
        <SelectField
          label="Our place"
          value={place}
          onChange={(event) => setPlace(Number(event.target.value))}
        >
          {places.length === 0 && <option value={0}>{client?.country}</option>}
          {places.map((one, index) => (
            <option key={one.id} value={index}>
              {one.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Other side is" value={party} onChange={(event) => setParty(event.target.value)}>
          {["registered", "unregistered", ...(pack?.standings ?? []).map(({ id }) => id)].map((id) => (
            <option key={id}>{id}</option>
          ))}
        </SelectField>
        <Field
          label="Their country"
          value={country}
          maxLength={2}
          placeholder={site.country}
          onChange={(event) => {
            setCountry(event.target.value.toUpperCase());
            setRegion("");
          }}
        />
        {regions.length > 0 ? (
          <SelectField
            label="Their region"
            value={region}
            onChange={(event) => setRegion(event.target.value)}
          >
            <option value="">the same as ours</option>
            {regions.map(({ code, name }) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </SelectField>
        ) : (
          <span />
        )}
        <DateField label="Tax point" value={on} onChange={setOn} className="w-full" />
      </div>
      <div aria-live="polite" className="mt-4 border-t border-base-content pt-3">
        {answer ? (
          <p>
            <span className="code-chip !text-[15px]">{answer.rule.code || "no code"}</span>
            <span className="mt-1 block">{answer.rule.words}</span>
            <span className="quiet block text-[12px]">{answer.rule.source}</span>
          </p>
        ) : (
          <p className="font-semibold text-error">
            {missing
              ? `▲ Depends on ${WORD_FOR[missing]}: a document asks for it before it is posted.`
              : "▲ No rule answers: the line gets no code, and that is a finding."}
          </p>
        )}
      </div>
      <h2 className="mt-5 mb-1">Rules that did not answer</h2>
      <ul>
        {others.map(({ rule, why }) => (
          <li key={rule.id} className={clsx("border-b border-base-300 py-1 text-[12.5px]")}>
            <span className="code-chip">{rule.code || "none"}</span> {placeWords(packs, rule.to)}
            <span className="quiet block">{why}</span>
          </li>
        ))}
        {others.length === 0 && <li className="quiet">None for this tax class.</li>}
      </ul>
    </section>
  );
}
