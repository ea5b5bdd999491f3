import { useQuery } from "@tanstack/react-query";
import { ChevronDown } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { PiecePage, PieceRow, PieceState } from "@fiscalon/contract/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled, withQuery } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useScope } from "../../app/scope.ts";
import { useKeepsStockBook } from "../../app/useKept.ts";
import { DataTable } from "../../kit/DataTable.tsx";
import { FindInput } from "../../kit/FindInput.tsx";
import { plural, showPeriod } from "../../kit/format.ts";
import { Menu, MenuItem, MenuLine } from "../../kit/Menu.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { SidePanel } from "../../kit/SidePanel.tsx";
import { ViewTabs } from "../../kit/ViewTabs.tsx";
import { PieceDialog } from "./PieceDialogs.tsx";
import { JoinDialog } from "./SetsAndLots.tsx";
import { ImportDialog, TakeInDialog } from "./TakingIn.tsx";
import { pieceColumns, pieceSums } from "./pieceColumns.tsx";
import { PiecePanel } from "./PiecePanel.tsx";

type Open =
  | { what: "buy" }
  | { what: "import"; file: File }
  | { what: "take-in" }
  | { what: "join"; nos: number[]; done: () => void };

/** The book of pieces sold on the margin, with the sheet of the one that is open. */
export function StockPage() {
  const keeps = useKeepsStockBook();
  const { client, path } = useScope();
  const { no } = useParams();
  if (client && !keeps) {
    return (
      <Sheet title="Stock book" actions={<BooksNav />}>
        <EmptyState title="No margin scheme here">
          None of this client&rsquo;s jurisdictions taxes second-hand goods piece by piece.
        </EmptyState>
      </Sheet>
    );
  }
  return (
    <>
      <Book />
      {no !== undefined && (
        <SidePanel name="piece" initial={400}>
          <PiecePanel key={no} no={Number(no)} close={path("books/stock")} />
        </SidePanel>
      )}
    </>
  );
}

function Book() {
  const { client, period, path, minorDigits: digits } = useScope();
  const navigate = useNavigate();
  const [search, setSearch] = useState("");
  const [state, setState] = useState<PieceState>("");
  const [scoped, setScoped] = useState(false);
  const [open, setOpen] = useState<Open | null>(null);
  const filter = { search, state, ...(scoped && period ? { from: period.from, to: period.to } : {}) };
  const queryKey = keys.of(client?.id, "pieces", filter);
  const { data: head } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "head"),
    queryFn: ({ signal }) => api.get("/clients/:id/pieces", [client?.id], { limit: 1 }, signal),
    enabled: client !== undefined,
  });
  const columns = useMemo(() => pieceColumns(digits, (no) => path(`books/stock/${no}`)), [digits, path]);
  const exported = (format: string) =>
    `/api${withQuery(filled("/clients/:id/pieces/export", [client?.id]), { ...filter, format })}`;
  return (
    <Sheet title="Stock book" aside="margin scheme, piece by piece" actions={<BooksNav />}>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <FindInput
          label="Find pieces"
          placeholder="Number, name, mark, seller, buyer"
          value={search}
          onChange={setSearch}
        />
        {period && (
          <label className="flex cursor-pointer items-center gap-1.5 pb-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={scoped}
              onChange={({ target }) => setScoped(target.checked)}
            />
            sold {showPeriod(period.from, period.to)} or in stock
          </label>
        )}
        <Actions exported={exported} onOpen={setOpen} />
      </div>
      {head && (
        <ViewTabs
          label="What is shown"
          views={viewsOf(head)}
          chosen={state}
          onChoose={setState}
          className="mb-2 flex-wrap gap-y-1"
        />
      )}
      {head && head.toTakeIn > 0 && (
        <p className="note-row mb-2">
          {plural(head.toTakeIn, "purchase")} with the code of the scheme {head.toTakeIn === 1 ? "is" : "are"}{" "}
          in no piece yet.{" "}
          <button type="button" className="word-link" onClick={() => setOpen({ what: "take-in" })}>
            Take in
          </button>
        </p>
      )}
      <DataTable<PieceRow, PiecePage>
        name="pieces"
        label="Pieces"
        columns={columns}
        rowId={({ no }) => no}
        queryKey={queryKey}
        enabled={client !== undefined}
        fetchPage={(order, signal) =>
          api.get("/clients/:id/pieces", [client?.id], { ...filter, ...order }, signal)
        }
        onOpen={({ no }) => void navigate(path(`books/stock/${no}`))}
        foot={(page) => [pieceSums(page, digits)]}
        choosing={{
          nameOf: ({ name }) => name,
          actions: (nos, done) => (
            <button
              type="button"
              className="word-link"
              disabled={nos.length < 2}
              onClick={() => setOpen({ what: "join", nos, done })}
            >
              Join into a set
            </button>
          ),
        }}
        empty={
          state === "" && search === ""
            ? "No piece yet. Buy one, take purchases in, or import the opening stock."
            : "No piece fits."
        }
      />
      {head && <StockLine page={head} digits={digits} />}
      {open?.what === "buy" && head && (
        <PieceDialog
          head={head}
          piece={null}
          onClose={() => setOpen(null)}
          onSaved={({ no }) => {
            setOpen(null);
            void navigate(path(`books/stock/${no}`));
          }}
        />
      )}
      {open?.what === "take-in" && <TakeInDialog onClose={() => setOpen(null)} />}
      {open?.what === "import" && <ImportDialog file={open.file} onClose={() => setOpen(null)} />}
      {open?.what === "join" && (
        <JoinDialog
          nos={open.nos}
          onClose={() => setOpen(null)}
          onSaved={({ no }) => {
            open.done();
            setOpen(null);
            void navigate(path(`books/stock/${no}`));
          }}
        />
      )}
    </Sheet>
  );
}

