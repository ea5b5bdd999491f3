import { matchSettings } from "@fiscalon/contract/statements";
import type { StatementView } from "@fiscalon/contract/statements";
import { formatAmount, parseAmount } from "@fiscalon/core/money/amount";
import { api } from "../../../api/client.ts";
import { seenOf } from "../../../api/seen.ts";
import { keys } from "../../../api/keys.ts";
import { BodyDialog } from "../../../kit/BodyDialog.tsx";
import { TextField } from "../../../kit/formFields.tsx";
import { useBodyForm } from "../../../kit/useBodyForm.ts";

/** How near two documents must be to be one. */
export function MatchSettingsDialog({
  clientId,
  view: { id, digits, options },
  onClose,
}: {
  clientId: number | undefined;
  view: StatementView;
  onClose: () => void;
}) {
  const dialog = useBodyForm({
    values: {
      tolerance: formatAmount(options.tolerance, digits),
      days: String(options.days),
      sureFrom: String(options.sureFrom),
    },
    schema: matchSettings,
    body: ({ tolerance, days, sureFrom }) => ({
      tolerance: parseAmount(tolerance, digits),
      days: Number(days),
      sureFrom: Number(sureFrom),
    }),
    seen: seenOf(options),
    send: (body, _typed, seen) =>
      api.put("/clients/:id/statements/:statement/settings", [clientId, id], body, seen),
    refresh: keys.client(clientId),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title="How near is the same"
      action="Match again"
      className="grid gap-4"
      onClose={onClose}
    >
      <TextField name="tolerance" label="Amounts may lie apart by" />
      <TextField name="days" label="Days apart, where the number is another" />
      <TextField name="sureFrom" label="Score from which a pair needs no second look" />
    </BodyDialog>
  );
}
