import type { Work } from "../base/work.ts";
import type { ContactBody } from "@fiscalon/contract/setup";

/**
 * Whether a contact is registered, from its standing for the first levy of the client's country, from what was said,
 * or from its having a number; null where nothing tells.
 */
export function registeredFrom({ packs }: Work, country: string, contact: ContactBody): boolean | null {
  const lead = packs.ofCountry(country)?.levies[0]?.levy;
  const standing = lead === undefined ? undefined : contact.standing?.[lead];
  if (standing !== undefined) {
    return (typeof standing === "string" ? standing : standing.value) !== "not-registered";
  }
  return contact.registered ?? (contact.taxNumber ? true : null);
}
