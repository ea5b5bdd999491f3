import { FindInput } from "../../kit/FindInput.tsx";
import { keys } from "../../api/keys.ts";
import { useQuery } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { DocumentPage as Page, DocumentRow } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { showPeriod } from "../../kit/format.ts";
import { ALL_KINDS, KIND_NAMES, TYPED_KINDS } from "../../kit/kinds.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { Menu, MenuItem, MenuLine } from "../../kit/Menu.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { usePlainSetup } from "../../app/records.ts";
import { documentColumns, documentSums } from "./documentColumns.tsx";
import { TakeOutChosen } from "./TakeOutChosen.tsx";
import { onDemand } from "../../kit/onDemand.tsx";

const StockMoveDialog = onDemand(() => import("./StockMoveDialog.tsx").then((one) => one.StockMoveDialog));

/** One grid for all documents, paged on the server and drawn only where it is looked at. */
export function DocumentsPage() {
  const { client, period, registration, ready, path, minorDigits } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState("");
  const [code, setCode] = useState("");
  const codes = usePlainSetup()?.codes ?? [];
  const [scoped, setScoped] = useState(true);
  const filter = {
    search,
    kind,
    code,
    ...(scoped && period ? { from: period.from, to: period.to, registration: registration?.id } : {}),
  };
  const columns = useMemo(
    () => documentColumns(minorDigits, (id) => path(`books/documents/${id}`)),
    [minorDigits, path],
  );
  const anything = useQuery({
    queryKey: keys.of(client?.id, "documents", "any"),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/documents", [client?.id], { limit: 1, part: "rows" }, signal),
    enabled: client !== undefined,
  });
  if (anything.data?.rows.length === 0) {
    return (
      <Sheet title="Documents" actions={<BooksNav />}>
        <EmptyState
          title="The books are empty"
          action={
            <>
              <Link className="action main" to={path("books/import")}>
                Import a register
              </Link>
              <Link className="action" to={path("books/documents/new/sales-invoice")}>
                Type an invoice
              </Link>
            </>
          }
        >
          Drop the register of sales or purchases that the client sends, or type the documents one by one.
        </EmptyState>
      </Sheet>
    );
  }
  return (
    <Sheet title="Documents" actions={<BooksNav />}>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput
          label="Find documents"
          placeholder="Number, party or note"
          value={search}
          onChange={setSearch}
        />
        <select
          className="entry w-[170px]"
          aria-label="Kind"
          value={kind}
          onChange={(event) => setKind(event.target.value)}
        >
          <option value="">all kinds</option>
          {ALL_KINDS.map((one) => (
            <option key={one} value={one}>
              {KIND_NAMES[one]}
            </option>
          ))}
        </select>
        <select
          className="entry w-[150px]"
          aria-label="Code"
          value={code}
          onChange={(event) => setCode(event.target.value)}
        >
          <option value="">all codes</option>
          {codes.map((one) => (
            <option key={one.code} value={one.code}>
              {one.code} {one.name}
            </option>
          ))}
        </select>
        {period && (
          <label className="flex cursor-pointer items-center gap-1.5 pb-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={scoped}
              onChange={(event) => setScoped(event.target.checked)}
            />
            only {showPeriod(period.from, period.to)}
          </label>
        )}
        <NewMenu />
      </div>
      <DataTable<DocumentRow, Page>
        name="documents"
        label="Documents"
        columns={columns}
        rowId={({ id }) => id}
        queryKey={keys.of(client?.id, "documents", filter)}
        enabled={ready}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/documents", [client?.id], { ...filter, ...order, part: "rows" }, signal)
        }
        fetchSums={(signal) =>
          api.get("/clients/:id/documents", [client?.id], { ...filter, part: "sums" }, signal)
        }
        onOpen={(row) => void navigate(path(`books/documents/${row.id}`))}
        foot={({ sums }) => documentSums(sums ?? [], minorDigits, code)}
        choosing={{
          nameOf: ({ number }) => number,
          actions: (ids, done) => <TakeOutChosen ids={ids} onDone={done} />,
        }}
        empty={scoped ? "No document of this period fits." : "No document fits."}
      />
    </Sheet>
  );
}

/** Kinds of document to type, as a list to choose from. */
function NewMenu() {
  const { client, path } = useScope();
  const navigate = useNavigate();
  const [moving, setMoving] = useState(false);
  const regions = new Set(client?.registrations.flatMap(({ region }) => region ?? []));
  return (
    <>
      <Menu
        className="action main ml-auto"
        trigger={
          <>
            New document <ChevronDown size={14} aria-hidden />
          </>
        }
      >
        {TYPED_KINDS.map((kind) => (
          <MenuItem key={kind} onSelect={() => void navigate(path(`books/documents/new/${kind}`))}>
            {KIND_NAMES[kind]}
          </MenuItem>
        ))}
        {regions.size > 1 && (
          <>
            <MenuLine />
            <MenuItem onSelect={() => setMoving(true)}>Stock to another registration</MenuItem>
          </>
        )}
      </Menu>
      {moving && (
        <StockMoveDialog
          onClose={() => setMoving(false)}
          onMoved={(sale) => void navigate(path(`books/documents/${sale}`))}
        />
      )}
    </>
  );
}
