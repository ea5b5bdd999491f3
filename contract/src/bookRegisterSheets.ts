import Joi from "joi";
import type { SheetColumn } from "@fiscalon/core/formats/registers/sheetColumns";
import { sheetMapping } from "./registerSheets.ts";
import type { SheetMapping } from "./registerSheets.ts";

/** An exported register that was compared; cells as text, amounts in major units, null where they are blank. */
export interface BookRegisterSheet {
  name: string;
  columns: SheetColumn[];
  mapping: SheetMapping;
  rows: (string | null)[][];
}

const MOST_COLUMNS = 200;
const MOST_ROWS = 400_000;

export const bookRegisterSheet = Joi.object<BookRegisterSheet, true>({
  name: Joi.string().max(200).required(),
  columns: Joi.array()
    .items(
      Joi.object({
        name: Joi.string().max(300).required(),
        kind: Joi.string().valid("amount", "date", "text").required(),
      }),
    )
    .max(MOST_COLUMNS)
    .required(),
  mapping: sheetMapping.required(),
  rows: Joi.array()
    .items(Joi.array().items(Joi.string().max(2000).allow("", null)).max(MOST_COLUMNS))
    .max(MOST_ROWS)
    .required(),
});
