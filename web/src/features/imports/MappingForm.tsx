import { textAt } from "@fiscalon/core/at";
import type { ImportBatch, ImportSettings } from "@fiscalon/contract/imports";
import { taxField, TABLES } from "@fiscalon/core/formats/tables/tableKinds";
import type { PlainSetup } from "@fiscalon/core/facts/plainSetup";
import { DateField } from "../../kit/DateField.tsx";
import { SelectField } from "../../kit/Field.tsx";

const DELIMITERS: Record<string, string> = { ",": "comma", ";": "semicolon", "\t": "tab", "|": "bar" };

/** How the file was recognised; every guess can be overruled, and the file is checked again at once. */
export function MappingForm({
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
  const { shape, settings } = batch;
  const table = batch.content in TABLES ? (batch.content as keyof typeof TABLES) : "register";
  const fields = { ...TABLES[table].fields, ...(batch.content === "register" ? levyFields(setup) : {}) };
  const isRegister = batch.content === "register";
  const side = batch.direction;
  const codes = setup.codes.filter((code) => code.direction === "both" || code.direction === side);
  const untaxed = codes.filter((code) =>
    [
      "zero",
      "exempt",
      "out-of-scope",
      "export",
      "intra-union",
      "reverse-charge-supplier",
      "reverse-charge",
    ].includes(code.treatment),
  );
  const assign = (column: number, field: string) => {
    const mapping = Object.fromEntries(
      Object.entries(settings.mapping).filter(([name, at]) => at !== column && name !== field),
    );
    onChange({ mapping: field === "" ? mapping : { ...mapping, [field]: column } });
  };
  const mapped = Object.fromEntries(Object.entries(settings.mapping).map(([name, at]) => [at, name]));
  const fieldOf = (column: number) => textAt(mapped, column);
  return (
    <section aria-label="How the file is read">
      <h2 className="mb-1">How the file is read</h2>
      <p className="quiet mb-3">
        Recognised: {batch.encoding}
        {shape.delimiter === ""
          ? ""
          : `, columns separated by ${DELIMITERS[shape.delimiter] ?? shape.delimiter}`}
        , headings in row {shape.headerRow + 1}.
        {!shape.dateOrderSure && " No date says whether day or month comes first: look at the dates."}
      </p>
      <div className="mb-4 grid grid-cols-3 gap-x-5 gap-y-3">
        <SelectField
          label="Dates are written"
          value={settings.dateOrder}
          disabled={busy}
          onChange={(event) => onChange({ dateOrder: event.target.value as ImportSettings["dateOrder"] })}
        >
          <option value="dmy">day, month, year</option>
          <option value="mdy">month, day, year</option>
          <option value="ymd">year, month, day</option>
        </SelectField>
        <SelectField
          label="Amounts are written"
          value={settings.decimal}
          disabled={busy}
          onChange={(event) => onChange({ decimal: event.target.value as ImportSettings["decimal"] })}
        >
          <option value=".">1,234.50</option>
          <option value=",">1.234,50</option>
        </SelectField>
        {batch.content === "trial-balance" && (
          <DateField
            label="Balances of the day"
            value={settings.date ?? ""}
            disabled={busy}
            className="w-full"
            onChange={(date) => onChange({ date })}
          />
        )}
        {isRegister && (
          <SelectField
            label={side === "sale" ? "Income goes to" : "Cost goes to"}
            value={settings.account ?? ""}
            disabled={busy}
            onChange={(event) => onChange({ account: event.target.value || null })}
          >
            <option value="">
              {
                setup.accounts.find((account) => account.role === (side === "sale" ? "sales" : "purchases"))
                  ?.name
              }
            </option>
            {setup.accounts
              .filter((account) => account.type === (side === "sale" ? "income" : "expense"))
              .map((account) => (
                <option key={account.code} value={account.code}>
                  {account.code} {account.name}
                </option>
              ))}
          </SelectField>
        )}
        {isRegister &&
          (["codeForBlank", "codeForZero"] as const).map((key) => (
            <SelectField
              key={key}
              label={key === "codeForBlank" ? "Code where the tax is blank" : "Code where the tax is 0"}
              value={settings[key] === null ? "" : settings[key]}
              disabled={busy}
              onChange={(event) => onChange({ [key]: event.target.value || null })}
            >
              <option value="">choose …</option>
              {untaxed.map((code) => (
                <option key={code.code} value={code.code}>
                  {code.code} {code.name}
                </option>
              ))}
            </SelectField>
          ))}
        {batch.report?.choices.map(({ key, codes: fitting, rows }) => (
          <SelectField
            key={key}
            label={`${fitting.join(", ")} all fit ${rows} ${rows === 1 ? "row" : "rows"}`}
            value={textAt(settings.chosen ?? {}, key)}
            disabled={busy}
            onChange={(event) => onChange({ chosen: { ...settings.chosen, [key]: event.target.value } })}
          >
            <option value="">choose …</option>
            {codes
              .filter(({ code }) => fitting.includes(code))
              .map((code) => (
                <option key={code.code} value={code.code}>
                  {code.code} {code.name}
                </option>
              ))}
          </SelectField>
        ))}
      </div>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Column</th>
            <th>Holds</th>
            <th>For example</th>
          </tr>
        </thead>
        <tbody>
          {shape.columns.map((column, index) => (
            <tr key={index}>
              <td className="font-semibold">{column.name || `column ${index + 1}`}</td>
              <td>
                <select
                  className="entry !min-h-[26px]"
                  aria-label={`Column ${column.name} holds`}
                  value={fieldOf(index)}
                  disabled={busy}
                  onChange={(event) => assign(index, event.target.value)}
                >
                  <option value="">not used</option>
                  {Object.entries(fields).map(([field, name]) => (
                    <option key={field} value={field}>
                      {name}
                    </option>
                  ))}
                </select>
              </td>
              <td className="quiet font-mono text-[12.5px]">{column.samples.join("  ·  ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** A column for the tax of each levy, where the codes charge more than one. */
function levyFields({ codes }: PlainSetup): Record<string, string> {
  const levies = [...new Set(codes.flatMap(({ components }) => components.map(({ levy }) => levy)))];
  return levies.length < 2 ? {} : Object.fromEntries(levies.map((levy) => [taxField(levy), `Tax: ${levy}`]));
}
