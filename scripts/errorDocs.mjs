/** Writes the table of docs/errors.md from the catalogue in contract. Run after `npm run build`; a test compares the two. */
import { readFileSync, writeFileSync } from "node:fs";
import { errorTable } from "../contract/dist/errorTable.js";

const file = new URL("../docs/errors.md", import.meta.url);
const MARK = "<!-- catalogue -->";
const [head = ""] = readFileSync(file, "utf8").split(MARK);
writeFileSync(file, `${head}${MARK}\n\n${errorTable()}`);
