import type { PlaceSetup } from "@fiscalon/core/model/party";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import type { ContactView } from "@fiscalon/contract/views";
import { Combo } from "../../kit/Combo.tsx";
import { DateField } from "../../kit/DateField.tsx";
import { Field, SelectField } from "../../kit/Field.tsx";
import { CurrencyFields } from "./CurrencyFields.tsx";
import type { Draft } from "./draft.ts";

/** Who, which number, when, from where, and for a credit note what it corrects. */
export function DocumentHead({
  draft,
  contacts,
  places,
  base,
  original,
  readOnly,
  onSearch,
  onCreateContact,
  onChange,
}: {
  draft: Draft;
  contacts: readonly ContactView[];
  places: readonly PlaceSetup[];
  /** The currency of the books. */
  base: string;
  original: { date: string } | null;
  readOnly: boolean;
  onSearch: (text: string) => void;
  onCreateContact: (text: string) => void;
  onChange: (change: Partial<Draft>) => void;
}) {
  const kind = DOCUMENT_KINDS[draft.kind];
  const isJournal = kind.direction === null;
  const open = places.filter(({ closedOn, id }) => closedOn === null || String(id) === draft.place);
  const offered = [
    ...contacts,
    ...(draft.contact && !contacts.some((one) => one.id === draft.contact?.id) ? [draft.contact] : []),
  ];
  const choices = offered.map((contact) => ({
    value: String(contact.id),
    label: contact.name,
    detail: contact.taxNumber ?? contact.country ?? "",
  }));
  return (
    <div className="mb-4 flex flex-wrap items-start gap-x-3 gap-y-3">
      {!isJournal && (
        <div className="w-[168px]">
          <Combo
            label={kind.direction === "sale" ? "Customer" : "Supplier"}
            value={draft.contact ? String(draft.contact.id) : ""}
            choices={choices}
            disabled={readOnly}
            onSearch={onSearch}
            onChange={(value) =>
              onChange({ contact: offered.find((one) => String(one.id) === value) ?? null })
            }
            onCreate={onCreateContact}
            createWord="Create"
            placeholder="type to find"
          />
        </div>
      )}
      <Field
        className="w-[100px]"
        label={kind.direction === "purchase" ? "Their number" : "Number"}
        value={draft.number}
        readOnly={readOnly}
        placeholder={kind.direction === "purchase" ? "" : "next in series"}
        onChange={(event) => onChange({ number: event.target.value })}
      />
      <DateField
        label="Date"
        value={draft.date}
        onChange={(date) => onChange({ date })}
        disabled={readOnly}
        className="w-[104px]"
      />
      {!isJournal && (
        <DateField
          label="Tax point"
          value={draft.taxPoint}
          optional
          placeholder="as the date"
          onChange={(taxPoint) => onChange({ taxPoint })}
          disabled={readOnly}
          className="w-[104px]"
        />
      )}
      {kind.waits && kind.sign > 0 && (
        <DateField
          label="Due on"
          value={draft.due}
          optional
          placeholder="not said"
          onChange={(due) => onChange({ due })}
          disabled={readOnly}
          className="w-[104px]"
        />
      )}
      {open.length > 1 && (
        <SelectField
          className="w-[170px]"
          label="Place"
          value={draft.place || String(places[0]?.id ?? "")}
          disabled={readOnly}
          onChange={(event) => onChange({ place: event.target.value })}
        >
          {open.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
      )}
      {!isJournal && <CurrencyFields draft={draft} base={base} readOnly={readOnly} onChange={onChange} />}
      {kind.sign < 0 && (
        <>
          <Field
            className="w-[120px]"
            label="Corrects"
            value={draft.corrects}
            readOnly={readOnly}
            placeholder="invoice number"
            onChange={(event) => onChange({ corrects: event.target.value, originalDate: "" })}
          />
          <DateField
            label="Its tax point"
            value={draft.originalDate || original?.date || ""}
            optional
            placeholder="its own"
            onChange={(originalDate) => onChange({ originalDate })}
            disabled={readOnly}
            className="w-[128px]"
          />
        </>
      )}
    </div>
  );
}
