import Joi from "joi";
import { date, decimal } from "./fields.ts";

/** What a day took, by code, with tax, in major units: empty where nothing, left out where it stays as it is. */
export interface TakingsDayBody {
  date: string;
  amounts: Record<string, string>;
  /** What those codes held when they were last seen, minor units: kept otherwise meanwhile they are not changed. */
  seen?: Record<string, number>;
}

/** Days of a takings sheet; `account` is where the money went. */
export interface TakingsBody {
  account: string;
  days: TakingsDayBody[];
}

const A_YEAR = 366;
export const takingsBody = Joi.object<TakingsBody, true>({
  account: Joi.string().max(20).required(),
  days: Joi.array()
    .items(
      Joi.object<TakingsDayBody, true>({
        date: date.required(),
        amounts: Joi.object().pattern(Joi.string().max(20), decimal.allow("")).required(),
        seen: Joi.object().pattern(Joi.string().max(20), Joi.number().integer()),
      }),
    )
    .min(1)
    .max(A_YEAR)
    .unique("date")
    .required(),
});

/** A day of the sheet, minor units by code. */
export interface TakingsDay {
  date: string;
  amounts: Record<string, number>;
  /** Takings of the day that other documents hold. */
  others: number;
  document: number | null;
  /** The end of the sealed period it is in. */
  sealed: string | null;
}

export interface TakingsSheet {
  digits: number;
  codes: { code: string; name: string }[];
  /** Where the money went the last time; empty where there was none. */
  account: string;
  days: TakingsDay[];
}

/** What a file says, before anything of it is kept. */
export interface TakingsReading {
  days: TakingsDayBody[];
}
