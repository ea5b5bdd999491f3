import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useDebounce } from "use-debounce";
import { PAUSE_MS } from "../../kit/typing.ts";
import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import { displayAmount, formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { Combo } from "../../kit/Combo.tsx";
import type { DraftLine } from "./draft.ts";

/** What a line comes to, minor units. */
interface LinePrice {
  gross: number;
  tax: number;
}

const pieceNo = (no: number) => String(no).padStart(4, "0");

/** The piece that a purchase was spent on: a repair, a valuation. It is deducted the ordinary way and no part of its price. */
export function SpentOnPiece({
  line,
  readOnly,
  onChange,
}: {
  line: DraftLine;
  readOnly: boolean;
  onChange: (change: Partial<DraftLine>) => void;
}) {
  const { client } = useScope();
  const [typed, setSearch] = useState("");
  const [search] = useDebounce(typed, PAUSE_MS);
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "spent-on", search),
    queryFn: ({ signal }) => api.get("/clients/:id/pieces", [client?.id], { search, limit: 60 }, signal),
    enabled: client !== undefined,
    placeholderData: (before) => before,
  });
  const { pieceCost = "", ...rest } = line.attributes;
  if (!data || (data.counts.all === 0 && pieceCost === "")) return null;
  return (
    <div className="w-[240px]">
      <Combo
        label="Spent on a piece of the stock book"
        value={pieceCost}
        choices={data.rows.map(({ no, name }) => ({ value: String(no), label: `${pieceNo(no)} ${name}` }))}
        disabled={readOnly}
        placeholder="none"
        onSearch={setSearch}
        onChange={(value) => onChange({ attributes: value === "" ? rest : { ...rest, pieceCost: value } })}
      />
    </div>
  );
}

/**
 * The piece of the stock book that a line of a sale sells: chosen from what is in stock, its cost taken from the book, and
 * what the margin and the tax inside come to while the price is typed. None of it stands on the paper.
 */
export function PieceChoice({
  line,
  priced,
  rule,
  digits,
  readOnly,
  onChange,
}: {
  line: DraftLine;
  priced: LinePrice | undefined;
  rule: StockBookRule;
  digits: number;
  readOnly: boolean;
  onChange: (change: Partial<DraftLine>) => void;
}) {
  const { client } = useScope();
  const [typed, setSearch] = useState("");
  const [search] = useDebounce(typed, PAUSE_MS);
  const { data } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "to-sell", search),
    queryFn: ({ signal }) =>
      api.get(
        "/clients/:id/pieces",
        [client?.id],
        { state: "in-stock", search, limit: 60, sort: "no" },
        signal,
      ),
    enabled: client !== undefined && !readOnly,
    placeholderData: (before) => before,
  });
  const { piece = "", cost = "", ...rest } = line.attributes;
  const pieces = data?.rows ?? [];
  if (piece === "" && data?.counts.all === 0) return null;
  const choices = [
    ...(piece === "" || pieces.some(({ no }) => String(no) === piece)
      ? []
      : [{ value: piece, label: pieceNo(Number(piece)) }]),
    ...pieces.map(({ no, name, price }) => ({
      value: String(no),
      label: `${pieceNo(no)} ${name}`,
      ...(price === null ? {} : { detail: displayAmount(price, digits) }),
    })),
  ];
  const choose = (value: string) => {
    const chosen = pieces.find(({ no }) => String(no) === value);
    if (!chosen) return onChange({ attributes: rest });
    const { no, name, price, offReason } = chosen;
    onChange({
      text: line.text === "" ? `${pieceNo(no)} ${name}` : line.text,
      ...(offReason === null && rule.sales.length === 1
        ? { code: rule.sales[0] ?? "", codeTyped: true, codeReason: "" }
        : {}),
      supply: "goods",
      attributes: {
        ...rest,
        piece: String(no),
        ...(price === null ? {} : { cost: formatAmount(price, digits) }),
      },
    });
  };
  return (
    <div className="w-[290px]">
      <Combo
        label="Piece of the stock book"
        value={piece}
        choices={choices}
        disabled={readOnly}
        placeholder="not from the book"
        onSearch={setSearch}
        onChange={choose}
      />
      {piece !== "" && (
        <p className="quiet mt-1 text-[13px]">
          Cost {cost === "" ? "not known" : displayAmount(parseAmount(cost, digits), digits)}
          {priced && cost !== "" && rule.sales.includes(line.code) && (
            <>
              , margin {displayAmount(priced.gross - parseAmount(cost, digits), digits)}, tax inside{" "}
              {displayAmount(priced.tax, digits)}; not on the paper
            </>
          )}{" "}
          {!readOnly && (
            <button type="button" className="word-link" onClick={() => onChange({ attributes: rest })}>
              Not this piece
            </button>
          )}
        </p>
      )}
    </div>
  );
}
