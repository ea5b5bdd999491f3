/**
 * Writes what docs tell of the code from the code: the table of docs/errors.md from the catalogue, the countries of
 * docs/tax-rules.md from the packs. Run after `tsc -b`; tests compare.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { errorTable } from "../contract/dist/errorTable.js";
import { rulesInWords } from "../core/dist/jurisdictions/rulesInWords.js";
import { SHIPPED } from "../core/dist/packs/shipped.js";

writeAfter("errors.md", "<!-- catalogue -->", errorTable());
writeAfter("tax-rules.md", "<!-- from the packs -->", rulesInWords(SHIPPED));

function writeAfter(name, mark, text) {
  const file = new URL(`../docs/${name}`, import.meta.url);
  const [head = ""] = readFileSync(file, "utf8").split(mark);
  writeFileSync(file, `${head}${mark}\n\n${text}`);
}
