import Joi from "joi";

/** What a list may be asked to be ordered by: names on the left, SQL of ours on the right. */
export type SortColumns = Readonly<Record<string, string>>;

/** How a list is wanted: by a column of its own, or in its usual order. */
export interface ListOrder {
  sort?: string;
  descending: boolean;
}

/** The query fields that ask for a page, and for what is looked for in it. */
export const paging = {
  search: Joi.string().allow("").max(100).default(""),
  offset: Joi.number().integer().min(0).default(0),
  limit: Joi.number().integer().min(1).max(500).default(100),
};

/** The query fields that ask for an order. */
export function orderFields(columns: SortColumns): Record<keyof ListOrder, Joi.Schema> {
  return { sort: Joi.string().valid(...Object.keys(columns)), descending: Joi.boolean().default(false) };
}

/** What follows ORDER BY: the column asked for, and the usual order behind it, so that pages never overlap. */
export function listOrder(columns: SortColumns, { sort, descending }: ListOrder, usual: string): string {
  const column = sort === undefined ? undefined : columns[sort];
  return column === undefined ? usual : `${column} ${descending ? "DESC" : "ASC"}, ${usual}`;
}
