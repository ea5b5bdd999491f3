import { FiscalError } from "../errors.ts";
import { parseFormula } from "../formula/parseFormula.ts";
import type { BoxDefinition } from "../model/returnForm.ts";
import { idsOfFamily, isFamily } from "./boxFamily.ts";

/**
 * The boxes of a form so that each comes after the ones it is worked out from.
 * @throws FiscalError `returns/circular-boxes` naming the circle
 */
export function boxesInOrder(boxes: readonly BoxDefinition[]): BoxDefinition[] {
  const byId = new Map(boxes.map((box) => [box.id, box]));
  const done = new Set<string>();
  const ordered: BoxDefinition[] = [];
  const visit = (box: BoxDefinition, path: readonly string[]) => {
    if (done.has(box.id)) return;
    if (path.includes(box.id)) {
      throw new FiscalError(
        "returns/circular-boxes",
        `These boxes are worked out from each other: ${[...path.slice(path.indexOf(box.id)), box.id].join(" → ")}. Break the circle.`,
        "boxes",
      );
    }
    const read = readBy(box).flatMap((id) => [id, ...(isFamily(id) ? idsOfFamily(id, byId.keys()) : [])]);
    for (const id of read) {
      const needed = byId.get(id);
      if (needed) visit(needed, [...path, box.id]);
    }
    done.add(box.id);
    ordered.push(box);
  };
  for (const box of boxes) visit(box, []);
  return ordered;
}

/** The boxes that a box is worked out from. */
export function readBy(box: BoxDefinition): readonly string[] {
  if (box.kind === "formula") return parseFormula(box.formula).boxes;
  return box.kind === "taxed" ? [box.of] : [];
}
