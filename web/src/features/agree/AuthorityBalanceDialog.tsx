import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { authorityBalanceBody } from "@fiscalon/contract/authorityBalance";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

const AUTHORITY_BALANCE = "/clients/:id/registrations/:rid/authority-balance";

/** What the authority's account says is owed on a day, without its list; compared with the books from then on. */
export function AuthorityBalanceDialog({
  rid,
  on,
  seen,
  onClose,
}: {
  rid: number;
  on: string;
  /** How far the audit trail had been seen when the balances were read. */
  seen: number | undefined;
  onClose: () => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { amount: "", note: "" },
    schema: authorityBalanceBody,
    body: (typed) => ({ ...typed, on }),
    seen,
    send: (body, _typed, upTo) => api.put(AUTHORITY_BALANCE, [client?.id, rid], body, upTo),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`The authority's account on ${displayDate(on)}`}
      action="Keep"
      onClose={onClose}
    >
      <p className="quiet mb-3">
        What it says is owed to it on this day; negative where it owes. Left empty, what was typed is taken
        back. Its list of charges and payments can be matched row by row under Statements.
      </p>
      <div className="flex flex-col gap-3">
        <TextField name="amount" label="Owed" />
        <TextField name="note" label="Note, if any" />
      </div>
    </BodyDialog>
  );
}
