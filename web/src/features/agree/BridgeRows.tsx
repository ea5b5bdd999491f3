import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDndMonitor, useDraggable } from "@dnd-kit/core";
import { GripVertical } from "lucide-react";
import { useState } from "react";
import type { BridgeOf } from "@fiscalon/core/agree/turnoverBridge";
import type { BridgeRow, BridgeView } from "@fiscalon/contract/bridge";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { Combo } from "../../kit/Combo.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Field } from "../../kit/Field.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plural } from "../../kit/format.ts";
import { CauseChips, NEW_CAUSE } from "./CauseChips.tsx";
import { MoreRows } from "./WaterfallRow.tsx";

const PAGE = 50;
const ROWS = "/clients/:id/registrations/:rid/bridge/rows";
const CAUSES = "/clients/:id/registrations/:rid/bridge/causes";

/** The rows of a cause, each opening its trail; what a person names can be named here, or taken back. */
export function BridgeRows({
  view: { of, from, to, digits, named },
  rid,
  cause,
  byPerson,
}: {
  view: BridgeView;
  rid: number;
  cause: string;
  byPerson: boolean;
}) {
  const { client } = useScope();
  const [limit, setLimit] = useState(PAGE);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const { data: page, error } = useQuery({
    queryKey: keys.of(client?.id, "bridge", of, rid, { from, to, cause, limit }),
    queryFn: ({ signal }) =>
      api.get(ROWS, [client?.id, rid], { of, from, to, cause, offset: 0, limit }, signal),
    placeholderData: (before) => before,
  });
  const save = useNaming({ of, from, to }, rid, () => setChosen(new Set()));
  useDndMonitor({
    onDragEnd: ({ active, over }) => {
      const dropped = over?.data.current?.["cause"] as unknown;
      const key = String(active.id);
      if (typeof dropped !== "string" || !page?.rows.some((row) => row.key === key)) return;
      give(chosen.has(key) ? chosen : new Set([key]), dropped);
    },
  });
  const give = (keys: ReadonlySet<string>, name: string) => {
    setChosen(keys);
    if (name !== NEW_CAUSE) save.mutate({ keys: [...keys], name, reason: "" });
  };
  if (error || !page)
    return (
      <tr>
        <td colSpan={4}>{error ? <ErrorNote error={error} /> : <span className="quiet">…</span>}</td>
      </tr>
    );
  const choose = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  return (
    <>
      {byPerson && page.rows.length > 0 && (
        <tr>
          <td colSpan={4}>
            <CauseChips
              named={named.filter((name) => `named ${name}` !== cause)}
              active={chosen.size > 0}
              onChoose={(name) => give(chosen, name)}
            />
            <ErrorNote error={save.error} />
          </td>
        </tr>
      )}
      {page.rows.map((row) => (
        <RowOf
          key={row.key}
          row={row}
          digits={digits}
          isOpen={cause === ""}
          chosen={chosen.has(row.key)}
          onChoose={byPerson ? () => choose(row.key) : undefined}
        />
      ))}
      <MoreRows left={page.total - page.rows.length} onMore={() => setLimit(limit + PAGE)} />
      {byPerson && chosen.size > 0 && (
        <tr>
          <td colSpan={4}>
            <Naming
              rows={page.rows.filter(({ key }) => chosen.has(key))}
              save={save}
              named={named}
              takesBack={cause !== ""}
            />
          </td>
        </tr>
      )}
    </>
  );
}

function RowOf({
  row,
  digits,
  isOpen,
  chosen,
  onChoose,
}: {
  row: BridgeRow;
  digits: number;
  /** Nobody has named its cause yet. */
  isOpen: boolean;
  chosen: boolean;
  onChoose: (() => void) | undefined;
}) {
  const { number, party, text, date, account, amount, ledger, base, ref, reason, suggestion } = row;
  const what = [party, text].filter((part) => part !== "").join(": ");
  return (
    <tr className="text-[13.5px]">
      <td className="pl-8 !whitespace-normal">
        <div className="flex items-baseline gap-2">
          {onChoose && <Grip rowKey={row.key} name={number || what} />}
          <label className="flex items-baseline gap-2">
            {onChoose && (
              <input
                type="checkbox"
                checked={chosen}
                onChange={onChoose}
                aria-label={`Choose ${number || what}`}
              />
            )}
            <span>
              {number && <span className="num mr-2">{number}</span>}
              {what}
              {reason && <span className="quiet ml-2">{reason}</span>}
              {isOpen && suggestion && <span className="quiet ml-2">named before: {suggestion}</span>}
            </span>
          </label>
        </div>
      </td>
      <td className="num">
        <Figure amount={amount} digits={digits} of={ref} label={number || what} />
      </td>
      <td className="quiet">
        {displayAmount(ledger, digits)} in the books, {displayAmount(base, digits)} on returns
      </td>
      <td className="quiet">
        {account} {displayDate(date)}
      </td>
    </tr>
  );
}

/** The handle by which a row is dragged to a cause; space takes it, the arrows move it. */
function Grip({ rowKey, name }: { rowKey: string; name: string }) {
  const { setNodeRef, attributes, listeners } = useDraggable({ id: rowKey, data: { name } });
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="inline-flex h-6 w-6 shrink-0 cursor-grab items-center justify-center self-center text-base-content/60"
      {...attributes}
      {...listeners}
      aria-label={`Drag ${name} to a cause`}
    >
      <GripVertical size={14} aria-hidden />
    </button>
  );
}

interface NamedRows {
  keys: string[];
  name: string;
  reason: string;
}

/** Names the cause of rows, or takes what was named back. */
function useNaming(span: { of: BridgeOf; from: string; to: string }, rid: number, onDone: () => void) {
  const { client } = useScope();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ keys: named, name, reason }: NamedRows) =>
      api.post(CAUSES, [client?.id, rid], { ...span, keys: named, cause: name, reason }),
    onSuccess: async () => {
      // First, so that what is chosen while the rows are read again stays chosen.
      onDone();
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
    },
  });
}

/** A cause for the rows that are chosen: one that was named before, or a new one. */
function Naming({
  rows,
  save,
  named,
  takesBack,
}: {
  rows: readonly BridgeRow[];
  save: ReturnType<typeof useNaming>;
  named: readonly string[];
  takesBack: boolean;
}) {
  const [first] = rows;
  const [cause, setCause] = useState(first?.suggestion ?? "");
  const [reason, setReason] = useState(first?.reason ?? "");
  const give = (name: string) => save.mutate({ keys: rows.map(({ key }) => key), name, reason });
  return (
    <div className="flex flex-wrap items-end gap-3 py-2 pl-6" role="group" aria-label="Name a cause">
      <Combo
        label={`Cause of ${plural(rows.length, "row")}`}
        value={cause}
        choices={[...new Set([...named, ...(cause === "" ? [] : [cause])])].map((name) => ({
          value: name,
          label: name,
        }))}
        onChange={setCause}
        onCreate={setCause}
        createWord="Call it"
        placeholder="accrued income, …"
      />
      <Field label="Why" value={reason} onChange={({ target }) => setReason(target.value)} />
      <button
        type="button"
        className="btn btn-primary"
        disabled={cause === "" || save.isPending}
        onClick={() => give(cause)}
      >
        Name it
      </button>
      {takesBack && (
        <button type="button" className="word-link pb-2" onClick={() => give("")}>
          take the name back
        </button>
      )}
    </div>
  );
}
