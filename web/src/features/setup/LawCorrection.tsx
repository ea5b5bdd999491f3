import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useQuery } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import type { Frequency } from "@fiscalon/core/calendar/filingPeriods";
import type { DueRule } from "@fiscalon/core/calendar/dueDate";
import type { LawChange } from "@fiscalon/core/model/lawChange";
import type { JurisdictionPack } from "@fiscalon/core/model/pack";
import type { Packs } from "@fiscalon/core/model/packs";
import { rowInForce } from "@fiscalon/core/tax/rateInForce";
import { displayAmount } from "@fiscalon/core/money/amount";
import { lawChange } from "@fiscalon/contract/law";
import type { LawTouched } from "@fiscalon/contract/law";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { plural, today } from "../../kit/format.ts";
import { ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { Waiting } from "../../kit/Waiting.tsx";
import { StaysDeclared } from "./StaysDeclared.tsx";

export type CorrectionKind = "rate" | "due" | "title";

const TITLES: Record<CorrectionKind, string> = {
  rate: "Correct a rate, limit or amount",
  due: "Correct a due day",
  title: "Correct the title of a box",
};

/** What is typed, of whichever kind. */
interface Typed {
  schedule: string;
  from: string;
  to: string;
  rate: string;
  frequency: string;
  levy: string;
  ends: { from: string; to: string };
  months: string;
  day: string;
  shift: string;
  form: string;
  box: string;
  title: string;
  source: string;
}

/** A correction of a jurisdiction; before it is kept it says which open documents and returns it moves. */
export function LawCorrection({
  pack,
  packs,
  kind,
  onClose,
}: {
  pack: JurisdictionPack;
  packs: Packs;
  kind: CorrectionKind;
  onClose: () => void;
}) {
  const [form] = pack.forms;
  const dialog = useBodyForm({
    values: {
      schedule: Object.keys(pack.schedules)[0] ?? "",
      from: "",
      to: "",
      rate: "",
      frequency: "",
      levy: "",
      ends: { from: "", to: "" },
      months: "1",
      day: "",
      shift: "none",
      form: form?.id ?? "",
      box: form?.boxes[0]?.id ?? "",
      title: "",
      source: "",
    },
    schema: lawChange,
    body: (typed) => changeOf(kind, pack.id, typed),
    send: (change) => api.post("/law", [], { change }),
    refresh: [],
    onSaved: onClose,
  });
  const typed = useWatch({ control: dialog.form.control }) as Typed;
  const change = changeOf(kind, pack.id, { ...typed, source: "looked at" });
  const complete = lawChange.validate(change).error === undefined;
  const { data: touched, isFetching } = useQuery({
    queryKey: [...keys.law, "touched", change],
    queryFn: ({ signal }) => api.ask("/law/touched", [], { change }, signal),
    enabled: complete,
    retry: false,
  });
  return (
    <BodyDialog of={dialog} title={`${pack.name}: ${TITLES[kind]}`} action="Correct" wide onClose={onClose}>
      {kind === "rate" && <RateFields pack={pack} packs={packs} schedule={typed.schedule} />}
      {kind === "due" && <DueFields pack={pack} packs={packs} />}
      {kind === "title" && <TitleFields pack={pack} form={typed.form} box={typed.box} />}
      <TextField
        name="source"
        label="Where it was found"
        className="mt-3"
        placeholder="notice or page, and the day it was read"
      />
      {isFetching && <Waiting what="the documents it touches" />}
      {touched && <Touched touched={touched} />}
    </BodyDialog>
  );
}

function RateFields({ pack, packs, schedule }: { pack: JurisdictionPack; packs: Packs; schedule: string }) {
  const now = rowInForce(pack.schedules[schedule], today());
  return (
    <div className="grid grid-cols-[1fr_130px_130px_110px] gap-x-3">
      <ChoiceField name="schedule" label="Rate">
        {Object.keys(pack.schedules).map((id) => (
          <option key={id} value={id}>
            {packs.rateName(id)}
          </option>
        ))}
      </ChoiceField>
      <DayField name="from" label="From" />
      <DayField name="to" label="to" optional />
      <TextField
        name="rate"
        label="Is"
        inputMode="decimal"
        className="font-mono"
        hint={now ? `${now.rate} today` : "none today"}
      />
    </div>
  );
}

function DueFields({ pack, packs }: { pack: JurisdictionPack; packs: Packs }) {
  const frequencies = [...new Set(pack.rhythms.map(({ frequency }) => frequency))];
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3">
        <ChoiceField name="frequency" label="Returns">
          <option value="">of every rhythm</option>
          {frequencies.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </ChoiceField>
        <ChoiceField name="levy" label="For">
          <option value="">every levy</option>
          {pack.levies.map(({ levy }) => (
            <option key={levy} value={levy}>
              {packs.levyName(levy)}
            </option>
          ))}
        </ChoiceField>
        <DayField name="ends.from" label="Periods that end from" />
        <DayField name="ends.to" label="to" optional />
      </div>
      <div className="mt-2 grid grid-cols-[110px_180px_1fr] gap-x-3">
        <TextField name="day" label="Due on day" placeholder="7 or end" className="font-mono" />
        <TextField name="months" label="Months after the period" inputMode="numeric" className="font-mono" />
        <ChoiceField name="shift" label="On a day without work">
          <option value="none">it stays</option>
          <option value="next">the next working day</option>
          <option value="before">the working day before</option>
        </ChoiceField>
      </div>
    </>
  );
}

function TitleFields({ pack, form, box }: { pack: JurisdictionPack; form: string; box: string }) {
  const boxes = pack.forms.find(({ id }) => id === form)?.boxes ?? [];
  return (
    <div className="grid grid-cols-[1fr_140px_1.6fr] gap-x-3">
      <ChoiceField name="form" label="Form">
        {pack.forms.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </ChoiceField>
      <ChoiceField name="box" label="Box">
        {boxes.map(({ id }) => (
          <option key={id} value={id}>
            {id}
          </option>
        ))}
      </ChoiceField>
      <TextField name="title" label="Is called" hint={boxes.find(({ id }) => id === box)?.title} />
    </div>
  );
}

function Touched({ touched: { clients } }: { touched: LawTouched }) {
  if (clients.length === 0) {
    return (
      <div role="status" className="note-row mt-3">
        No open document and no open return is touched.
      </div>
    );
  }
  const documents = clients.reduce((sum, one) => sum + one.documents, 0);
  return (
    <div role="status" className="note-row mt-3 max-h-52 overflow-y-auto">
      {documents > 0 && `${plural(documents, "open document")} would be worked out anew.`}
      {clients.map((one) => (
        <div key={one.client} className="mt-1.5 text-[12.5px]">
          <span className="font-semibold">{one.name}</span>
          {one.returns.length > 0 &&
            `: ${one.returns
              .slice(0, 6)
              .map(({ registration, end }) => `${registration} to ${displayDate(end)}`)
              .join("; ")}${one.returns.length > 6 ? ` and ${one.returns.length - 6} more` : ""}`}
          <ul>
            {one.first.map(({ id, number, date, gross, digits }) => (
              <li key={id}>
                {number}, {displayDate(date)}:{" "}
                <span className="font-mono">{displayAmount(gross, digits)}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
      <StaysDeclared documents={clients.reduce((sum, one) => sum + one.declared, 0)} />
    </div>
  );
}

function changeOf(kind: CorrectionKind, pack: string, typed: Typed): LawChange {
  const { source } = typed;
  if (kind === "rate") {
    const { schedule, from, rate } = typed;
    return { kind, pack, source, schedule, from, to: typed.to || null, rate };
  }
  if (kind === "title") {
    const { form, box, title } = typed;
    return { kind, pack, source, form, box, title };
  }
  return {
    kind,
    pack,
    source,
    frequency: (typed.frequency || null) as Frequency | null,
    levy: typed.levy || null,
    ends: { from: typed.ends.from, to: typed.ends.to || null },
    months: Number(typed.months),
    day: typed.day === "end" ? "end" : Number(typed.day),
    shift: typed.shift as DueRule["shift"],
  };
}
