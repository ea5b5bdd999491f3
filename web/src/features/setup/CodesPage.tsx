import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import clsx from "clsx";
import { useState } from "react";
import { useLocation } from "react-router";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { expandCode } from "@fiscalon/core/tax/expandCode";
import type { Component, TaxCode } from "@fiscalon/core/model/taxCode";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { plural } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { CodeActions } from "./CodeActions.tsx";
import { CodeBench } from "./CodeBench.tsx";
import { CodeEditor } from "../../records/CodeEditor.tsx";
import { CodeMarks } from "./CodeMarks.tsx";
import { codesElsewhere } from "./codeRegions.ts";
import { CodesImport } from "./CodesImport.tsx";
import { boxesOf, effectiveWords, exampleOf, stackParts, writtenCode } from "../../records/codeWords.ts";
import { LevyStack } from "../../records/LevyStack.tsx";
import { useSetup } from "../../app/useSetup.ts";
import { Waiting } from "../../kit/Waiting.tsx";

type Side = "all" | "sale" | "purchase";

/** The tax codes, and beside them the bench that tries one out. */
export function CodesPage() {
  const setup = useSetup();
  const { client } = useScope();
  const { hash } = useLocation();
  const [clicked, setChosen] = useState<string | null>(null);
  const [side, setSide] = useState<Side>("all");
  const [archived, setArchived] = useState(false);
  const [everywhere, setEverywhere] = useState(false);
  const [search, setSearch] = useState("");
  const [editing, setEditing] = useState<TaxCode | "new" | null>(null);
  const [importing, setImporting] = useState(false);
  const [trialOrder, setTrialOrder] = useState<{ code: string; components: Component[] } | null>(null);
  const { data: uses } = useQuery({
    queryKey: keys.of(client?.id, "codes"),
    queryFn: ({ signal }) => api.get("/clients/:id/codes", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const { data: contacts } = useQuery({
    queryKey: keys.of(client?.id, "contacts", "regions"),
    queryFn: ({ signal }) => api.get("/clients/:id/contacts/regions", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  if (!setup || !client || !contacts) return <Waiting what="the codes" />;
  const lines = new Map(uses?.map((use) => [use.code, use.lines]));
  const hidden = new Set(setup.plain.archived);
  const levies = new Set(client.registrations.flatMap((one) => one.levies));
  const regions = [...client.places, ...contacts].map(
    ({ country, region }) => `${country ?? client.country}-${region ?? ""}`,
  );
  const elsewhere = codesElsewhere(setup.plain.rules, new Set(regions));
  const away = (code: TaxCode) => elsewhere.has(code.code) && !lines.get(code.code);
  const awayCount = setup.plain.codes.filter(away).length;
  const wanted = search.trim().toLowerCase();
  const codes = setup.plain.codes.filter(
    (code) =>
      (side === "all" || code.direction === "both" || code.direction === side) &&
      hidden.has(code.code) === archived &&
      (everywhere || wanted !== "" || !away(code)) &&
      `${code.code} ${code.name}`.toLowerCase().includes(wanted),
  );
  const chosen = clicked ?? (hash === "" ? (codes[0]?.code ?? "") : decodeURIComponent(hash.slice(1)));
  const definition = setup.plain.codes.find(
    (one) => one.code === chosen || expandCode(one).some((e) => e.code === chosen),
  );
  const ordered =
    definition && trialOrder?.code === definition.code
      ? { ...definition, components: trialOrder.components }
      : definition;
  const onBench =
    ordered &&
    (setup.effect.codes.get(chosen) && !trialOrder ? setup.effect.codes.get(chosen) : exampleOf(ordered));
  return (
    <>
      <Sheet
        title="Codes"
        aside={`${setup.plain.codes.length - hidden.size} in use, ${hidden.size} archived`}
        lead="Each code says what a line bears and where that lands on the return. Drag a levy to see what another order would charge."
        actions={
          <>
            <a className="action" href={`/api/clients/${client.id}/codes.csv`} download>
              Export CSV
            </a>
            <button type="button" className="action" onClick={() => setImporting(true)}>
              Import CSV
            </button>
            <button type="button" className="action main" onClick={() => setEditing("new")}>
              New code
            </button>
          </>
        }
      >
        <div className="mb-2 flex flex-wrap items-center gap-3">
          <input
            className="entry max-w-[200px]"
            placeholder="Find a code"
            aria-label="Find a code"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
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
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={archived}
              onChange={(event) => setArchived(event.target.checked)}
            />
            archived
          </label>
          {awayCount > 0 && (
            <label className="flex cursor-pointer items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={everywhere}
                onChange={(event) => setEverywhere(event.target.checked)}
              />
              also {awayCount} of other regions
            </label>
          )}
        </div>
        {trialOrder && definition && (
          <OrderTrial
            code={definition}
            components={trialOrder.components}
            setup={setup.plain}
            onDone={() => setTrialOrder(null)}
          />
        )}
        <div className="shrink-0 overflow-x-auto">
          <table className="sheet-table">
            <thead>
              <tr>
                <th>Code</th>
                <th>Name</th>
                <th>Levies in order</th>
                <th className="num">In all</th>
                <th>On sales</th>
                <th>On purchases</th>
                <th className="num">Lines</th>
              </tr>
            </thead>
            <tbody>
              {codes.map((one) => {
                const mine = one.code === definition?.code;
                const shown = mine && ordered ? ordered : one;
                return (
                  <tr key={one.code} className={clsx(mine && "bg-accent")}>
                    <td>
                      <button
                        type="button"
                        className="code-chip cursor-pointer hover:border-primary"
                        aria-pressed={mine}
                        onClick={() => {
                          setChosen(one.code);
                          setTrialOrder(null);
                        }}
                      >
                        {writtenCode(one)}
                      </button>
                    </td>
                    <td>
                      {one.name.replaceAll("{r}", "…")}
                      <CodeMarks code={one} schedules={setup.plain.schedules} />
                      <span className="quiet block text-[11.5px]">
                        {one.treatment.replaceAll("-", " ")}
                        {one.family && `, ${one.family.map((f) => f.percent).join(" · ")} %`}
                        {one.variants && `, ${one.variants.map((v) => `-${v.suffix}`).join(" ")}`}
                      </span>
                    </td>
                    <td className="max-w-[150px] min-w-[150px]">
                      <LevyStack
                        code={shown}
                        parts={stackParts(shown, setup.plain.schedules, levies)}
                        onReorder={
                          one.family || one.components.length > 4
                            ? undefined
                            : (components) => {
                                setChosen(one.code);
                                setTrialOrder(orderOnTrial(one, components));
                              }
                        }
                      />
                    </td>
                    <td className="num">{effectiveWords(shown, setup.plain.schedules)}</td>
                    <td className="max-w-[96px] font-mono text-[11.5px] break-words">
                      {boxesOf(one, "sale")}
                    </td>
                    <td className="max-w-[96px] font-mono text-[11.5px] break-words">
                      {boxesOf(one, "purchase")}
                    </td>
                    <td className="num quiet">{lines.get(one.code) || "–"}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        {codes.length === 0 && <p className="quiet mt-6">No code fits. Clear the filters, or make one.</p>}
      </Sheet>
      {definition && onBench && (
        <SidePanel name="Code bench">
          <div className="flex h-full flex-col">
            <CodeActions
              code={definition}
              shown={chosen}
              archived={hidden.has(definition.code)}
              lines={lines.get(definition.code)}
              onEdit={() => setEditing(definition)}
              onChoose={setChosen}
            />
            <div className="min-h-0 flex-1">
              <CodeBench key={onBench.code} code={onBench} setup={setup} />
            </div>
          </div>
        </SidePanel>
      )}
      {editing && (
        <CodeEditor
          code={editing === "new" ? null : editing}
          setup={setup.plain}
          onClose={() => setEditing(null)}
        />
      )}
      {importing && <CodesImport onClose={() => setImporting(false)} />}
    </>
  );
}

/** In a new order the tax on tax goes with the place: each levy but the last is part of what comes after it. */
/** Dragged back to where it was kept, a code is not on trial any more. */
function orderOnTrial(code: TaxCode, components: readonly Component[]) {
  const same = components.every(({ levy }, index) => code.components[index]?.levy === levy);
  return same ? null : { code: code.code, components: restacked(code, components) };
}

function restacked(code: TaxCode, components: readonly Component[]): Component[] {
  const stacked = code.components.some((one) => one.partOfLaterBases);
  return components.map((one, index) => ({
    ...one,
    partOfLaterBases: stacked && index < components.length - 1,
  }));
}

/** A new order is tried first; kept only on purpose, and with a warning where the law says which order is right. */
function OrderTrial({
  code,
  components,
  setup,
  onDone,
}: {
  code: TaxCode;
  components: Component[];
  setup: PlainSetup;
  onDone: () => void;
}) {
  const { client } = useScope();
  const queries = useQueryClient();
  // The order was tried on the code as it was read then.
  const [seen] = useState(seenOf(code));
  const keep = useMutation({
    mutationFn: () =>
      api.put("/clients/:id/codes/:code", [client?.id, code.code], { ...code, components }, seen),
    onError: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onDone();
    },
  });
  return (
    <div role="status" className="note-row mb-3">
      <p>
        <strong>{code.code}</strong> on trial: {components.map(({ levy }) => levy).join(", then ")}. In all{" "}
        {effectiveWords({ ...code, components }, setup.schedules)}, split by the new order; see the bench.
      </p>
      {code.order && <p className="mt-1 font-semibold text-error">▲ The law fixes the order. {code.order}</p>}
      <div className="mt-2 flex gap-2">
        <button type="button" className="action" onClick={onDone}>
          Back to {code.components.map(({ levy }) => levy).join(", then ")}
        </button>
        <button type="button" className="action" onClick={() => keep.mutate()} disabled={keep.isPending}>
          Keep the new order
        </button>
        <span className="quiet self-center text-[12.5px]">
          {plural(components.length, "levy", "levies")}, each on its own account and label
        </span>
      </div>
      <ErrorNote error={keep.error} />
    </div>
  );
}
