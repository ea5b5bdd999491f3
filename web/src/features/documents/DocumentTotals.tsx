import type { DocumentView } from "@fiscalon/contract/views";
import type { CreditHold } from "@fiscalon/core/model/pack";
import type { Account } from "@fiscalon/core/model/account";
import { textAt } from "@fiscalon/core/at";
import { levyWords } from "@fiscalon/core/tax/levyWords";
import { DOCUMENT_KINDS } from "@fiscalon/core/model/documentKinds";
import { isJournal } from "@fiscalon/core/model/document";
import { minorDigits } from "@fiscalon/core/money/currency";
import { usePacks } from "../../api/packs.ts";
import { Field, SelectField } from "../../kit/Field.tsx";
import { Figure } from "../../kit/Figure.tsx";
import type { Draft } from "./draft.ts";
import type { LiveEffect } from "./useEffectOf.ts";

/** Net, tax by rate and gross, and the figures that concern the whole document. */
export function DocumentTotals({
  draft,
  live,
  document,
  base,
  accounts,
  holds,
  readOnly,
  onChange,
}: {
  draft: Draft;
  live: LiveEffect;
  document: DocumentView | null;
  /** The currency of the books. */
  base: { digits: number; currency: string };
  accounts: readonly Account[];
  /** Why the tax of a purchase may not be deducted yet. */
  holds: readonly CreditHold[];
  readOnly: boolean;
  onChange: (change: Partial<Draft>) => void;
}) {
  const packs = usePacks();
  if (isJournal(draft)) {
    return (
      <Field
        className="mt-6 max-w-md"
        label="Note"
        value={draft.note}
        readOnly={readOnly}
        onChange={(event) => onChange({ note: event.target.value })}
      />
    );
  }
  const { counter, direction } = DOCUMENT_KINDS[draft.kind];
  const currency = draft.currency || base.currency;
  const digits = minorDigits(currency);
  const priced = live.effect?.printed;
  const levies = [
    ...new Set(
      (priced?.levies ?? [])
        .filter((row) => row.charged === "charged" && row.rate !== null)
        .map(({ levy }) => levy),
    ),
  ];
  const of = document ? `document/${document.id}` : null;
  return (
    <div className="mt-5 flex flex-wrap items-start justify-between gap-8">
      <div className="grid w-[290px] grid-cols-2 gap-x-4 gap-y-3">
        <Field
          label="Discount"
          value={draft.discount}
          readOnly={readOnly}
          placeholder="5% or 12.00"
          onChange={(event) => onChange({ discount: event.target.value })}
        />
        <Field
          label={
            levies.length === 1 ? `${packs.levyName(textAt(levies, 0))} as printed` : "Tax as printed, in all"
          }
          value={draft.tax}
          readOnly={readOnly}
          placeholder="calculated"
          onChange={(event) => onChange({ tax: event.target.value, taxOf: "", taxes: {} })}
        />
        {levies.length > 1 &&
          levies.map((levy) => (
            <Field
              key={levy}
              label={`${packs.levyName(levy)} as printed`}
              value={draft.taxes[levy] ?? (draft.taxOf === levy ? draft.tax : "")}
              readOnly={readOnly}
              placeholder="calculated"
              onChange={(event) =>
                onChange({ tax: "", taxOf: "", taxes: { ...draft.taxes, [levy]: event.target.value } })
              }
            />
          ))}
        {counter === "bank" && (
          <SelectField
            className="col-span-2"
            label="Paid through"
            value={draft.paidThrough}
            disabled={readOnly}
            onChange={(event) => onChange({ paidThrough: event.target.value })}
          >
            <option value="">the bank</option>
            {accounts
              .filter(({ type, role }) => (type === "asset" || type === "liability") && role !== "bank")
              .map(({ code, name }) => (
                <option key={code} value={code}>
                  {code} {name}
                </option>
              ))}
          </SelectField>
        )}
        {(counter === "receivable" || counter === "payable") && (
          <label className="col-span-2 flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={draft.opening}
              disabled={readOnly}
              onChange={(event) => onChange({ opening: event.target.checked })}
            />
            open from before these books: posted against opening balances
          </label>
        )}
        {holds.length > 0 && direction === "purchase" && (
          <SelectField
            className="col-span-2"
            label="Its tax is deducted"
            value={draft.creditHold}
            disabled={readOnly}
            hint={holds.find(({ id }) => id === draft.creditHold)?.source}
            onChange={(event) => onChange({ creditHold: event.target.value })}
          >
            <option value="">at the tax point</option>
            {holds.map(({ id, name }) => (
              <option key={id} value={id}>
                not {name}
              </option>
            ))}
          </SelectField>
        )}
        <Field
          className="col-span-2"
          label="Note"
          value={draft.note}
          readOnly={readOnly}
          onChange={(event) => onChange({ note: event.target.value })}
        />
      </div>
      <table className="w-[330px]">
        <tbody>
          <Row name="Net">{priced && <Figure amount={priced.net} digits={digits} of={of} label="Net" />}</Row>
          {priced?.levies
            .filter((row) => row.rate !== null)
            .map((row) => (
              <Row key={`${row.levy} ${row.per} ${row.rate} ${row.charged}`} name={levyWords(row, packs)}>
                <Figure amount={row.tax} digits={digits} of={of} label={packs.levyName(row.levy)} dash />
              </Row>
            ))}
          <tr>
            <td className="border-t border-b-2 border-base-content py-1.5 font-bold">
              {DOCUMENT_KINDS[draft.kind].direction === "sale" ? "To receive" : "To pay"}
            </td>
            <td className="num border-t border-b-2 border-base-content py-1.5 font-bold">
              {currency} {priced && <Figure amount={priced.gross} digits={digits} of={of} label="Gross" />}
            </td>
          </tr>
          {draft.currency !== "" && live.effect && (
            <Row name={`in the books, ${base.currency}`}>
              <Figure
                amount={live.effect.priced.gross}
                digits={base.digits}
                of={of}
                label="Gross in the books"
              />
            </Row>
          )}
        </tbody>
      </table>
    </div>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <tr>
      <td className="border-b border-base-300 py-1.5">{name}</td>
      <td className="num border-b border-base-300 py-1.5">{children}</td>
    </tr>
  );
}
