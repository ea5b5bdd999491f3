import type { ImportBatch, ImportSettings } from "@fiscalon/contract/imports";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { Field, SelectField } from "../../kit/Field.tsx";

/** How an e-invoice or an audit file is taken: accounts, and codes for what it calls otherwise. */
export function XmlForm({
  batch,
  setup,
  busy,
  onChange,
}: {
  batch: ImportBatch;
  setup: PlainSetup;
  busy: boolean;
  onChange: (settings: Partial<ImportSettings>) => void;
}) {
  const { settings, report, direction, content } = batch;
  const side = content === "audit-file" ? null : direction;
  const unknown = new Set([
    ...Object.keys(settings.chosen ?? {}),
    ...(report?.problems ?? []).flatMap(({ field }) => (field ? [field.replace(/^lines\[\d+\]\./, "")] : [])),
  ]);
  const needsRate = report?.problems.some(({ message }) => message.startsWith("Type the rate")) ?? false;
  return (
    <section aria-label="How the file is read">
      <h2 className="mb-2">How the file is read</h2>
      <div className="mb-4 grid grid-cols-3 gap-x-5 gap-y-3">
        {content === "audit-file" && (
          <SelectField
            label="Taken from it"
            value={settings.take ?? "documents"}
            disabled={busy}
            hint="Never both: the ledger holds the entries of the invoices."
            onChange={(event) => onChange({ take: event.target.value as "documents" | "ledger" })}
          >
            <option value="documents">sales and purchase invoices</option>
            <option value="ledger">the ledger, as journals</option>
          </SelectField>
        )}
        <SelectField
          label={content === "audit-file" ? "Lines without an account of the chart" : "Posted to"}
          value={settings.account ?? ""}
          disabled={busy}
          onChange={(event) => onChange({ account: event.target.value || null })}
        >
          <option value="">the usual account</option>
          {setup.accounts
            .filter(({ type }) => type === "income" || type === "expense" || type === "asset")
            .map(({ code, name }) => (
              <option key={code} value={code}>
                {code} {name}
              </option>
            ))}
        </SelectField>
        {(needsRate || settings.rate) && (
          <Field
            label={`Rate into ${setup.currency}`}
            defaultValue={settings.rate ?? ""}
            disabled={busy}
            inputMode="decimal"
            onBlur={(event) => onChange({ rate: event.target.value || null })}
          />
        )}
        {[...unknown]
          .filter((key) => key !== "" && !key.startsWith("exchange"))
          .map((key) => (
            <SelectField
              key={key}
              label={content === "e-invoice" ? `Code for category ${key} %` : `Code for ${key}`}
              value={settings.chosen?.[key] ?? ""}
              disabled={busy}
              onChange={(event) => onChange({ chosen: { ...settings.chosen, [key]: event.target.value } })}
            >
              <option value="" disabled>
                choose …
              </option>
              {setup.codes
                .filter((code) => side === null || code.direction === "both" || code.direction === side)
                .map((code) => (
                  <option key={code.code} value={code.code}>
                    {code.code} {code.name}
                  </option>
                ))}
            </SelectField>
          ))}
      </div>
    </section>
  );
}
