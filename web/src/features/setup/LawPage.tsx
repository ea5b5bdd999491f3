import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { doubtsOf } from "@fiscalon/core/jurisdictions/doubts";
import type { Doubt } from "@fiscalon/core/jurisdictions/doubts";
import { schedulesOfCode } from "@fiscalon/core/jurisdictions/doubtsInUse";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { LawChangeRow, LawFile } from "@fiscalon/contract/law";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { lawChangesQuery } from "../../api/atStart.ts";
import { usePacks } from "../../api/packs.ts";
import { readJson } from "../../api/readJson.ts";
import { useScope } from "../../app/scope.ts";
import { useSetup } from "../../app/useSetup.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileButton } from "../../kit/FileButton.tsx";
import { plural, showMonth } from "../../kit/format.ts";
import { Menu, MenuItem } from "../../kit/Menu.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { Waiting } from "../../kit/Waiting.tsx";
import { changeInWords, until } from "./lawWords.ts";
import { LawCorrection } from "./LawCorrection.tsx";
import type { CorrectionKind } from "./LawCorrection.tsx";

/** What is known of the law of the client's jurisdictions: how far, what to look up, what was found out. */
export function LawPage() {
  const packs = usePacks();
  const { client } = useScope();
  const [confirming, setConfirming] = useState<{ pack: JurisdictionPack; doubt: Doubt } | null>(null);
  const [correcting, setCorrecting] = useState<{ pack: JurisdictionPack; kind: CorrectionKind } | null>(null);
  const { data: rows = [], error } = useQuery(lawChangesQuery);
  const act = useLawAction();
  const setup = useSetup();
  if (!client || !setup) return <Waiting what="the law" />;
  const countries = new Set([client.country, ...client.places.map(({ country }) => country)]);
  const registered = new Set(client.registrations.map(({ pack }) => pack));
  const levies = new Set(client.registrations.flatMap((one) => one.levies));
  const ours = new Set(
    [...setup.effect.codes.values()].flatMap((code) => schedulesOfCode(code, [...levies])),
  );
  const mine = packs.all.filter(({ id, country }) => registered.has(id) || countries.has(country));
  return (
    <Sheet
      title="Law"
      lead="How far the law is known here. A figure marked to be looked up is used as it stands until someone confirms or corrects it, for every client of the practice."
      actions={
        <>
          <TakeFile />
          <a className="action" href="/api/law/file" download>
            Export
          </a>
        </>
      }
    >
      <ErrorNote error={error ?? act.error} />
      {mine.map((pack) => (
        <section key={pack.id} aria-label={pack.name} className="mb-8 max-w-5xl">
          <Head pack={pack} onCorrect={(kind) => setCorrecting({ pack, kind })} />
          <Doubts
            doubts={doubtsOf(pack)}
            isOurs={(doubt) => isOurs(doubt, ours)}
            onConfirm={(doubt) => setConfirming({ pack, doubt })}
          />
          <FoundOut
            rows={rows.filter(({ change }) => change.pack === pack.id)}
            pack={pack}
            onTakeBack={(id) => act.mutate(() => api.delete("/law/:id", [id]))}
          />
        </section>
      ))}
      <ReasonDialog
        open={confirming !== null}
        title={`Confirm: ${confirming?.doubt.about}`}
        label="Where it was found, and on which day"
        action="Confirm"
        onClose={() => setConfirming(null)}
        onReason={(source) => {
          if (!confirming) return;
          const { pack, doubt } = confirming;
          const change = { kind: "confirm", pack: pack.id, source, subject: doubt.key, value: doubt.value };
          act.mutate(() => api.post("/law", [], { change }));
          setConfirming(null);
        }}
      >
        {confirming?.doubt.figure && (
          <span className="block font-semibold text-base-content">{confirming.doubt.figure}</span>
        )}
        {confirming?.doubt.says}. Where to look: {confirming?.doubt.source}.
      </ReasonDialog>
      {correcting && <LawCorrection {...correcting} packs={packs} onClose={() => setCorrecting(null)} />}
    </Sheet>
  );
}

function useLawAction() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (run: () => Promise<unknown>) => run(),
    onSuccess: () => queries.invalidateQueries(),
  });
}

