import clsx from "clsx";
import { useState } from "react";
import type { ReportKind } from "@fiscalon/contract/reports";
import { usePacks } from "../../api/packs.ts";
import { useScope } from "../../app/scope.ts";
import { withQuery } from "../../api/client.ts";
import { DateField } from "../../kit/DateField.tsx";
import { SelectField } from "../../kit/Field.tsx";
import { Sheet } from "../../kit/Sheet.tsx";
import { BooksNav } from "../../app/BooksNav.tsx";
import { useLedgerDates } from "../../app/useLedgerDates.ts";
import { ByCodeReport, keyOf } from "./ByCodeReport.tsx";
import { DetailReport } from "./DetailReport.tsx";
import { SummaryReport } from "./SummaryReport.tsx";
import { Waiting } from "../../kit/Waiting.tsx";

const KINDS: [ReportKind, string][] = [
  ["summary", "Summary"],
  ["by-code", "By code"],
  ["details", "Details"],
];

/** Whose supplies, and of reverse charges who owes the tax. */
const SIDES = {
  both: { direction: "", charged: "" },
  sales: { direction: "sale", charged: "" },
  purchases: { direction: "purchase", charged: "" },
  "reverse charges, both sides": { direction: "", charged: "reverse" },
  "reverse charges owed by us": { direction: "", charged: "self-assessed" },
  "reverse charges owed by customers": { direction: "", charged: "declared-only" },
} as const;

/** What was counted, of which levy and code: summed, by code, or line by line. */
export function TaxReportsPage() {
  const { client, registration } = useScope();
  const packs = usePacks();
  const dates = useLedgerDates();
  const [kind, setKind] = useState<ReportKind>("summary");
  const [by, setBy] = useState<"tax-point" | "period">("tax-point");
  const [side, setSide] = useState<keyof typeof SIDES>("both");
  const [only, setOnly] = useState<"" | "registration">("");
  const [chosen, setChosen] = useState("");
  if (!client) return <Waiting what="the reports" />;
  const filter = {
    from: dates.from,
    to: dates.to,
    by,
    ...SIDES[side],
    registration: only === "registration" ? registration?.id : undefined,
  };
  const file = (format: string) =>
    `/api${withQuery(`/clients/${client.id}/reports/tax/export`, { ...filter, kind, format })}`;
  return (
    <Sheet
      title="Tax reports"
      lead="What was counted, of which levy and code. Credit notes count negative."
      actions={<BooksNav />}
    >
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <div role="group" aria-label="Report" className="join">
          {KINDS.map(([one, name]) => (
            <button
              key={one}
              type="button"
              aria-pressed={kind === one}
              className={clsx("action join-item", kind === one && "bg-neutral text-neutral-content")}
              onClick={() => setKind(one)}
            >
              {name}
            </button>
          ))}
        </div>
        <DateField label="From" value={dates.from} onChange={dates.setFrom} className="w-[112px]" />
        <DateField label="To" value={dates.to} onChange={dates.setTo} className="w-[112px]" />
        <SelectField
          className="w-[140px]"
          label="Counted by"
          value={by}
          onChange={(event) => setBy(event.target.value as typeof by)}
        >
          <option value="tax-point">tax point</option>
          <option value="period">period reported in</option>
        </SelectField>
        <SelectField
          className="w-[150px]"
          label="Side"
          value={side}
          onChange={(event) => setSide(event.target.value as typeof side)}
        >
          {Object.keys(SIDES).map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </SelectField>
        {client.registrations.length > 1 && (
          <SelectField
            className="w-[150px]"
            label="Registration"
            value={only}
            onChange={(event) => setOnly(event.target.value as typeof only)}
          >
            <option value="">all</option>
            <option value="registration">{packs.levyNames(registration?.levies ?? [])}</option>
          </SelectField>
        )}
        <span className="ml-auto flex gap-2">
          {["csv", "xlsx", "pdf"].map((format) => (
            <a key={format} className="action" href={file(format)} download>
              {format.toUpperCase()}
            </a>
          ))}
        </span>
      </div>
      {kind === "summary" && (
        <SummaryReport
          clientId={client.id}
          filter={filter}
          onOpen={(row) => {
            setChosen(keyOf(row));
            setKind("by-code");
          }}
        />
      )}
      {kind === "by-code" && (
        <ByCodeReport key={chosen} clientId={client.id} filter={filter} chosen={chosen} />
      )}
      {kind === "details" && (
        <DetailReport key={JSON.stringify(filter)} clientId={client.id} filter={filter} />
      )}
    </Sheet>
  );
}
