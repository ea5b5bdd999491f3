import { FiscalError } from "../errors.ts";
import type { BoxDefinition, ReturnForm } from "../model/returnForm.ts";
import { familyMembers, partsOfMember } from "./boxFamily.ts";

const isAmong = (known: readonly string[]) => (part: string) => known.includes(part);

/** The definition of a box of a form, also of a member of a family; undefined where the form has no such box. */
export function findBox(form: ReturnForm, id: string): BoxDefinition | undefined {
  const exact = form.boxes.find((box) => box.id === id);
  if (exact) return exact;
  for (const box of form.boxes) {
    const [member] = box.id.includes("*") ? familyMembers(box, [id]) : [];
    if (member && (box.members === undefined || partsOfMember(box.id, id).every(isAmong(box.members))))
      return member;
  }
  return undefined;
}

/**
 * The definition of a box that the form has.
 * @throws FiscalError `returns/no-box`
 */
export function boxDefinition(form: ReturnForm, id: string): BoxDefinition {
  const box = findBox(form, id);
  if (box) return box;
  throw new FiscalError("returns/no-box", `The form has no box ${id}.`, "box");
}
