import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import type { PieceRow } from "@fiscalon/contract/stockBook";

/** A number as the stock book writes it. */
export function pieceNo(no: number): string {
  return String(no).padStart(4, "0");
}

/** What became of a piece, in a word. */
export function stateWord({ state, partOf }: Pick<PieceRow, "state" | "partOf">): string {
  if (state === "in-stock") return "in stock";
  if (state === "part") return partOf === null ? "part of a set" : `in set ${pieceNo(partOf)}`;
  return state in PIECE_ENDS ? PIECE_ENDS[state as keyof typeof PIECE_ENDS] : state;
}

/** The sign before a piece: missing something, off the scheme, in stock, sold, or gone. */
export function stateSign({ state, missing, offReason }: PieceRow): { sign: string; tone: string } {
  if (missing.length > 0) return { sign: "▲", tone: "text-error" };
  if (offReason !== null) return { sign: "◆", tone: "text-warning" };
  if (state === "in-stock") return { sign: "○", tone: "" };
  return state === "sold" ? { sign: "●", tone: "" } : { sign: "–", tone: "quiet" };
}
