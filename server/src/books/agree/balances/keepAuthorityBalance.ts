import type { Writing } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

/** Keeps a balance of a day in the place of the one before; null takes it out. Minor units. */
export async function keepAuthorityBalance(
  work: Writing,
  r: Pick<RegistrationRecord, "id" | "clientId">,
  { on, amount, note }: { on: string; amount: number | null; note: string },
): Promise<void> {
  await work.run("DELETE FROM authority_balances WHERE registration_id = $1 AND day = $2", [r.id, on]);
  if (amount === null) return;
  const { createdAt, createdBy } = work.made;
  await work.run(
    `INSERT INTO authority_balances (client_id, registration_id, day, amount, note, created_at, created_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7)`,
    [r.clientId, r.id, on, amount, note, createdAt, createdBy],
  );
}
