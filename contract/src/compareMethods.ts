import Joi from "joi";
import type { Turnover } from "@fiscalon/core/model/scheme";

export const methodsBody = Joi.object<MethodsBody, true>({
  answers: Joi.object().pattern(Joi.string().max(40), Joi.string().max(40)).required(),
});
/** The answers to what schemes ask, by setting. */
export interface MethodsBody {
  answers: Record<string, string>;
}

/** What each method open to a registration would have come to in the last twelve months. Minor units. */
export interface MethodComparison {
  digits: number;
  periods: { from: string; to: string }[];
  /** Of these periods. */
  turnover: Turnover;
  methods: MethodView[];
}

export interface MethodView {
  id: string;
  name: string;
  settings: { id: string; name: string; chosen: string; values: { value: string; name: string }[] }[];
  /** What is declared and deducted, period by period. */
  output: number[];
  input: number[];
  /** What it makes owed more or less than output tax less input tax, the largest causes first. */
  causes: { words: string; amount: number }[];
  /** Why it is not open, as a sentence with figures; null where nothing here speaks against it. */
  bar: string | null;
  /** Whether it is in force in the last of the periods. */
  now: boolean;
}
