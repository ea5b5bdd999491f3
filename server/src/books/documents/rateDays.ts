import { RATE_DAY } from "@fiscalon/core/model/document";

/** SQL of the day whose rate a document `d` bears, as `rateDateOf` says it. */
export const DAY_OF_DOCUMENT = "coalesce(d.original_date, d.tax_point, d.date)";

/** SQL of the day a line `l` says for itself, null where it follows its document. */
export const DAY_OF_LINE = `nullif(l.attributes ->> '$.${RATE_DAY}', '')`;
