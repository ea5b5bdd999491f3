import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import type { Packs } from "@fiscalon/core/model/packs";
import { usePacks } from "../../api/packs.ts";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import clsx from "clsx";
import { useState } from "react";
import { inOrderOfAsking } from "@fiscalon/core/supply/tryRules";
import type { SupplyRule } from "@fiscalon/core/model/supplyRule";
import { useScope } from "../../app/scope.ts";
import { api, ApiError } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { ChangedRulesDialog } from "./ChangedRulesDialog.tsx";
import { withChange } from "./ruleChange.ts";
import type { RuleChange } from "./ruleChange.ts";
import { placeWords } from "./ruleWords.ts";
import { RuleDialog } from "./RuleDialog.tsx";
import { RuleTester } from "./RuleTester.tsx";
import { useSetup } from "../../app/useSetup.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { Tip } from "../../kit/Tip.tsx";

/** The supply rules as a matrix: where it goes down, tax classes across; beside it the tester. */
export function RulesPage() {
  const packs = usePacks();
  const setup = useSetup();
  const { client } = useScope();
  const queries = useQueryClient();
  const [direction, setDirection] = useState<"sale" | "purchase">("sale");
  const [editing, setEditing] = useState<SupplyRule | "new" | null>(null);
  const [changed, setChanged] = useState<{ change: RuleChange; now: SupplyRule[] } | null>(null);
  const refresh = async () => {
    await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
    setEditing(null);
    setChanged(null);
  };
  const save = useMutation({
    mutationFn: ({ seen, change }: { seen: readonly SupplyRule[]; change: RuleChange }) =>
      api.put("/clients/:id/rules", [client?.id], { rules: withChange(seen, change), seen }),
    onSuccess: refresh,
    onError: (error, { change }) => {
      if (!(error instanceof ApiError) || error.code !== "rules/changed") return;
      setEditing(null);
      setChanged({ change, now: (error.details?.["now"] as SupplyRule[] | undefined) ?? [] });
    },
  });
  if (!setup) return <Waiting what="the set-up" />;
  const { rules } = setup.plain;
  const ofSide = rules.filter((rule) => rule.direction === direction);
  const places = [...new Set(ofSide.map((rule) => rule.to))].sort(
    (a, b) => order(a) - order(b) || (a < b ? -1 : 1),
  );
  const classes = [...new Set(ofSide.map((rule) => rule.taxClass))];
  const add = (
    <button type="button" className="action main" onClick={() => setEditing("new")}>
      New rule
    </button>
  );
  return (
    <>
      <Sheet
        title="Supply rules"
        aside={`${rules.length} rules`}
        lead="A line that says its tax class gets its code from here: the most specific rule that fits answers. Nothing fits: no code, and a finding."
        actions={
          <>
            <div role="group" aria-label="Direction" className="join">
              {(["sale", "purchase"] as const).map((one) => (
                <button
                  key={one}
                  type="button"
                  aria-pressed={direction === one}
                  className={clsx("action join-item", direction === one && "bg-neutral text-neutral-content")}
                  onClick={() => setDirection(one)}
                >
                  {one === "sale" ? "Sales" : "Purchases"}
                </button>
              ))}
            </div>
            {add}
          </>
        }
      >
        <ErrorNote error={editing || changed ? null : save.error} />
        {ofSide.length === 0 ? (
          <EmptyState title="No rules for this side" action={add}>
            Without rules a code comes from the contact, the item, the account, the place or the business.
          </EmptyState>
        ) : (
          <div className="overflow-x-auto">
            <table className="sheet-table">
              <thead>
                <tr>
                  <th>Where it goes</th>
                  {classes.map((taxClass) => (
                    <th key={taxClass}>{taxClass.replaceAll("-", " ")}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {places.map((to) => (
                  <tr key={to}>
                    <td className="font-semibold">{placeWords(packs, to)}</td>
                    {classes.map((taxClass) => (
                      <RuleCell
                        key={taxClass}
                        own={ofSide.filter((rule) => rule.taxClass === taxClass && rule.to === to)}
                        inherited={inheritedRules(ofSide, taxClass, to, client?.country ?? "", packs)}
                        onEdit={setEditing}
                      />
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </Sheet>
      <SidePanel name="Rule tester">
        <RuleTester setup={setup} direction={direction} />
      </SidePanel>
      {editing && (
        <RuleDialog
          rule={editing === "new" ? null : editing}
          direction={direction}
          setup={setup.plain}
          onClose={() => setEditing(null)}
          onSave={(next) =>
            save.mutateAsync({
              seen: rules,
              change: { was: editing === "new" ? null : editing, shallBe: next },
            })
          }
          onDelete={
            editing === "new"
              ? undefined
              : () => save.mutate({ seen: rules, change: { was: editing, shallBe: null } })
          }
        />
      )}
      {changed && (
        <ChangedRulesDialog
          change={changed.change}
          now={changed.now}
          packs={packs}
          onKeepMine={() => save.mutate({ seen: changed.now, change: changed.change })}
          onTakeTheirs={() => void refresh()}
        />
      )}
    </>
  );
}

/** What answers for a class and a place: its own rules, or those of the wider place it lies in, muted. */
function RuleCell({
  own,
  inherited,
  onEdit,
}: {
  own: readonly SupplyRule[];
  inherited: readonly SupplyRule[];
  onEdit: (rule: SupplyRule) => void;
}) {
  const packs = usePacks();
  const shown = own.length > 0 ? own : inherited;
  return (
    <td className={clsx("!align-top", own.length === 0 && "italic")}>
      {inOrderOfAsking(shown).map((rule) => (
        <Tip
          key={rule.id}
          control
          words={own.length > 0 ? rule.words : `As ${placeWords(packs, rule.to)}. ${rule.words}`}
        >
          <button
            type="button"
            className="mb-0.5 block cursor-pointer text-left hover:text-primary"
            onClick={() => onEdit(rule)}
          >
            <span className={own.length > 0 ? "code-chip" : "quiet font-mono text-[12px]"}>
              {rule.code || "none"}
            </span>{" "}
            <span className="quiet text-[11.5px]">{conditionWords(packs, rule)}</span>
          </button>
        </Tip>
      ))}
    </td>
  );
}

/** The rules of the nearest wider place that has any for the class. */
function inheritedRules(
  rules: readonly SupplyRule[],
  taxClass: string,
  to: string,
  home: string,
  packs: Packs,
): SupplyRule[] {
  for (const place of widerPlaces(to, home, packs)) {
    const found = rules.filter((rule) => rule.taxClass === taxClass && rule.to === place);
    if (found.length > 0) return found;
  }
  return [];
}

/** The places a place lies in, the nearest first. */
function widerPlaces(to: string, home: string, packs: Packs): string[] {
  if (to === "any") return [];
  if (to === "union" || to === "outside-union") return ["abroad", "any"];
  if (!/^[A-Z]{2}/.test(to)) return ["any"];
  const country = to.slice(0, 2);
  const inUnion = packs.ofCountry(home)?.union?.members.has(country) ?? false;
  const groups = country === home ? ["home"] : [inUnion ? "union" : "outside-union", "abroad"];
  return [...(to.length > 2 ? [country] : []), ...groups, "any"];
}

function order(to: string): number {
  return ["any", "home", "union", "outside-union", "abroad"].indexOf(to) + (/^[A-Z]/.test(to) ? 10 : 0);
}

function conditionWords(
  packs: Packs,
  { supply, party, from, needs, validFrom, validTo }: SupplyRule,
): string {
  return [
    supply === "any" ? "" : supply,
    party === "any" ? "" : party.replaceAll("-", " "),
    from === "any" ? "" : `from ${placeWords(packs, from)}`,
    needs ? `if registered for ${needs}` : "",
    validFrom ? `from ${displayDate(validFrom)}` : "",
    validTo ? `to ${displayDate(validTo)}` : "",
  ]
    .filter(Boolean)
    .join(", ");
}
