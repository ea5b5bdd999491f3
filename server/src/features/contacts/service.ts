import type { ContactBody } from "@fiscalon/contract/setup";
import { notFound } from "../../base/errors.ts";
import type { Work, Writing } from "../../base/work.ts";
import { freeRef } from "../../books/freeRef.ts";
import { loadClient } from "../../books/loadSetup.ts";
import { registeredFrom } from "../../books/registeredFrom.ts";
import { requireRegion } from "../../books/requireRegion.ts";
import { requireUsual } from "../../books/requireUsual.ts";

export async function addContact(work: Work, clientId: number, body: ContactBody): Promise<number> {
  return work.write(async (work) => {
    const registered = await checked(work, clientId, body);
    const ref = await freeRef(work, "contacts", clientId, "c");
    const { id } = await work.models.contacts.create(
      { clientId, ref, ...body, registered, ...work.made },
      work.options,
    );
    await work.record({ action: "create", entity: "contact", id, after: body });
    return id;
  });
}

export async function changeContact(
  work: Work,
  clientId: number,
  contactId: number,
  body: ContactBody,
): Promise<void> {
  await work.write(async (work) => {
    const row = await work.models.contacts.findOne({ where: { id: contactId, clientId }, ...work.options });
    if (!row) throw notFound("This contact");
    const registered = await checked(work, clientId, body);
    const before = { ...row.get({ plain: true }) };
    await row.update({ ...body, registered }, work.options);
    await work.record({
      action: "change",
      entity: "contact",
      id: contactId,
      before,
      after: body,
    });
  });
}

/** Whether the contact is registered, once what is said of it can be. */
async function checked(work: Writing, clientId: number, body: ContactBody): Promise<boolean | null> {
  const { country } = await loadClient(work, clientId);
  requireRegion(work, body.country ?? country, body.region ?? null);
  await requireUsual(work, clientId, body);
  return registeredFrom(work, country, body);
}
