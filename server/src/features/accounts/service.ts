import { FiscalError } from "@fiscalon/core/errors";
import type { Account } from "@fiscalon/core/model/account";
import { notFound } from "../../base/errors.ts";
import type { Writing } from "../../base/work.ts";
import { loadClient } from "../../books/loadSetup.ts";
import { requireUsual } from "../../books/requireUsual.ts";

export async function addAccount(work: Writing, clientId: number, body: Account): Promise<void> {
  await loadClient(work, clientId);
  const twin = await work.models.accounts.findOne({ where: { clientId, code: body.code }, ...work.options });
  if (twin)
    throw new FiscalError(
      "account/duplicate-number",
      `Account ${body.code} is there already: ${twin.name}. Choose another number.`,
      "code",
    );
  await requireUsual(work, clientId, body);
  const row = await work.models.accounts.create(
    {
      clientId,
      ...body,
      role: body.role ?? null,
      levy: body.levy ?? null,
      topic: body.topic ?? null,
      usualCode: body.usualCode || null,
      ...work.made,
    },
    work.options,
  );
  await work.record({
    action: "create",
    entity: "account",
    id: row.id,
    after: body,
  });
}

/** The number of an account stays: entries and documents name it. */
export async function changeAccount(
  work: Writing,
  clientId: number,
  code: string,
  body: Account,
): Promise<void> {
  const row = await work.models.accounts.findOne({ where: { clientId, code }, ...work.options });
  if (!row) throw notFound("This account");
  await requireUsual(work, clientId, body);
  const before = { ...row.get({ plain: true }) };
  const { name, type, role, levy, region, topic, usualCode } = body;
  await row.update(
    {
      name,
      type,
      role: role ?? null,
      levy: levy ?? null,
      region: region ?? null,
      topic: topic ?? null,
      usualCode: usualCode || null,
    },
    work.options,
  );
  await work.record({
    action: "change",
    entity: "account",
    id: row.id,
    before,
    after: body,
  });
}
