import { boxTags } from "../model/boxTags.ts";
import type { ReturnForm } from "../model/returnForm.ts";

/**
 * The tags of a fact that changes what an earlier return already held: it stands among the amendments of the table
 * that held it.
 * @param tags as in boxTags; a table is everything before the last dot of a box
 * @param original the tags of what it corrects, where that is known: a note that puts an invoice right amends the invoice
 */
export function amendedTags(
  tags: string,
  { amended = [] }: Pick<ReturnForm, "amended">,
  original = tags,
): string {
  const places = new Map(amended.flatMap(({ from, to }) => from.map((table) => [table, to])));
  const held = boxTags(original).find(({ box }) => places.has(tableOf(box)))?.box;
  const to = held === undefined ? undefined : places.get(tableOf(held));
  return tags.replace(/[^\s,]+(?=\s[+-])/g, (box) => {
    const own = places.get(tableOf(box));
    return own === undefined ? box : (to ?? own) + box.slice(tableOf(box).length);
  });
}

function tableOf(box: string): string {
  return box.slice(0, Math.max(box.lastIndexOf("."), 0));
}
