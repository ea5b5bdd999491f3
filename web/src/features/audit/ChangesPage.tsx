import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { ChangeView } from "@fiscalon/contract/audit";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showMoment, showPeriod } from "../../kit/format.ts";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { differences } from "../../kit/differences.ts";
import { fieldWords, valueWords } from "../../kit/versionWords.ts";
import { changeWords, ENTITIES } from "./changeWords.ts";

const PAGE = 50;
/** As a link to it says that only the history of the return is asked for. */
const OF_RETURN = "return-made";

/** The audit trail of a client: what was changed, by whom and when; nothing in it can be altered. */
export function ChangesPage() {
  const { client, registration, period, ready } = useScope();
  const [query] = useSearchParams();
  const [only, setOnly] = useState(query.get("of") === OF_RETURN ? OF_RETURN : "");
  const ofReturn = only === OF_RETURN && registration && period;
  const asked = ofReturn
    ? { registration: registration.id, period: period.to }
    : { entity: only === OF_RETURN ? undefined : only || undefined };
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: keys.of(client?.id, "changes", asked),
    queryFn: ({ pageParam }) =>
      api.get("/clients/:id/changes", [client?.id], { limit: PAGE, before: pageParam, ...asked }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.id),
    enabled: client !== undefined && (only !== OF_RETURN || ready),
  });
  const { data: chain } = useQuery({
    queryKey: keys.of(client?.id, "audit"),
    queryFn: ({ signal }) => api.get("/clients/:id/audit", [client?.id], {}, signal),
    enabled: client !== undefined,
  });
  const rows = data?.pages.flat() ?? [];
  return (
    <Sheet
      title="Audit trail"
      lead={
        chain &&
        (chain.broken === null
          ? `✓ The trail is whole: each of ${chain.entries.toLocaleString("en-GB")} entries fits the one before it.`
          : `Entry ${chain.broken} was altered, or one before it taken out.`)
      }
      actions={<BooksNav />}
    >
      <select
        aria-label="Only changes of"
        className="entry mb-2 max-w-[320px] cursor-pointer"
        value={only}
        onChange={(event) => setOnly(event.target.value)}
      >
        <option value="">everything</option>
        {registration && period && (
          <option value={OF_RETURN}>all that made the return of {showPeriod(period.from, period.to)}</option>
        )}
        {Object.entries(ENTITIES).map(([one, words]) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
      <ErrorNote error={error} />
      {data && rows.length === 0 && (
        <EmptyState title="Nothing was changed yet">Every change is kept here with who made it.</EmptyState>
      )}
      {rows.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th className="w-[150px]">When</th>
              <th className="w-[130px]">Who</th>
              <th className="w-[250px]">What</th>
              <th>Before → after</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <td className="!align-top whitespace-nowrap">{showMoment(row.at)}</td>
                <td className="!align-top">{row.by}</td>
                <td className="!align-top">
                  {changeWords(row)} {row.subject && <strong>{row.subject}</strong>}
                </td>
                <td>
                  <Difference row={row} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {hasNextPage && (
        <button
          type="button"
          className="action mt-3 self-start"
          disabled={isFetchingNextPage}
          onClick={() => void fetchNextPage()}
        >
          {isFetchingNextPage ? "Reading …" : "Earlier changes"}
        </button>
      )}
    </Sheet>
  );
}

const SHOWN = 4;

/** The fields that differ; many are folded. */
function Difference({ row }: { row: ChangeView }) {
  const [open, setOpen] = useState(false);
  const all = differences(row.before, row.after);
  const shown = open ? all : all.slice(0, SHOWN);
  return (
    <>
      <ul className="text-[12.5px]">
        {shown.map(({ path, before, after }) => (
          <li key={path} className="break-words">
            <span className="quiet">{fieldWords(path)}</span>{" "}
            {before !== null && <del>{valueWords(path, before, row.names, displayDate)}</del>}{" "}
            {after !== null && valueWords(path, after, row.names, displayDate)}
          </li>
        ))}
      </ul>
      {all.length > SHOWN && (
        <button type="button" className="word-link text-[12px]" onClick={() => setOpen(!open)}>
          {open ? "Fold" : `${all.length - SHOWN} more`}
        </button>
      )}
    </>
  );
}
