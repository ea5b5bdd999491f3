import Joi from "joi";
import type { SheetCell, SheetColumn } from "@fiscalon/core/formats/registers/sheetColumns";
import { decimal } from "./fields.ts";

/** Which columns make up which value; places from 0. */
export interface SheetMapping {
  /** Amount columns whose sum is the value in the accounts, and the value as the return sees it. */
  accounts: number[];
  returns: number[];
  /** The tax column: where it is blank or nought nothing was charged. */
  tax: number | null;
  date: number | null;
  party: number | null;
  rate: number | null;
  /** The figure of the profit and loss account, major units; empty while nobody told it. */
  told: string;
}

const place = Joi.number().integer().min(0).max(199);
const places = Joi.array().items(place).max(200).unique().required();

export const sheetMapping = Joi.object<SheetMapping, true>({
  accounts: places,
  returns: places,
  tax: place.allow(null).required(),
  date: place.allow(null).required(),
  party: place.allow(null).required(),
  rate: place.allow(null).required(),
  told: decimal.allow("").required(),
});

export interface SheetBrief {
  id: number;
  name: string;
  createdAt: string;
  rows: number;
}

/** A column with what stands in it. Minor units. */
export interface SheetColumnView extends SheetColumn {
  at: number;
  sum: number | null;
  blanks: number;
}

/** Rows with tax, with nought and with a blank in the tax column. Minor units. */
export interface SheetSplit {
  id: "taxed" | "nought" | "blank";
  rows: number;
  accounts: number;
  returns: number;
  tax: number;
}

/** An exported register with both values it is read as, and why they differ. Minor units. */
export interface SheetView extends SheetBrief {
  digits: number;
  columns: SheetColumnView[];
  mapping: SheetMapping;
  accounts: number;
  returns: number;
  /** The figure told, and told − accounts. */
  told: number | null;
  untold: number | null;
  /** What one of the two values has and the other has not, column by column: returns − accounts. */
  causes: { at: number; name: string; amount: number }[];
  /** Amount columns that are in neither, with their sums. */
  unused: { at: number; name: string; sum: number }[];
  split: SheetSplit[];
  months: { month: string; accounts: number; returns: number; ledger: number | null }[];
}

/** By what rows are put together: `cN` a column, `mN` the month of one, `tax` whether tax is there; empty: not at all. */
export const dimension = Joi.string()
  .pattern(/^([cm]\d{1,3}|tax)?$/)
  .default("");
/** What is added up: `accounts`, `returns`, or `cN` a column. */
export const sheetFigure = Joi.string()
  .pattern(/^(accounts|returns|c\d{1,3})$/)
  .default("accounts");

export interface SheetPivot {
  columns: string[];
  rows: { key: string; amounts: (number | null)[]; total: number; count: number }[];
  totals: number[];
  total: number;
  /** How many rows there are in all; only the largest are given. */
  of: number;
}

export interface SheetRowPage {
  total: number;
  rows: { no: number; cells: SheetCell[] }[];
}
