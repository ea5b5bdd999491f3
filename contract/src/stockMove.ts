import Joi from "joi";
import { date, decimal, id, name, text } from "./fields.ts";

/** Goods moved from one place to another that is registered apart: a supply here, a purchase there. */
export interface StockMoveBody {
  date: string;
  number: string;
  from: number;
  to: number;
  lines: { text: string; amount: string; saleCode: string; purchaseCode: string }[];
}

const code = Joi.string().max(20).required();

export const stockMoveBody = Joi.object<StockMoveBody, true>({
  date: date.required(),
  number: name.max(60).required(),
  from: id.required(),
  to: id.required(),
  lines: Joi.array()
    .items(
      Joi.object({ text: text.required(), amount: decimal.required(), saleCode: code, purchaseCode: code }),
    )
    .min(1)
    .max(200)
    .required(),
});

/** The two documents of a move. */
export interface StockMove {
  sale: number;
  purchase: number;
}
