import clsx from "clsx";
import { useState } from "react";
import { useLocation } from "react-router";
import { rateInForce } from "@fiscalon/core/tax/rateInForce";
import type { RateSchedules, TaxCode } from "@fiscalon/core/tax/taxCode";
import { boxTags } from "@fiscalon/core/tax/boxTags";
import { Sheet } from "../../kit/Sheet.tsx";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { today } from "../../kit/format.ts";
import { CodeBench } from "./CodeBench.tsx";
import { useSetup } from "./useSetup.ts";

type Side = "all" | "sale" | "purchase";

/** The tax codes, and beside them the bench that tries one out. */
export function CodesPage() {
  const setup = useSetup();
  const { hash } = useLocation();
  const [clicked, setChosen] = useState<string | null>(null);
  const chosen = clicked ?? (hash === "" ? "S20" : decodeURIComponent(hash.slice(1)));
  const [side, setSide] = useState<Side>("all");
  if (!setup) return null;
  const codes = setup.plain.codes.filter(
    (code) => side === "all" || code.direction === "both" || code.direction === side,
  );
  const code = setup.effect.codes.get(chosen);
  return (
    <>
      <Sheet
        title="Codes"
        aside={`${setup.plain.codes.length} in use`}
        lead="Each code says what a line bears and where that lands on the return. Choose one to try it out beside."
        actions={
          <div role="group" aria-label="Direction" className="join">
            {(["all", "sale", "purchase"] as const).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={side === one}
                className={clsx("action join-item", side === one && "bg-neutral text-neutral-content")}
                onClick={() => setSide(one)}
              >
                {{ all: "All", sale: "Sales", purchase: "Purchases" }[one]}
              </button>
            ))}
          </div>
        }
      >
        <table className="sheet-table">
          <thead>
            <tr>
              <th>Code</th>
              <th>Name</th>
              <th>Levies in order</th>
              <th className="num">Rate</th>
              <th>On sales</th>
              <th>On purchases</th>
            </tr>
          </thead>
          <tbody>
            {codes.map((one) => (
              <tr key={one.code} className={clsx(one.code === chosen && "bg-accent")}>
                <td>
                  <button
                    type="button"
                    className="code-chip cursor-pointer hover:border-primary"
                    aria-pressed={one.code === chosen}
                    onClick={() => setChosen(one.code)}
                  >
                    {one.code}
                  </button>
                </td>
                <td>
                  {one.name}
                  <span className="quiet block text-[11.5px]">{one.treatment.replaceAll("-", " ")}</span>
                </td>
                <td>
                  <LevyStack code={one} schedules={setup.plain.schedules} />
                </td>
                <td className="num">{rateWords(one, setup.plain.schedules)}</td>
                <td className="font-mono text-[12px]">{boxesOf(one, "sale")}</td>
                <td className="font-mono text-[12px]">{boxesOf(one, "purchase")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Sheet>
      {code && (
        <SidePanel name="Code bench">
          <CodeBench key={code.code} code={code} setup={setup} />
        </SidePanel>
      )}
    </>
  );
}

const TONES = ["bg-primary", "bg-warning", "bg-info"];

/** The levies of a code as a stack in the order in which they are charged, each as wide as its rate. */
function LevyStack({ code, schedules }: { code: TaxCode; schedules: RateSchedules }) {
  const parts = code.components.map((component) => ({
    component,
    rate: Number(rateToday(code, component, schedules) ?? 0),
  }));
  return (
    <span className="flex items-center gap-2">
      <span className="flex h-3.5 w-24 border border-base-content" aria-hidden>
        {parts.map(({ component, rate }, index) => (
          <span
            key={component.levy}
            className={clsx(TONES[index % 3], component.charged !== "charged" && "opacity-40")}
            style={{ width: `${Math.min(100, rate * 2)}%` }}
          />
        ))}
      </span>
      <span className="quiet text-[12px]">
        {parts.map(({ component }) => `${component.levy}${chargedWord(component.charged)}`).join(", then ")}
      </span>
    </span>
  );
}

function chargedWord(charged: TaxCode["components"][number]["charged"]): string {
  return { charged: "", "self-assessed": ", self-assessed", "declared-only": ", shown only" }[charged];
}

function rateToday(
  code: TaxCode,
  component: TaxCode["components"][number],
  schedules: RateSchedules,
): string | undefined {
  const on = code.to !== null && code.to < today() ? code.to : today();
  try {
    return rateInForce(component, schedules, on)?.rate;
  } catch {
    return undefined;
  }
}

function rateWords(code: TaxCode, schedules: RateSchedules): string {
  return code.components
    .map((component) => {
      if (component.rate.kind === "typed") return "typed";
      const rate = rateToday(code, component, schedules);
      return rate === undefined ? "–" : `${rate} %`;
    })
    .join(" + ");
}

function boxesOf(code: TaxCode, side: "sale" | "purchase"): string {
  if (code.direction !== "both" && code.direction !== side) return "";
  const boxes = code.components.flatMap((component) =>
    boxTags(component.boxes[side] ?? "").map((tag) => tag.box),
  );
  return boxes.length === 0 ? "none" : [...new Set(boxes)].join(" ");
}
