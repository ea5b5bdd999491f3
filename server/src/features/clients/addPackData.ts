import type { JurisdictionPack } from "@fiscalon/core/jurisdictions/pack";
import type { Account } from "@fiscalon/core/ledger/account";
import type { TaxCode } from "@fiscalon/core/tax/taxCode";
import { made } from "../../actor.ts";
import type { Actor } from "../../actor.ts";
import type { Database, Tx } from "../../db/database.ts";

/**
 * Brings the codes, rules and tax accounts of a jurisdiction to a client that did not start with it: on a first
 * registration in another country. A code whose name is taken gets the country in front: `IE:Z`.
 */
export async function addPackData(
  db: Database,
  tx: Tx,
  actor: Actor,
  clientId: number,
  pack: JurisdictionPack,
): Promise<void> {
  const rows = await db.models.codes.findAll({ where: { clientId }, transaction: tx });
  const own = rows.map((row) => row.definition);
  if (own.some((code) => code.pack === pack.id)) return;
  const taken = new Set(own.map((code) => code.code));
  const renamed = new Map(
    pack.codes.map(({ code }) => [code, taken.has(code) ? `${pack.country}:${code}` : code]),
  );
  const codes = pack.codes.map((code): TaxCode => ({ ...code, code: renamed.get(code.code) ?? code.code }));
  const owned = { clientId, ...made(actor) };
  await db.models.codes.bulkCreate(
    codes.map((definition, index) => ({
      ...owned,
      code: definition.code,
      definition,
      active: true,
      position: rows.length + index,
    })),
    { transaction: tx },
  );
  await addRules(db, tx, owned, pack, renamed);
  await addAccounts(db, tx, owned, pack);
}

type Owned = { clientId: number; createdAt: string; createdBy: number };

/** The rules of a jurisdiction answer for supplies from its country only, beside those of another. */
async function addRules(
  db: Database,
  tx: Tx,
  owned: Owned,
  pack: JurisdictionPack,
  renamed: ReadonlyMap<string, string>,
): Promise<void> {
  const known = await db.models.rules.findAll({ where: { clientId: owned.clientId }, transaction: tx });
  if (known.some((rule) => rule.ref.startsWith(`${pack.id}-`))) return;
  await db.models.rules.bulkCreate(
    pack.rules.map((rule, index) => ({
      ...owned,
      ref: rule.id,
      position: known.length + index,
      definition: {
        ...rule,
        from: rule.from === "any" ? pack.country : rule.from,
        code: renamed.get(rule.code) ?? rule.code,
      },
    })),
    { transaction: tx },
  );
}

/** Tax accounts that no account of the chart plays yet; where a number is taken the next free one is used. */
async function addAccounts(db: Database, tx: Tx, owned: Owned, pack: JurisdictionPack): Promise<void> {
  const chart = await db.models.accounts.findAll({ where: { clientId: owned.clientId }, transaction: tx });
  const numbers = new Set(chart.map((account) => account.code));
  const fresh = pack.accounts
    .filter((account) => account.levy !== null)
    .filter((account) => !chart.some((one) => one.role === account.role && one.levy === account.levy))
    .map((account) => ({ ...owned, ...account, code: freeNumber(account, numbers) }));
  await db.models.accounts.bulkCreate(fresh, { transaction: tx });
}

function freeNumber({ code }: Account, numbers: Set<string>): string {
  let number = Number(code);
  while (numbers.has(String(number))) number += 1;
  numbers.add(String(number));
  return String(number);
}
