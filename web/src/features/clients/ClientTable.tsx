import { displayDate } from "@fiscalon/core/calendar/displayDate";
import clsx from "clsx";
import { useState } from "react";
import { Link } from "react-router";
import type { ClientRow, NextReturn } from "@fiscalon/contract/views";
import { displayAmount } from "@fiscalon/core/money/amount";
import { minorDigits } from "@fiscalon/core/money/currency";
import { usePacks } from "../../api/packs.ts";
import { plural, showPeriod, today } from "../../kit/format.ts";
import { StateMark } from "../../kit/stateMark.tsx";

/** Clients with the return that each of their registrations has to file next; by name, or what is due first first. */
export function ClientTable({ clients }: { clients: readonly ClientRow[] }) {
  const [byDue, setByDue] = useState(false);
  const rows = byDue ? [...clients].sort((a, b) => (dueOf(a) < dueOf(b) ? -1 : 1)) : clients;
  return (
    <table className="sheet-table table-fixed">
      <thead>
        <tr>
          <SortedHead name="Client" width="w-[26%]" chosen={!byDue} onChoose={() => setByDue(false)} />
          <th>Next return</th>
          <SortedHead name="Due" width="w-[112px]" chosen={byDue} onChoose={() => setByDue(true)} />
          <th className="num w-[150px]">Net to pay</th>
          <th className="w-[130px]">State</th>
          <th className="w-[120px]">Findings</th>
          <th className="num w-[96px]">Documents</th>
        </tr>
      </thead>
      <tbody>{rows.map((client) => rowsOf(client))}</tbody>
    </table>
  );
}

function SortedHead({
  name,
  width,
  chosen,
  onChoose,
}: {
  name: string;
  width: string;
  chosen: boolean;
  onChoose: () => void;
}) {
  return (
    <th className={width} aria-sort={chosen ? "ascending" : undefined}>
      <button type="button" className="cursor-pointer font-semibold hover:text-primary" onClick={onChoose}>
        {name} {chosen && <span aria-hidden>↑</span>}
      </button>
    </th>
  );
}

/** One row a return to file; the client stands beside the first. */
function rowsOf(client: ClientRow) {
  const returns: (NextReturn | null)[] = client.next.length === 0 ? [null] : client.next;
  return returns.map((one, index) => (
    <tr key={`${client.id} ${one?.registration ?? ""}`} className="hover:bg-base-200">
      {index === 0 && (
        <td rowSpan={returns.length} className="!align-top">
          <Link className="font-semibold hover:text-primary" to={`/c/${client.id}/return`}>
            {client.name}
          </Link>
          <span className="quiet block text-[12px]">
            {[client.places, client.country, client.currency].filter(Boolean).join(" · ")}
          </span>
        </td>
      )}
      <NextCells client={client} next={one} />
      {index === 0 && (
        <td rowSpan={returns.length} className="num">
          {client.documents.toLocaleString("en-GB")}
        </td>
      )}
    </tr>
  ));
}

function NextCells({ client, next }: { client: ClientRow; next: NextReturn | null }) {
  const packs = usePacks();
  if (!next)
    return (
      <td colSpan={5} className="quiet">
        nothing to file
      </td>
    );
  const { registration, levies, from, to, due, state, net, findings, counting } = next;
  const late = due < today();
  const path = `/c/${client.id}/return/${to}?r=${registration}`;
  return (
    <>
      <td className="!whitespace-normal">
        <Link className="word-link" to={path}>
          {showPeriod(from, to)}
        </Link>
        <span className="quiet block truncate text-[12px]" title={packs.levyNames(levies)}>
          {packs.levyNames(levies)}
        </span>
      </td>
      <td className={clsx("whitespace-nowrap", late && "font-semibold text-error")}>{displayDate(due)}</td>
      <td className="num">
        <Link
          className="hover:text-primary"
          to={path}
          aria-label={`Net of ${client.name}, ${showPeriod(from, to)}`}
        >
          {displayAmount(net, minorDigits(client.currency))}
        </Link>
      </td>
      <td>
        <StateMark state={state} suffix={late ? " · overdue" : to >= today() ? " · running" : ""} />
      </td>
      <td className="whitespace-nowrap">
        <Waiting
          findings={findings}
          counting={counting}
          path={path}
          of={`${client.name}, ${showPeriod(from, to)}`}
        />
      </td>
    </>
  );
}

/** Findings nobody accepted yet, those that stop the return first. */
function Waiting({
  findings,
  counting,
  path,
  of,
}: Pick<NextReturn, "findings" | "counting"> & { path: string; of: string }) {
  if (counting) return <span className="quiet">being counted</span>;
  if (findings === null) return <span className="quiet">not known</span>;
  const { open, stops } = findings;
  if (open === 0) return <span className="quiet">none</span>;
  return (
    <Link className="hover:text-primary" to={path} aria-label={`${plural(open, "finding")} of ${of}`}>
      {stops > 0 && <span className="font-semibold text-error">{stops} stop it</span>}
      {stops > 0 && open > stops && " · "}
      {open > stops && `${open - stops} to look at`}
    </Link>
  );
}

/** When the first of its returns is due; what has nothing to file comes last. */
function dueOf({ next }: ClientRow): string {
  return next[0]?.due ?? "9999";
}
