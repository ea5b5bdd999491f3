import type { LateKind } from "@fiscalon/core/model/correction";
import { LATE_KINDS } from "@fiscalon/core/model/correction";
import { lateBody } from "@fiscalon/contract/returns";
import type { LateBody, LateDocument } from "@fiscalon/contract/returns";
import { api } from "../api/client.ts";
import { seenOf } from "../api/seen.ts";
import { usePacks } from "../api/packs.ts";
import { keys } from "../api/keys.ts";
import { useScope } from "../app/scope.ts";
import { BodyDialog } from "../kit/BodyDialog.tsx";
import { CheckField, ChoiceField, TextField } from "../kit/formFields.tsx";
import { useBodyForm } from "../kit/useBodyForm.ts";
import { LATE_WORDS } from "./lateWords.ts";

interface Props {
  one: LateDocument;
  period: string;
  onClose: () => void;
}

/** Asks what a late item is, where the rule cannot know. */
export function AnswerLate({ one, period, onClose }: Props) {
  const { client, registration } = useScope();
  const packs = usePacks();
  const hasAmendments =
    registration !== undefined && packs.byId(registration.pack).forms.some(({ amended }) => amended);
  const dialog = useBodyForm({
    values: {
      kind: one.said ? one.kind : "",
      separately: one.separately,
      amends: one.amends,
      reason: one.reason,
    },
    schema: lateBody,
    body: ({ kind, separately, amends, reason }): LateBody => ({
      kind: kind === "" ? null : (kind as LateKind),
      separately,
      ...(amends ? { amends } : {}),
      reason,
    }),
    seen: seenOf(one),
    send: (body, _typed, seen) =>
      api.put(
        "/clients/:id/registrations/:rid/returns/:period/late/:document",
        [client?.id, registration?.id, period, one.document],
        body,
        seen,
      ),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`What is ${one.number}?`}
      action="Keep"
      className="grid gap-4"
      onClose={onClose}
    >
      <ChoiceField name="kind" label="It is">
        <option value="">as found by rule</option>
        {LATE_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {LATE_WORDS[kind]}
          </option>
        ))}
      </ChoiceField>
      <CheckField name="separately">Put right separately and leave off this return</CheckField>
      {hasAmendments && (
        <CheckField name="amends">An earlier return already held it otherwise: to the amendments</CheckField>
      )}
      <TextField name="reason" label="Reason" placeholder="how it came about, or where it was disclosed" />
    </BodyDialog>
  );
}
