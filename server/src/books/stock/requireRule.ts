import type { StockBookRule } from "@fiscalon/core/model/stockBook";
import { notFound } from "../../base/errors.ts";
import type { Work } from "../../base/work.ts";
import type { ClientSetup } from "../loadSetup.ts";
import { stockRule } from "./pieces.ts";

/** The rule of the client, refused where no jurisdiction of it knows a stock book. */
export function requireRule(work: Work, setup: ClientSetup): { rule: StockBookRule; pack: string } {
  const own = stockRule(work, setup);
  if (!own) throw notFound("A stock book for this jurisdiction");
  return own;
}