function viewsOf({ counts }: PiecePage): (readonly [PieceState, string])[] {
  return [
    ["", `all ${counts.all}`],
    ["in-stock", `in stock ${counts.inStock}`],
    ["sold", `sold ${counts.sold}`],
    ["off", `off the scheme ${counts.off}`],
    ["to-mend", `to mend ${counts.toMend}`],
    ["ended", `gone ${counts.ended}`],
  ];
}

/** What is not sold beside what the account of stock holds. */
function StockLine({ page, digits }: { page: PiecePage; digits: number }) {
  const { pieces, cost, account, balance } = page.stock;
  const agrees = balance === cost;
  return (
    <p className="mt-2 text-[13px]">
      Not sold: {plural(pieces, "piece")},{" "}
      <span className="num font-semibold">{displayAmount(cost, digits)}</span>
      {account === null ? (
        <span className="quiet"> — no account of the chart has the role “stock of the stock book”.</span>
      ) : agrees ? (
        <span className="text-success"> = account {account} ✓</span>
      ) : (
        <span className="text-error">
          {" "}
          ▲ account {account} holds {displayAmount(balance ?? 0, digits)}
        </span>
      )}
    </p>
  );
}

function Actions({
  exported,
  onOpen,
}: {
  exported: (format: string) => string;
  onOpen: (open: Open) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className="ml-auto flex gap-2">
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        className="hidden"
        aria-label="Stock as CSV"
        onChange={({ target }) => {
          const file = target.files?.[0];
          if (file) onOpen({ what: "import", file });
          target.value = "";
        }}
      />
      <Menu
        className="action"
        trigger={
          <>
            Files <ChevronDown size={14} aria-hidden />
          </>
        }
      >
        <MenuItem onSelect={() => input.current?.click()}>Import opening stock (CSV)</MenuItem>
        <MenuLine />
        {["csv", "xlsx", "pdf"].map((format) => (
          <MenuItem key={format} onSelect={() => window.location.assign(exported(format))}>
            {format === "pdf" ? "Print the book (PDF)" : `Export ${format.toUpperCase()}`}
          </MenuItem>
        ))}
      </Menu>
      <button type="button" className="action main" onClick={() => onOpen({ what: "buy" })}>
        Buy a piece
      </button>
    </div>
  );
}
