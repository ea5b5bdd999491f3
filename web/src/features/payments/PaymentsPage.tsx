import { FindInput } from "../../kit/FindInput.tsx";
import { keys } from "../../api/keys.ts";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { OpenItem, OpenItemPage, PaymentPage, PaymentRow } from "@fiscalon/contract/payments";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { showPeriod } from "../../kit/format.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { openItemColumns, openItemSum, paymentColumns, paymentSum } from "./paymentColumns.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";

const VIEWS = [
  ["payments", "Payments and receipts"],
  ["open", "Open items"],
] as const;

/** Money that moved, and what is still open. */
export function PaymentsPage() {
  const { path } = useScope();
  const [view, setView] = useState<"payments" | "open">("payments");
  const [search, setSearch] = useState("");
  return (
    <Sheet title="Payments" actions={<BooksNav />}>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput
          label="Find payments"
          placeholder="Number, party or reference"
          value={search}
          onChange={setSearch}
        />
        <ViewTabs label="What is shown" views={VIEWS} chosen={view} onChoose={setView} className="pb-1" />
        <div className="ml-auto flex gap-2">
          <Link className="action main" to={path("books/payments/new/receipt")}>
            Record a receipt
          </Link>
          <Link className="action" to={path("books/payments/new/payment")}>
            Record a payment
          </Link>
        </div>
      </div>
      {view === "payments" ? <Moved search={search} /> : <Open search={search} />}
    </Sheet>
  );
}

function Moved({ search }: { search: string }) {
  const { client, period, path, minorDigits: digits } = useScope();
  const [scoped, setScoped] = useState(true);
  const columns = useMemo(() => paymentColumns(digits, path), [digits, path]);
  const filter = { search, ...(scoped && period ? { from: period.from, to: period.to } : {}) };
  return (
    <>
      {period && (
        <label className="mb-1 flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={scoped}
            onChange={(event) => setScoped(event.target.checked)}
          />
          only {showPeriod(period.from, period.to)}
        </label>
      )}
      <DataTable<PaymentRow, PaymentPage>
        name="payments"
        label="Payments"
        columns={columns}
        rowId={({ id }) => id}
        queryKey={keys.of(client?.id, "payments", filter)}
        enabled={client !== undefined}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/payments", [client?.id], { ...filter, ...order }, signal)
        }
        foot={(page) => [paymentSum(page, digits)]}
        empty="No money moved here. Record a receipt or a payment, or change the period."
      />
    </>
  );
}

function Open({ search }: { search: string }) {
  const { client, path, minorDigits: digits } = useScope();
  const [side, setSide] = useState<"" | "sale" | "purchase">("");
  const columns = useMemo(() => openItemColumns(client?.currency, path), [client, path]);
  const filter = { search, side };
  return (
    <>
      <select
        className="entry mb-1 !w-[190px]"
        aria-label="Whose"
        value={side}
        onChange={(event) => setSide(event.target.value as typeof side)}
      >
        <option value="">customers and suppliers</option>
        <option value="sale">customers</option>
        <option value="purchase">suppliers</option>
      </select>
      <DataTable<OpenItem, OpenItemPage>
        name="open-items"
        label="Open items"
        columns={columns}
        rowId={({ document }) => document}
        queryKey={keys.of(client?.id, "open-items", filter)}
        enabled={client !== undefined}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/open-items", [client?.id], { ...filter, ...order }, signal)
        }
        foot={(page) => [openItemSum(page, digits)]}
        empty="Nothing is open."
      />
    </>
  );
}
