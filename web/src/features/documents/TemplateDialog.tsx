import { keys } from "../../api/keys.ts";
import { useWatch } from "react-hook-form";
import { addMonths } from "@fiscalon/core/calendar/date";
import { RHYTHMS, templateBody } from "@fiscalon/contract/templates";
import type { Rhythm, TemplateBody } from "@fiscalon/contract/templates";
import type { DocumentBody } from "@fiscalon/contract/document";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { CheckField, ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

interface Typed {
  name: string;
  every: Rhythm | "";
  nextOn: string;
  until: string;
  byItself: boolean;
}

/** Keeps a document under a name, to be used again or to be posted in a rhythm. */
export function TemplateDialog({
  document,
  seen,
  onClose,
}: {
  document: DocumentBody;
  /** How far the audit trail had been seen when the document was read. */
  seen: number | undefined;
  onClose: () => void;
}) {
  const { client } = useScope();
  const values: Typed = {
    name: document.lines[0]?.text ?? "",
    every: "",
    nextOn: addMonths(document.date, 1),
    until: "",
    byItself: true,
  };
  const dialog = useBodyForm({
    values,
    schema: templateBody,
    body: ({ name, every, nextOn, until, byItself }): TemplateBody => ({
      name,
      document: { ...document, number: "" },
      every: every || null,
      nextOn: every ? nextOn : null,
      until: every && until ? until : null,
      byItself: every !== "" && byItself,
    }),
    seen,
    send: (body, _typed, upTo) => api.put("/clients/:id/templates", [client?.id], body, upTo),
    refresh: keys.of(client?.id, "templates"),
    onSaved: onClose,
  });
  const every = useWatch({ control: dialog.form.control, name: "every" });
  return (
    <BodyDialog
      of={dialog}
      title="Make a template"
      action="Keep"
      className="grid grid-cols-2 gap-4"
      onClose={onClose}
    >
      <TextField
        className="col-span-2"
        name="name"
        label="Name"
        hint="The same name again replaces the template of that name."
      />
      <ChoiceField className="col-span-2" name="every" label="Rhythm">
        <option value="">only when it is asked for</option>
        {Object.entries(RHYTHMS).map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </ChoiceField>
      {every !== "" && (
        <>
          <DayField name="nextOn" label="Next on" />
          <DayField name="until" label="Until" optional />
          <CheckField name="byItself" className="col-span-2 flex items-center gap-2">
            Post it by itself on the day; otherwise it waits under Templates
          </CheckField>
        </>
      )}
    </BodyDialog>
  );
}
