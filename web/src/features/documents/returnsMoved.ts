import { displayDate } from "@fiscalon/core/calendar/displayDate";
import type { BoxMovement } from "@fiscalon/core/facts/boxMovements";
import type { Packs } from "@fiscalon/core/model/packs";
import type { ReturnForm } from "@fiscalon/core/model/returnForm";
import { findBox } from "@fiscalon/core/returns/findBox";
import type { RegistrationView } from "@fiscalon/contract/views";
import { formNow } from "../../app/formBoxes.ts";

/** A return that a document moves: its form and period, and the boxes in the form's words. */
export interface MovedReturn {
  key: string;
  title: string;
  rows: { box: string; name: string; amount: number }[];
}

/** The boxes a document moves, return by return: each registration and period has its own. */
export function returnsMoved(
  movements: readonly Omit<BoxMovement, "parts">[],
  registrations: readonly RegistrationView[],
  packs: Packs,
): MovedReturn[] {
  const returns = new Map<string, MovedReturn>();
  for (const { registration, periodEnd, box, amount } of movements) {
    const key = `${registration} ${periodEnd}`;
    const r = registrations.find(({ id }) => id === registration);
    const form = r ? formNow(packs, r, periodEnd) : undefined;
    const title = `${form?.name ?? "Return"}, period to ${displayDate(periodEnd)}`;
    const moved = returns.get(key) ?? { key, title, rows: [] };
    moved.rows.push({ box, name: form ? nameOf(form, box) : "", amount });
    returns.set(key, moved);
  }
  return [...returns.values()];
}

function nameOf(form: ReturnForm, box: string): string {
  return findBox(form, box)?.short ?? `not on ${form.name}`;
}
