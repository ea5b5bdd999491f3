import type { AuditAction, AuditEntity } from "@fiscalon/contract/audit";

/** An entry of the audit trail, before it is chained. */
export interface Change {
  action: AuditAction;
  entity: AuditEntity;
  id: number | null;
  before?: unknown;
  after?: unknown;
}
