import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { UNION_MEMBERS } from "@fiscalon/core/packs/eu/members";
import { STANDARD_RATES } from "@fiscalon/core/packs/eu/standardRates";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import { api } from "../../api/client.ts";
import { usePacks } from "../../api/packs.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { FileButton } from "../../kit/FileButton.tsx";
import { today } from "../../kit/format.ts";
import { readJson } from "../../api/readJson.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import type { JurisdictionFile } from "./jurisdictionFile.ts";

/** All jurisdictions that are known: those that ship, and those the practice made. */
export function JurisdictionsPage() {
  const packs = usePacks();
  const queries = useQueryClient();
  const { data: rows, error } = useQuery({
    queryKey: keys.jurisdictions,
    queryFn: ({ signal }) => api.get("/jurisdictions", [], {}, signal),
  });
  const remove = useMutation({
    mutationFn: (id: string) => api.delete("/jurisdictions/:ref", [id]),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.jurisdictions });
    },
  });
  return (
    <Sheet
      title="Jurisdictions"
      lead="Each is data: levies, rates by date, codes with their boxes, forms and calendar. Where none fits, make one, from nothing or from one that ships."
      actions={
        <>
          <ImportFile />
          <Link to="/jurisdictions/new" className="action main">
            New jurisdiction
          </Link>
        </>
      }
    >
      <ErrorNote error={error ?? remove.error} />
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Jurisdiction</th>
            <th>Levies</th>
            <th>Forms</th>
            <th className="num">Codes</th>
            <th>Currency</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rows?.map(({ id, name, levies, forms, codes, currency, shipped }) => (
            <tr key={id}>
              <td>
                <span className="font-semibold">{name}</span>{" "}
                <span className="quiet font-mono text-[12px]">{id}</span>
              </td>
              <td>{someOf(levies.map((levy) => packs.levyName(levy)))}</td>
              <td className="quiet">{forms.join(", ")}</td>
              <td className="num">{codes}</td>
              <td>{currency}</td>
              <td className="text-right whitespace-nowrap">
                <Link className="word-link" to={`/jurisdictions/${id}`}>
                  {shipped ? "Use as a start" : "Change"}
                </Link>
                <a className="word-link ml-3" href={`/api/jurisdictions/${id}`} download>
                  Export
                </a>
                {!shipped && (
                  <button
                    type="button"
                    className="word-link ml-3"
                    onClick={() => remove.mutate(id)}
                    aria-label={`Delete ${name}`}
                  >
                    Delete
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="mt-6 mb-1">Other members of the European Union</h2>
      <p className="quiet mb-2">Their standard rates are known by date; start a jurisdiction from one.</p>
      <ul className="grid max-w-4xl grid-cols-4 gap-x-6">
        {[...UNION_MEMBERS]
          .filter(([country]) => !rows?.some((row) => row.country === country))
          .map(([country, name]) => (
            <li key={country} className="flex justify-between border-b border-base-300 py-1">
              <Link className="word-link" to={`/jurisdictions/new?member=${country}`}>
                {name}
              </Link>
              <span className="num">{rowInForce(STANDARD_RATES[country] ?? [], today())?.rate} %</span>
            </li>
          ))}
      </ul>
    </Sheet>
  );
}

/** Takes in the JSON file of a jurisdiction. */
function ImportFile() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const load = useMutation({
    mutationFn: async (file: File) => {
      const definition = (await readJson(file, "jurisdiction/not-json", "jurisdiction")) as JurisdictionFile;
      await api.put("/jurisdictions/:ref", [definition.id], definition);
      return definition.id;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries({ queryKey: keys.jurisdictions });
      await navigate(`/jurisdictions/${id}`);
    },
  });
  return (
    <>
      <FileButton label="Jurisdiction file" busy={load.isPending} onFile={load.mutate}>
        Import a file
      </FileButton>
      {load.error && <ErrorNote error={load.error} />}
    </>
  );
}

/** As many names as a row has room for. */
const ROOM = 6;

function someOf(names: readonly string[]): string {
  const more = names.length - ROOM;
  return more <= 0 ? names.join(", ") : `${names.slice(0, ROOM).join(", ")} and ${more} more`;
}
