import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Account } from "@fiscalon/core/model/account";
import type { TaxCode } from "@fiscalon/core/model/taxCode";
import type { Writing } from "../base/work.ts";

/**
 * Brings the codes, rules and tax accounts of a jurisdiction to a client that did not start with it: on a first
 * registration in another country, or on one for a levy of which the client has no code. A code whose name is taken gets
 * the country in front: `IE:Z`.
 */
export async function addPackData(
  work: Writing,
  clientId: number,
  pack: JurisdictionPack,
  levies: readonly string[],
): Promise<void> {
  const rows = await work.models.codes.findAll({ where: { clientId }, ...work.options });
  const definitions = rows.map((row) => row.definition);
  const here = definitions.filter((code) => code.pack === pack.id);
  const known = new Set(here.flatMap((code) => code.components.map(({ levy }) => levy)));
  const missing = levies.filter((levy) => !known.has(levy));
  const wanted =
    here.length === 0
      ? pack.codes
      : pack.codes.filter(({ components }) => components.some(({ levy }) => missing.includes(levy)));
  if (wanted.length === 0) return;
  const taken = new Set(definitions.map((code) => code.code));
  const renamed = new Map(
    wanted.map(({ code }) => [code, taken.has(code) ? `${pack.country}:${code}` : code]),
  );
  const codes = wanted.map((code): TaxCode => ({ ...code, code: renamed.get(code.code) ?? code.code }));
  const owned = { clientId, ...work.made };
  await work.models.codes.bulkCreate(
    codes.map((definition, index) => ({
      ...owned,
      code: definition.code,
      definition,
      active: true,
      position: rows.length + index,
    })),
    work.options,
  );
  await addRules(work, owned, pack, renamed);
  await addAccounts(work, owned, pack);
}

type Owned = { clientId: number; createdAt: string; createdBy: number };

/** The rules of a jurisdiction answer for supplies from its country only, beside those of another. */
async function addRules(
  work: Writing,
  owned: Owned,
  pack: JurisdictionPack,
  renamed: ReadonlyMap<string, string>,
): Promise<void> {
  const known = await work.models.rules.findAll({ where: { clientId: owned.clientId }, ...work.options });
  const refs = new Set(known.map((rule) => rule.ref));
  const started = [...refs].some((ref) => ref.startsWith(`${pack.id}-`));
  const wanted = pack.rules.filter((rule) => !started || (renamed.has(rule.code) && !refs.has(rule.id)));
  await work.models.rules.bulkCreate(
    wanted.map((rule, index) => ({
      ...owned,
      ref: rule.id,
      position: known.length + index,
      definition: {
        ...rule,
        from: rule.from === "any" ? pack.country : rule.from,
        code: renamed.get(rule.code) ?? rule.code,
      },
    })),
    work.options,
  );
}

/** The tax accounts of a jurisdiction that a client does not have yet, such as those of schemes. */
export async function addMissingAccounts(
  work: Writing,
  clientId: number,
  pack: JurisdictionPack,
): Promise<void> {
  await addAccounts(work, { clientId, ...work.made }, pack);
}

/** Tax accounts that no account of the chart plays yet; where a number is taken the next free one is used. */
async function addAccounts(work: Writing, owned: Owned, pack: JurisdictionPack): Promise<void> {
  const chart = await work.models.accounts.findAll({ where: { clientId: owned.clientId }, ...work.options });
  const numbers = new Set(chart.map((account) => account.code));
  const fresh = pack.accounts
    .filter((account) => account.levy !== null)
    .filter((account) => !chart.some((one) => one.role === account.role && one.levy === account.levy))
    .map((account) => ({ ...owned, ...account, code: freeNumber(account, numbers) }));
  await work.models.accounts.bulkCreate(fresh, work.options);
}

/**
 * Tax accounts of a region's own, from the second region on in which a business is registered: what it owes and is owed
 * there stands apart.
 */
export async function addRegionAccounts(
  work: Writing,
  clientId: number,
  pack: JurisdictionPack,
  region: string,
): Promise<void> {
  const others = await work.models.registrations.findAll({
    where: { clientId, pack: pack.id },
    ...work.options,
  });
  if (!others.some((other) => other.region !== region) || others.some((other) => other.region === region))
    return;
  const chart = await work.models.accounts.findAll({ where: { clientId }, ...work.options });
  if (chart.some((account) => account.region === region)) return;
  const numbers = new Set(chart.map((account) => account.code));
  const name = pack.regions?.find(({ code }) => code === region)?.name ?? region;
  const fresh = pack.accounts
    .filter((account) => account.levy !== null)
    .map((account) => ({
      clientId,
      ...work.made,
      ...account,
      region,
      name: `${account.name}, ${name}`,
      code: freeNumber(account, numbers),
    }));
  await work.models.accounts.bulkCreate(fresh, work.options);
}

function freeNumber({ code }: Account, numbers: Set<string>): string {
  let number = Number(code);
  while (numbers.has(String(number))) number += 1;
  numbers.add(String(number));
  return String(number);
}