function Head({ pack, onCorrect }: { pack: JurisdictionPack; onCorrect: (kind: CorrectionKind) => void }) {
  return (
    <header className="mb-2 flex items-start gap-4">
      <div>
        <h2>{pack.name}</h2>
        <p className="quiet">
          {pack.law
            ? `Law as of ${showMonth(pack.law.asOf)}. ${pack.law.checked}`
            : "Made by the practice; it is as good as what was typed."}
        </p>
        {pack.law && pack.law.leftOut.length > 0 && (
          <p className="quiet">Not worked out here: {pack.law.leftOut.join("; ")}.</p>
        )}
      </div>
      <Menu trigger="Correct …" className="action ml-auto shrink-0" name={`Correct the law of ${pack.name}`}>
        <MenuItem onSelect={() => onCorrect("rate")}>A rate, limit or amount</MenuItem>
        <MenuItem onSelect={() => onCorrect("due")}>A due day</MenuItem>
        <MenuItem onSelect={() => onCorrect("title")}>The title of a box</MenuItem>
      </Menu>
    </header>
  );
}

/** Whether a doubt is about what the client's registrations can bear: rates of other levies are not. */
function isOurs({ kind, key }: Doubt, schedules: ReadonlySet<string>): boolean {
  return kind !== "rate" || [...schedules].some((id) => key.startsWith(`rate/${id}/`));
}

function Doubts({
  doubts: all,
  isOurs,
  onConfirm,
}: {
  doubts: Doubt[];
  isOurs: (doubt: Doubt) => boolean;
  onConfirm: (doubt: Doubt) => void;
}) {
  const [whole, setWhole] = useState(false);
  const ours = all.filter(isOurs);
  const doubts = whole ? all : ours;
  if (all.length === 0) return <p className="mb-3">Nothing is left to be looked up.</p>;
  return (
    <>
      <div className="flex gap-6">
        <p className="quiet">{plural(doubts.length, "figure")} to be looked up</p>
        {ours.length < all.length && (
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={whole}
              onChange={(event) => setWhole(event.target.checked)}
            />
            also rates of levies without a registration
          </label>
        )}
      </div>
      <table className="sheet-table mb-3">
        <thead>
          <tr>
            <th>What</th>
            <th>As it stands</th>
            <th>Where to look</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {doubts.map((doubt) => (
            <tr key={doubt.key}>
              <td className="min-w-[220px]">
                <span className="font-semibold">{doubt.about}</span>
                {doubt.days && <span className="quiet block text-[12.5px]">from {until(doubt.days)}</span>}
              </td>
              <td>
                {doubt.figure && <span className="mr-2 font-mono">{doubt.figure}</span>}
                <span className={doubt.figure ? "quiet" : ""}>{doubt.says}</span>
              </td>
              <td className="quiet max-w-[240px]">{doubt.source}</td>
              <td>
                <button
                  type="button"
                  className="word-link"
                  aria-label={`Confirm ${doubt.about}`}
                  onClick={() => onConfirm(doubt)}
                >
                  Confirm
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function FoundOut({
  rows,
  pack,
  onTakeBack,
}: {
  rows: LawChangeRow[];
  pack: JurisdictionPack;
  onTakeBack: (id: number) => void;
}) {
  const packs = usePacks();
  if (rows.length === 0) return null;
  return (
    <table className="sheet-table">
      <caption className="quiet pb-1 text-left">Found out by the practice</caption>
      <thead>
        <tr>
          <th>What</th>
          <th>Where it was found</th>
          <th>Who, when</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {rows.map(({ id, change, by, at }) => (
          <tr key={id}>
            <td className="min-w-[220px]">{changeInWords(change, pack, packs)}</td>
            <td className="quiet">{change.source}</td>
            <td className="quiet whitespace-nowrap">
              {by}, {displayDate(at.slice(0, 10))}
            </td>
            <td>
              <button type="button" className="word-link" onClick={() => onTakeBack(id)}>
                Take back
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Takes in what another practice found out. */
function TakeFile() {
  const queries = useQueryClient();
  const load = useMutation({
    mutationFn: async (file: File) =>
      api.post("/law/file", [], (await readJson(file, "jurisdiction/not-json", "law")) as LawFile),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.law }),
  });
  return (
    <>
      {load.data && (
        <span role="status" className="quiet">
          {load.data.added} taken in, {load.data.known} known before
        </span>
      )}
      <FileButton label="File of the law" busy={load.isPending} onFile={load.mutate}>
        Import a file
      </FileButton>
      <ErrorNote error={load.error} />
    </>
  );
}
