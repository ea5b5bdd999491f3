import type { BoxDefinition } from "../model/returnForm.ts";

/** The boxes of a family that occur among these ids, in order: `3.2.unreg.*.igst` has a member for each state. */
export function familyMembers(family: BoxDefinition, ids: Iterable<string>): BoxDefinition[] {
  const [before = "", after = ""] = family.id.split("*");
  return [...ids]
    .filter((id) => id.startsWith(before) && id.endsWith(after) && id.length > before.length + after.length)
    .sort()
    .map((id) => {
      const member = id.slice(before.length, id.length - after.length);
      return { ...family, id, title: `${family.title}, ${member}`, short: `${family.short}, ${member}` };
    });
}
