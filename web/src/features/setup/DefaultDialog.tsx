import type { TaxCode } from "@fiscalon/core/model/taxCode";
import { defaultBody } from "@fiscalon/contract/code";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { ChoiceField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** "Make this code the default of": existing items, new items, all items; of the business or of one place. */
export function DefaultDialog({
  code,
  direction,
  onClose,
}: {
  code: string;
  direction: TaxCode["direction"];
  onClose: () => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { side: direction === "purchase" ? "purchase" : "sale", scope: "new", place: "" },
    schema: defaultBody,
    body: ({ side, scope, place }) => ({ side, scope, place: place === "" ? null : Number(place) }),
    send: (body) => api.post("/clients/:id/codes/:code/default", [client?.id, code], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Make ${code} the default`}
      action="Make default"
      className="grid gap-4"
      onClose={onClose}
    >
      {direction === "both" && (
        <ChoiceField name="side" label="On">
          <option value="sale">sales</option>
          <option value="purchase">purchases</option>
        </ChoiceField>
      )}
      <ChoiceField
        name="scope"
        label="For"
        hint="Items that exist get it as their own code; new ones take it from the business or the place."
      >
        <option value="new">new items, and lines without an item</option>
        <option value="existing">existing items</option>
        <option value="all">all items</option>
      </ChoiceField>
      <ChoiceField name="place" label="Of which place">
        <option value="">the whole business</option>
        {client?.places.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </ChoiceField>
    </BodyDialog>
  );
}
