import Joi from "joi";
import type { SchemeInForce, Turnover } from "@fiscalon/core/model/scheme";
import { schemesInForce } from "./scheme.ts";

/** Schemes as a registration would have them. */
export interface SchemesBody {
  schemes: SchemeInForce[];
}
export const schemesBody = Joi.object<SchemesBody, true>({ schemes: schemesInForce.required() });

/** What open periods come to now, and would with other schemes; minor units. */
export interface SchemeEffect {
  /** Of the last twelve months. */
  turnover: Turnover;
  periods: { from: string; to: string; now: number; then: number }[];
}
