import { useWatch } from "react-hook-form";
import { capitalItemBody } from "@fiscalon/contract/capitalItems";
import type { CapitalItemBody, CapitalItemView, CapitalSuggestion } from "@fiscalon/contract/capitalItems";
import { MONTHS } from "@fiscalon/core/calendar/months";
import { CAPITAL_ENDS } from "@fiscalon/core/model/capitalItem";
import type { CapitalItems } from "@fiscalon/core/model/capitalItem";
import { formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plainAmount, today } from "../../kit/format.ts";
import { ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { bodyOfItem } from "./itemWords.ts";

type From = CapitalItemView | CapitalSuggestion | "new";
type Typed = Omit<CapitalItemBody, "ended" | "yearEnds"> & { yearEnds: string; endedOn: string; how: string };

/** A new item, one that comes from a purchase, or what is on record of one. */
export function ItemDialog({
  rule,
  from,
  onClose,
  onSaved,
}: {
  rule: CapitalItems;
  from: From;
  onClose: () => void;
  onSaved: (no: number) => void;
}) {
  const { client, registration, minorDigits: digits } = useScope();
  const levies = rule.levies.filter((levy) => registration?.levies.includes(levy));
  const item = from !== "new" && "no" in from ? from : null;
  const dialog = useBodyForm({
    values: typedOf(rule, levies, from, digits),
    schema: capitalItemBody,
    body: ({ yearEnds, endedOn, how, net, taxes, ...typed }: Typed) => ({
      ...typed,
      net: plainAmount(net),
      taxes: Object.fromEntries(
        Object.entries(taxes).map(([levy, tax]) => [levy, plainAmount(tax === "" ? "0" : tax)]),
      ),
      yearEnds: Number(yearEnds),
      ended: how === "" ? null : ({ on: endedOn, how } as CapitalItemBody["ended"]),
    }),
    seen: seenOf(item),
    send: (body, _typed, seen) =>
      item === null
        ? api.post("/clients/:id/registrations/:rid/capital-items", [client?.id, registration?.id], body)
        : api.put(
            "/clients/:id/registrations/:rid/capital-items/:no",
            [client?.id, registration?.id, item.no],
            body,
            seen,
          ),
    refresh: keys.client(client?.id),
    onSaved: ({ no }) => {
      onSaved(no);
      onClose();
    },
  });
  return (
    <BodyDialog
      of={dialog}
      title={item === null ? "New capital item" : `Capital item ${item.no}`}
      action={item === null ? "Put on the list" : "Keep"}
      wide
      className="grid grid-cols-2 gap-x-4 gap-y-3"
      onClose={onClose}
    >
      <TextField name="name" label="What it is" className="col-span-2" />
      <ChoiceField name="kind" label="Kind">
        {rule.kinds.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </ChoiceField>
      <DayField name="firstUse" label="In use from" />
      <TextField name="net" label="Cost without tax" inputMode="decimal" />
      {levies.map((levy) => (
        <TextField key={levy} name={`taxes.${levy}`} label={`${levy} it bore`} inputMode="decimal" />
      ))}
      <TextField name="share" label="Deducted at first, percent" inputMode="decimal" />
      {!rule.yearEnds.fixed && (
        <ChoiceField name="yearEnds" label="Tax year ends with">
          {MONTHS.map((month, index) => (
            <option key={month} value={String(index + 1)}>
              {month}
            </option>
          ))}
        </ChoiceField>
      )}
      <TextField name="evidence" label="Number of the purchase paper" />
      <ChoiceField name="how" label="How it ended">
        <option value="">still in use</option>
        {Object.entries(CAPITAL_ENDS).map(([how, words]) => (
          <option key={how} value={how}>
            {words}
          </option>
        ))}
      </ChoiceField>
      <Ended />
    </BodyDialog>
  );
}

/** The day it ended, where it did. */
function Ended() {
  const how = useWatch<Typed, "how">({ name: "how" });
  return how === "" ? null : <DayField name="endedOn" label="It ended on" />;
}

function typedOf(rule: CapitalItems, levies: readonly string[], from: From, digits: number): Typed {
  const [kind] = rule.kinds;
  const nothing = Object.fromEntries(levies.map((levy) => [levy, ""]));
  const end = { yearEnds: String(rule.yearEnds.usual), endedOn: today(), how: "" };
  if (from === "new")
    return {
      ...end,
      name: "",
      kind: kind?.id ?? "",
      firstUse: today(),
      net: "",
      taxes: nothing,
      share: "100",
      uses: {},
      evidence: "",
    };
  if ("no" in from) {
    const { ended, yearEnds, ...body } = bodyOfItem(from, digits);
    return {
      ...end,
      ...body,
      taxes: { ...nothing, ...body.taxes },
      yearEnds: String(yearEnds),
      ...(ended ? { endedOn: ended.on, how: ended.how } : {}),
    };
  }
  return {
    ...end,
    name: from.text || from.number,
    kind: kind?.id ?? "",
    firstUse: from.date,
    net: formatAmount(from.net, digits),
    taxes: {
      ...nothing,
      ...Object.fromEntries(
        Object.entries(from.taxes).map(([levy, tax]) => [levy, formatAmount(tax, digits)]),
      ),
    },
    share: from.share,
    uses: {},
    evidence: from.number,
  };
}
