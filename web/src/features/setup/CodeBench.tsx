import { textAt } from "@fiscalon/core/at";
import { usePacks } from "../../api/packs.ts";
import { useState } from "react";
import { FiscalError } from "@fiscalon/core/errors";
import type { EffectSetup } from "@fiscalon/core/facts/effect";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { today } from "../../kit/format.ts";
import { CodeMarks } from "./CodeMarks.tsx";
import { BenchResults } from "./BenchResults.tsx";
import { tryCode } from "./codeBenchInputs.ts";
import type { Trial } from "./codeBenchInputs.ts";

/** The trial calculation of a code: an amount in both modes, with arithmetic, accounts and boxes. */
export function CodeBench({
  code,
  setup,
}: {
  code: TaxCode;
  setup: { plain: PlainSetup; effect: EffectSetup };
}) {
  const packs = usePacks();
  const [trial, setTrial] = useState<Trial>({
    amount: "100.00",
    quantity: "",
    date: code.to !== null && code.to < today() ? code.to : today(),
    side: code.direction === "purchase" ? "purchase" : "sale",
    credit: false,
    place: setup.plain.places[0]?.id ?? null,
    country: "",
    region: "",
    party: "registered",
    inputs: {},
  });
  const set = (change: Partial<Trial>) => setTrial({ ...trial, ...change });
  const side = code.direction === "both" ? trial.side : code.direction;
  const tried = { ...trial, side };
  const exclusive = tryCode(code, tried, "exclusive", setup);
  const inclusive = tryCode(code, tried, "inclusive", setup);
  const failed = [exclusive, inclusive].find((result) => result instanceof FiscalError);
  const pack = code.pack === undefined ? undefined : packs.byId(code.pack);
  const regions = packs.ofCountry(trial.country || pack?.country || "")?.regions ?? [];
  return (
    <section aria-label="Code bench" className="h-full overflow-y-auto px-4 pt-3 pb-8">
      <header className="mb-3 flex items-center justify-between">
        <h2>Code bench</h2>
        <span className="code-chip">{code.code}</span>
      </header>
      <p className="quiet mb-3 text-[12.5px]">
        {code.name}. {code.note} {code.source && `Source: ${code.source}.`}
        <CodeMarks code={code} schedules={setup.plain.schedules} />
      </p>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <Field
          label={AMOUNT_WORDS[code.amountIs ?? "price"]}
          value={trial.amount}
          onChange={(event) => set({ amount: event.target.value.replaceAll(",", "") })}
          inputMode="decimal"
          className="font-mono"
        />
        <DateField
          label="Tax point"
          value={trial.date}
          onChange={(date) => set({ date })}
          className="w-full"
        />
        <Field
          label="Quantity"
          value={trial.quantity}
          onChange={(event) => set({ quantity: event.target.value })}
          inputMode="decimal"
          className="font-mono"
          placeholder="1"
        />
        <SelectField
          label="As"
          value={`${side}${trial.credit ? "-credit" : ""}`}
          onChange={(event) => {
            const [chosen = "sale", credit] = event.target.value.split("-");
            set({ side: chosen as Trial["side"], credit: credit === "credit" });
          }}
        >
          {code.direction !== "purchase" && <option value="sale">sale</option>}
          {code.direction !== "purchase" && <option value="sale-credit">sales credit note</option>}
          {code.direction !== "sale" && <option value="purchase">purchase</option>}
          {code.direction !== "sale" && <option value="purchase-credit">purchase credit note</option>}
        </SelectField>
        {setup.plain.places.length > 1 && (
          <SelectField
            label="From our place"
            value={trial.place ?? ""}
            onChange={(event) => set({ place: Number(event.target.value) })}
          >
            {setup.plain.places.map((place) => (
              <option key={place.id} value={place.id}>
                {place.name}
              </option>
            ))}
          </SelectField>
        )}
        <SelectField
          label="Other side is"
          value={trial.party}
          onChange={(event) => set({ party: event.target.value })}
        >
          <option value="registered">registered</option>
          <option value="not-registered">not registered</option>
          {(pack?.standings ?? []).map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        {regions.length > 0 && (
          <SelectField
            label="Other side's region"
            value={trial.region}
            onChange={(event) => set({ region: event.target.value })}
          >
            <option value="">the same as ours</option>
            {regions.map(({ code: id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
        )}
        <Field
          label="Other side's country"
          value={trial.country}
          maxLength={2}
          placeholder={pack?.country ?? ""}
          onChange={(event) => set({ country: event.target.value.toUpperCase() })}
        />
        {(code.inputs ?? []).map((name) => (
          <Field
            key={name}
            label={inputWords(name)}
            value={textAt(trial.inputs, name)}
            onChange={(event) => set({ inputs: { ...trial.inputs, [name]: event.target.value } })}
            inputMode="decimal"
            className="font-mono"
          />
        ))}
      </div>
      {failed instanceof FiscalError && (
        <p role="alert" className="mt-4 text-error">
          {failed.message}
        </p>
      )}
      {!(exclusive instanceof FiscalError) && !(inclusive instanceof FiscalError) && (
        <BenchResults code={code} trial={tried} exclusive={exclusive} inclusive={inclusive} setup={setup} />
      )}
    </section>
  );
}

const AMOUNT_WORDS = { price: "Amount", gross: "Amount with tax", tax: "Tax", base: "Base" };

/** "purchase price" for `cost`, "average price" for `averagePrice`. */
function inputWords(name: string): string {
  if (name === "cost") return "Purchase price";
  const words = name.replace(/([A-Z])/g, " $1").toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}
