import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { PieceView } from "@fiscalon/contract/stockBook";
import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { EndDialog, OffDialog, PieceDialog } from "./PieceDialogs.tsx";
import { SplitDialog } from "./SetsAndLots.tsx";
import { pieceNo, stateWord } from "./pieceWords.ts";

/** The sheet of a piece: both sides, the margin and the tax inside, what was spent beside, and what can be done. */
export function PiecePanel({ no, close }: { no: number; close: string }) {
  const { client, path, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [doing, setDoing] = useState<"change" | "split" | "end" | "off" | "remove" | null>(null);
  const { data: piece, error } = useQuery({
    queryKey: keys.of(client?.id, "piece", no),
    queryFn: ({ signal }) => api.get("/clients/:id/pieces/:no", [client?.id, no], {}, signal),
    enabled: client !== undefined,
  });
  const { data: head } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "head"),
    queryFn: ({ signal }) => api.get("/clients/:id/pieces", [client?.id], { limit: 1 }, signal),
    enabled: client !== undefined,
  });
  const back = useMutation({
    mutationFn: () => api.delete("/clients/:id/pieces/:no/end", [client?.id, no]),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  const remove = useMutation({
    mutationFn: (reason: string) =>
      api.delete("/clients/:id/pieces/:no", [client?.id, no], { reason }, seenOf(piece)),
    onSuccess: () => navigate(close),
    onSettled: async () => {
      setDoing(null);
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
    },
  });
  if (!piece || !head) return <ErrorNote error={error} />;
  const pdf = `/api${filled("/clients/:id/pieces/:no/pdf", [client?.id, no])}`;
  const open = piece.state === "in-stock";
  return (
    <section
      aria-label={`Piece ${pieceNo(no)}`}
      className="flex h-full flex-col overflow-y-auto px-4 pt-4 pb-6"
    >
      <header className="flex items-start gap-2">
        <div className="min-w-0">
          <h2 className="text-[16px]">
            <span className="font-mono">{pieceNo(no)}</span> {piece.name}
          </h2>
          <p className="quiet">
            {[
              piece.identifier,
              piece.offReason === null ? "on the scheme" : `off the scheme: ${piece.offReason}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </p>
        </div>
        <Link to={close} aria-label="Close the piece" className="ml-auto p-1">
          <X size={16} aria-hidden />
        </Link>
      </header>
      <ErrorNote error={back.error ?? remove.error} />
      <Sides piece={piece} digits={digits} path={path} />
      <Inside piece={piece} digits={digits} />
      {piece.consequence && (
        <p className="note-row mt-3" role="status">
          ▲ Not on record: {piece.missing.join(", ")}. Tax then falls on the whole price:{" "}
          {displayAmount(piece.consequence.full, digits)} instead of{" "}
          {displayAmount(piece.consequence.inside, digits)}.{" "}
          <button type="button" className="word-link" onClick={() => setDoing("change")}>
            Fill in
          </button>
        </p>
      )}
      <Beside piece={piece} digits={digits} path={path} />
      {piece.parts.length > 0 && (
        <>
          <h3 className="mt-4 font-semibold">{piece.isSet ? "Parts of the set" : "Split into"}</h3>
          <ul>
            {piece.parts.map((part) => (
              <li key={part.no} className="flex justify-between border-b border-base-300 py-1">
                <Link className="word-link" to={path(`books/stock/${part.no}`)}>
                  {pieceNo(part.no)} {part.name}
                </Link>
                <span className="num">{part.price === null ? "" : displayAmount(part.price, digits)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {piece.splitFrom !== null && (
        <p className="quiet mt-2">
          Out of lot{" "}
          <Link className="word-link" to={path(`books/stock/${piece.splitFrom}`)}>
            {pieceNo(piece.splitFrom)}
          </Link>
          , the price shared by value.
        </p>
      )}
      {piece.note !== "" && <p className="quiet mt-2">{piece.note}</p>}
      <p className="mt-4 flex flex-wrap gap-x-4 gap-y-1">
        <a className="word-link" href={pdf}>
          Print the page
        </a>
        <a className="word-link" href={`${pdf}?own=true`}>
          {head.paper}
        </a>
      </p>
      <div className="mt-auto flex flex-wrap gap-2 pt-5">
        <button type="button" className="action" onClick={() => setDoing("change")}>
          Change
        </button>
        {open && !piece.isSet && (
          <button type="button" className="action" onClick={() => setDoing("split")}>
            Split
          </button>
        )}
        {open && (
          <button type="button" className="action" onClick={() => setDoing("off")}>
            {piece.offReason === null ? "Take off the scheme" : "Put on the scheme"}
          </button>
        )}
        {open && !piece.isSet && (
          <button type="button" className="action" onClick={() => setDoing("end")}>
            Lost, scrapped, kept
          </button>
        )}
        {open && !piece.isSet && piece.splitFrom === null && (
          <button type="button" className="action" onClick={() => setDoing("remove")}>
            Remove
          </button>
        )}
        {((open && piece.isSet) || piece.ended !== null) && (
          <button type="button" className="action" disabled={back.isPending} onClick={() => back.mutate()}>
            {piece.isSet ? "Take the set apart" : "Back in stock"}
          </button>
        )}
      </div>
      {doing === "change" && (
        <PieceDialog
          head={head}
          piece={piece}
          onClose={() => setDoing(null)}
          onSaved={() => setDoing(null)}
        />
      )}
      <ReasonDialog
        open={doing === "remove"}
        title={`Remove piece ${pieceNo(no)} from the book`}
        label="Why it should not be in it"
        action="Remove"
        onClose={() => setDoing(null)}
        onReason={remove.mutate}
      >
        Its purchase stays in the books, and can be taken in again.
      </ReasonDialog>
      {doing === "split" && <SplitDialog piece={piece} onClose={() => setDoing(null)} />}
      {doing === "end" && <EndDialog piece={piece} onClose={() => setDoing(null)} />}
      {doing === "off" && <OffDialog piece={piece} onClose={() => setDoing(null)} />}
    </section>
  );
}

interface Shown {
  piece: PieceView;
  digits: number;
}

function Sides({ piece, digits, path }: Shown & { path: (inside: string) => string }) {
  const { bought, sale, ended } = piece;
  const rows = [
    ["Date", piece.boughtOn && displayDate(piece.boughtOn), piece.soldOn && displayDate(piece.soldOn)],
    [
      "Paper",
      bought ? (
        <Link className="word-link" to={path(`books/documents/${bought.document}`)}>
          {piece.purchaseNumber || bought.number}
        </Link>
      ) : (
        piece.purchaseNumber
      ),
      sale && (
        <Link className="word-link" to={path(`books/documents/${sale.document}`)}>
          {sale.number}
        </Link>
      ),
    ],
    [
      "Party",
      <span key="seller">
        {piece.seller}
        <br />
        <span className="quiet">{piece.sellerAddress}</span>
      </span>,
      piece.buyer,
    ],
    ["Code", "", sale && `${sale.code}${sale.onMargin ? ", no tax shown" : ", ordinary"}`],
  ] as const;
  return (
    <table className="sheet-table mt-3">
      <thead>
        <tr>
          <th />
          <th>Bought</th>
          <th>Sold</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, left, right]) => (
          <tr key={name}>
            <td className="quiet w-[56px] align-top">{name}</td>
            <td className="align-top">{left}</td>
            <td className="align-top">{right}</td>
          </tr>
        ))}
        <tr className="font-semibold">
          <td>Price</td>
          <td>
            {piece.price === null ? (
              <span className="text-error">not known</span>
            ) : bought ? (
              <Figure
                amount={piece.price}
                digits={digits}
                of={`line/${bought.document}/${bought.line}`}
                label="Price paid"
              />
            ) : (
              <span className="num">{displayAmount(piece.price, digits)}</span>
            )}
          </td>
          <td>
            {sale && piece.sold !== null ? (
              <Figure
                amount={piece.sold}
                digits={digits}
                of={`line/${sale.document}/${sale.line}`}
                label="Price charged"
              />
            ) : (
              <span className="quiet font-normal">
                {ended ? `${PIECE_ENDS[ended.kind]}, ${displayDate(ended.on)}` : stateWord(piece)}
              </span>
            )}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** The margin as a bar with the tax inside it. */
function Inside({ piece, digits }: Shown) {
  const { margin, tax, sold, price, rate, no } = piece;
  if (sold === null || tax === null) return null;
  if (margin === null || price === null) {
    return (
      <p className="mt-3">
        Sold with ordinary tax:{" "}
        <Figure amount={tax} digits={digits} of={`piece/${no}`} label="Tax on the whole price" />
      </p>
    );
  }
  return (
    <div className="mt-3">
      <div className="flex items-end gap-4">
        <div>
          <div className="quiet">Margin</div>
          <div className="num text-[18px] font-semibold">{displayAmount(margin, digits)}</div>
        </div>
        <div aria-hidden className="mb-1.5 h-[16px] flex-1 border border-base-content/60 bg-base-200">
          {margin > 0 && <div className="h-full bg-primary" style={{ width: `${(100 * tax) / margin}%` }} />}
        </div>
        <div className="text-right">
          <div className="quiet">Tax inside, {rate} %</div>
          <Figure
            amount={tax}
            digits={digits}
            of={`piece/${no}`}
            label="Tax inside the margin"
            className="text-[18px] font-semibold"
          />
        </div>
      </div>
      {margin > 0 ? (
        <p className="quiet mt-1 font-mono text-[12.5px]">
          ({displayAmount(sold, digits)} − {displayAmount(price, digits)}) × {rate} / {100 + Number(rate)} ={" "}
          {displayAmount(tax, digits)}
        </p>
      ) : (
        <p className="quiet mt-1">A loss bears no tax, and takes none off another piece.</p>
      )}
    </div>
  );
}

function Beside({ piece, digits, path }: Shown & { path: (inside: string) => string }) {
  if (piece.beside.length === 0) return null;
  const spent = piece.beside.reduce((sum, { net }) => sum + net, 0);
  return (
    <>
      <h3 className="mt-4 font-semibold">Beside it, not part of the price</h3>
      <table className="sheet-table">
        <tbody>
          {piece.beside.map(({ document, line, number, text, net, tax }) => (
            <tr key={`${document}-${line}`}>
              <td>
                <Link className="word-link" to={path(`books/documents/${document}`)}>
                  {number}
                </Link>{" "}
                {text}
              </td>
              <td className="num">
                <Figure
                  amount={net}
                  digits={digits}
                  of={`line/${document}/${line}`}
                  label={`Cost ${number}`}
                />
              </td>
              <td className="quiet num">{displayAmount(tax, digits)} tax</td>
            </tr>
          ))}
          {piece.margin !== null && (
            <tr className="font-semibold">
              <td>Left after tax and costs</td>
              <td className="num">{displayAmount(piece.margin - (piece.tax ?? 0) - spent, digits)}</td>
              <td />
            </tr>
          )}
        </tbody>
      </table>
    </>
  );
}
