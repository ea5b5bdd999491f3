import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { displayAmount } from "@fiscalon/core/money/amount";
import type { SheetMapping, SheetView } from "@fiscalon/contract/registerSheets";
import { api } from "../../../api/client.ts";
import { seenOf } from "../../../api/seen.ts";
import { keys } from "../../../api/keys.ts";
import { useScope } from "../../../app/scope.ts";
import { ErrorNote } from "../../../kit/ErrorNote.tsx";
import { FileLinks } from "../../../kit/FileLinks.tsx";
import { Field } from "../../../kit/Field.tsx";
import { plural } from "../../../kit/format.ts";
import { Sheet } from "../../../kit/Sheet.tsx";
import { Waiting } from "../../../kit/Waiting.tsx";
import { ColumnTable } from "./ColumnTable.tsx";
import { PivotTable } from "./PivotTable.tsx";

const ONE = "/clients/:id/register-sheets/:sheet";

const SPLIT: Record<SheetView["split"][number]["id"], string> = {
  taxed: "With tax",
  nought: "Tax nought",
  blank: "Tax blank: exports, zero-rated, outside the scope",
};

/** An exported register with both values it is read as, what parts them, and the register as a pivot. */
export function RegisterPage() {
  const { sheetId } = useParams();
  const { client, path } = useScope();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [typed, setTyped] = useState<SheetMapping | null>(null);
  const parts: [number | undefined, number] = [client?.id, Number(sheetId)];
  const refresh = () => queries.invalidateQueries({ queryKey: keys.of(client?.id, "registers") });
  const key = keys.of(client?.id, "registers", "one", sheetId);
  const { data: view, error } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => api.get(ONE, parts, {}, signal),
    enabled: client !== undefined,
  });
  const save = useMutation({
    scope: { id: `columns-of-register-${sheetId}` },
    mutationFn: (mapping: SheetMapping) =>
      api.put(`${ONE}/mapping`, parts, mapping, seenOf(queries.getQueryData(key))),
    onSettled: async (_kept, _refused, mapping) => {
      await refresh();
      setTyped((now) => (now === mapping ? null : now));
    },
  });
  const change = (mapping: SheetMapping) => {
    setTyped(mapping);
    save.mutate(mapping);
  };
  const remove = useMutation({
    mutationFn: () => api.delete(ONE, parts, {}, seenOf(view)),
    onError: refresh,
    onSuccess: async () => {
      await refresh();
      await navigate(path("agree/register"));
    },
  });
  const back = (
    <Link className="word-link" to={path("agree/register")}>
      All registers
    </Link>
  );
  if (!view)
    return (
      <Sheet title="Register" actions={back}>
        <ErrorNote error={error} />
        {!error && <Waiting what="the register" />}
      </Sheet>
    );
  // What was just chosen is shown at once; its figures follow.
  const chosen = { ...view, mapping: typed ?? view.mapping };
  return (
    <Sheet title={view.name} aside={plural(view.rows, "row")} actions={back}>
      <div className="no-print mb-2 flex justify-end gap-4">
        <FileLinks
          href={`/api/clients/${client?.id}/register-sheets/${view.id}/file`}
          formats={["xlsx", "csv"]}
          words=" with every row"
        />
        <button type="button" className="word-link" onClick={() => remove.mutate()}>
          Take it out
        </button>
      </div>
      <ErrorNote error={save.error ?? remove.error} />
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <ColumnTable view={chosen} onChange={change} />
        <div>
          <Bridge view={view} onChange={change} />
          <Split view={view} />
          <Months view={view} />
        </div>
      </div>
      <PivotTable clientId={client?.id} view={view} />
    </Sheet>
  );
}

function Bridge({ view, onChange }: { view: SheetView; onChange: (mapping: SheetMapping) => void }) {
  const { digits, accounts, returns, causes, untold, mapping } = view;
  const [told, setTold] = useState(mapping.told);
  return (
    <>
      <table className="sheet-table">
        <tbody>
          <tr className="font-semibold">
            <td>Value in the accounts</td>
            <td className="num">{displayAmount(accounts, digits)}</td>
          </tr>
          {causes.map(({ at, name, amount }) => (
            <tr key={at}>
              <td className="pl-6">{name}</td>
              <td className="num">{displayAmount(amount, digits)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td>Value on the return</td>
            <td className="num">{displayAmount(returns, digits)}</td>
          </tr>
          {untold !== null && (
            <tr>
              <td>
                <span className={untold === 0 ? "text-success" : "text-warning"}>
                  {untold === 0
                    ? "As the profit and loss account says"
                    : "In the profit and loss account, not here"}
                </span>
              </td>
              <td className="num">{displayAmount(untold, digits)}</td>
            </tr>
          )}
        </tbody>
      </table>
      <form
        className="mt-2 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onChange({ ...mapping, told: told.replaceAll(",", "").trim() });
        }}
      >
        <Field
          label="Sales in the profit and loss account"
          inputClass="num text-right"
          value={told}
          onChange={({ target }) => setTold(target.value)}
        />
        <button type="submit" className="action">
          Compare
        </button>
      </form>
    </>
  );
}

function Split({ view: { split, digits } }: { view: SheetView }) {
  if (split.length === 0) return null;
  return (
    <table className="sheet-table mt-5">
      <thead>
        <tr>
          <th>By tax</th>
          <th className="num">Rows</th>
          <th className="num">Accounts</th>
          <th className="num">Return</th>
          <th className="num">Tax</th>
        </tr>
      </thead>
      <tbody>
        {split.map(({ id, rows, accounts, returns, tax }) => (
          <tr key={id}>
            <td className="!whitespace-normal">{SPLIT[id]}</td>
            <td className="num">{rows}</td>
            <td className="num">{displayAmount(accounts, digits)}</td>
            <td className="num">{displayAmount(returns, digits)}</td>
            <td className="num">{displayAmount(tax, digits)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Months({ view: { months, digits } }: { view: SheetView }) {
  if (months.length === 0) return null;
  const hasLedger = months.some(({ ledger }) => ledger !== null);
  return (
    <table className="sheet-table mt-5">
      <thead>
        <tr>
          <th>Month</th>
          <th className="num">Accounts</th>
          <th className="num">Return</th>
          <th className="num">Apart</th>
          {hasLedger && <th className="num">Income in these books</th>}
        </tr>
      </thead>
      <tbody>
        {months.map(({ month, accounts, returns, ledger }) => (
          <tr key={month}>
            <td>{month || "no date"}</td>
            <td className="num">{displayAmount(accounts, digits)}</td>
            <td className="num">{displayAmount(returns, digits)}</td>
            <td className="num">{displayAmount(returns - accounts, digits)}</td>
            {hasLedger && <td className="num">{ledger === null ? "" : displayAmount(ledger, digits)}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
