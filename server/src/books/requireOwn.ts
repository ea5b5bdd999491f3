import { FiscalError } from "@fiscalon/core/errors";
import type { ErrorCode } from "@fiscalon/contract/errors";
import type { Work } from "../base/work.ts";

const UNKNOWN = {
  contacts: "document/unknown-contact",
  places: "document/unknown-place",
} as const satisfies Record<string, ErrorCode>;

/** @throws FiscalError `document/unknown-contact`, `document/unknown-place` where the row is not the client's */
export async function requireOwn(
  work: Work,
  clientId: number,
  table: "contacts" | "places",
  id: number | null | undefined,
  field: string,
): Promise<void> {
  if (id === null || id === undefined) return;
  const row = await work.row(`SELECT id FROM ${table} WHERE id = $1 AND client_id = $2`, [id, clientId]);
  if (!row) throw new FiscalError(UNKNOWN[table], `There is no such ${field} with this client.`, field);
}
