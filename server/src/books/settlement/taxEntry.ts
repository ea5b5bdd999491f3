import type { Posting } from "@fiscalon/core/model/posting";
import type { Writing } from "../../base/work.ts";
import type { RegistrationRecord } from "../../db/models.ts";
import type { ClientSetup } from "../loadSetup.ts";

interface TaxEntryInput {
  kind: "settlement" | "tax-payment";
  date: string;
  periodEnd: string;
  text: string;
  postings: readonly Posting[];
}

/** Writes an entry between a client and an authority, as part of the write it is called in. */
export async function insertTaxEntry(
  work: Writing,
  setup: ClientSetup,
  r: RegistrationRecord,
  { kind, date, periodEnd, text, postings }: TaxEntryInput,
): Promise<number> {
  const id = (await work.lastId("entries")) + 1;
  const clientId = setup.client.id;
  const { createdAt, createdBy } = work.made;
  await work.insertRows(
    "entries",
    ["id", "client_id", "kind", "date", "registration_id", "period_end", "text", "created_at", "created_by"],
    [[id, clientId, kind, date, r.id, periodEnd, text, createdAt, createdBy]],
  );
  await work.insertRows(
    "postings",
    ["entry_id", "client_id", "account_id", "date", "amount", "line", "levy", "text"],
    postings.map((p) => [
      id,
      clientId,
      setup.accountIds.get(p.account),
      date,
      p.amount,
      p.line,
      p.levy,
      p.text,
    ]),
  );
  return id;
}
