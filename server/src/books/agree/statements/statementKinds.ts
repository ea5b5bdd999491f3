import { FiscalError } from "@fiscalon/core/errors";
import { GENERAL_STATEMENTS } from "@fiscalon/core/model/statement";
import type { StatementKind } from "@fiscalon/core/model/statement";
import type { Work } from "../../../base/work.ts";
import type { RegistrationRecord } from "../../../db/models.ts";

/** Lists of others that can be matched under a registration: those its country knows before those any party sends. */
export function statementKinds(work: Work, { pack }: Pick<RegistrationRecord, "pack">): StatementKind[] {
  return [...(work.packs.byId(pack).statements ?? []), ...GENERAL_STATEMENTS];
}

/** @throws FiscalError `statements/unknown-kind` */
export function statementKind(work: Work, r: Pick<RegistrationRecord, "pack">, id: string): StatementKind {
  const kind = statementKinds(work, r).find((one) => one.id === id);
  if (kind) return kind;
  throw new FiscalError(
    "statements/unknown-kind",
    `There is no list "${id}" here. Choose one that is offered.`,
    "kind",
  );
}
