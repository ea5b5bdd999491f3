import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { collectionOpeningBody } from "@fiscalon/contract/collection";
import type { CollectionSheet, CollectionView } from "@fiscalon/contract/collection";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { plainAmount } from "../../kit/format.ts";
import { TextField } from "../../kit/formFields.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";

/** A customer's year: each receipt with its running total, what of it is above, and what was charged. */
export function CustomerPanel({
  contact,
  view,
  close,
}: {
  contact: number;
  view: CollectionView;
  close: string;
}) {
  const { client, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [opening, setOpening] = useState(false);
  const { data: sheet, error } = useQuery({
    queryKey: keys.of(client?.id, "collection", "customer", contact, view.year),
    queryFn: ({ signal }) =>
      api.get(
        "/clients/:id/collection/customers/:contact",
        [client?.id, contact],
        { day: view.year },
        signal,
      ),
    enabled: client !== undefined,
  });
  const deducts = useMutation({
    mutationFn: (value: boolean) =>
      api.put(
        "/clients/:id/collection/customers/:contact/deducts",
        [client?.id, contact],
        { deducts: value },
        seenOf(sheet),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  return (
    <section
      aria-label={sheet ? `Year of ${sheet.name}` : "Year of the customer"}
      className="flex h-full flex-col overflow-y-auto px-4 pt-4 pb-6"
    >
      <header className="flex items-start gap-2">
        <div className="min-w-0">
          <h2 className="text-[16px]">{sheet?.name ?? "This customer"}</h2>
          <p className="quiet">
            {view.identification}{" "}
            {sheet?.identification ?? "not known: the higher rate holds until the contact has it"}
          </p>
        </div>
        <Link to={close} aria-label="Close the customer" className="ml-auto p-1">
          <X size={16} aria-hidden />
        </Link>
      </header>
      <ErrorNote error={error ?? deducts.error} />
      {sheet && (
        <label className="mt-2 flex cursor-pointer items-center gap-1.5 text-[13px]">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={sheet.deducts}
            disabled={deducts.isPending}
            onChange={({ target }) => deducts.mutate(target.checked)}
          />
          {view.deducts}
        </label>
      )}
      {sheet && <Receipts sheet={sheet} view={view} digits={digits} onOpening={() => setOpening(true)} />}
      {sheet && sheet.charges.length > 0 && <Charges sheet={sheet} digits={digits} />}
      {sheet && opening && (
        <OpeningDialog sheet={sheet} view={view} digits={digits} onClose={() => setOpening(false)} />
      )}
    </section>
  );
}

function Receipts({
  sheet,
  view,
  digits,
  onOpening,
}: {
  sheet: CollectionSheet;
  view: CollectionView;
  digits: number;
  onOpening: () => void;
}) {
  const show = (amount: number) => displayAmount(amount, digits);
  return (
    <table className="sheet-table mt-3 text-[13px]">
      <thead>
        <tr>
          <th>Received</th>
          <th className="num">Counts</th>
          <th className="num">In the year</th>
          <th className="num">Tax</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td colSpan={2}>
            before these books{" "}
            <button type="button" className="word-link" onClick={onOpening}>
              {sheet.opening === 0 ? "Enter" : "Change"}
            </button>
            {sheet.evidence !== "" && <span className="quiet block">{sheet.evidence}</span>}
          </td>
          <td className="num">{show(sheet.opening)}</td>
          <td />
        </tr>
        {sheet.receipts.map((row) => (
          <tr key={row.ref}>
            <td>
              {displayDate(row.date)} <span className="quiet font-mono">{row.number}</span>
            </td>
            <td className="num">
              <Figure amount={row.amount} digits={digits} of={row.ref} label={`Received, ${row.number},`} />
            </td>
            <td className="num">{show(row.after)}</td>
            <td className="num">
              <Figure
                amount={row.tax}
                digits={digits}
                dash
                of={{
                  ref: `collection/${sheet.contact}/${row.ref}`,
                  title: `${view.name}, ${row.number}`,
                  amount: row.tax,
                  digits,
                  words: [
                    `${view.says} (${view.source})`,
                    ...(row.paid === row.amount
                      ? []
                      : [
                          `Of ${show(row.paid)} received, ${show(row.paid - row.amount)} is for services or for the tax itself.`,
                        ]),
                  ],
                  parts: [{ ref: row.ref, label: row.number, detail: sheet.name, amount: row.paid }],
                  arithmetic: [
                    `${show(row.before)} + ${show(row.amount)} = ${show(row.after)} in the year, ${show(row.excess)} of it above ${show(view.above)}`,
                    ...(row.rate === null ? [] : [`${show(row.excess)} × ${row.rate} % = ${show(row.tax)}`]),
                  ],
                }}
                label={`Tax on ${row.number}`}
              />
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="font-semibold">
          <td>Together</td>
          <td className="num">{show(sheet.received)}</td>
          <td />
          <td className="num">{show(sheet.tax)}</td>
        </tr>
      </tfoot>
    </table>
  );
}

function Charges({ sheet, digits }: { sheet: CollectionSheet; digits: number }) {
  const { path } = useScope();
  return (
    <>
      <h3 className="mt-4 font-semibold">Charged</h3>
      <ul className="text-[13px]">
        {sheet.charges.map(({ document, number, date, kind, amount }) => (
          <li key={`${document}/${kind}`} className="flex gap-3 border-b border-base-300 py-1">
            <span>{displayDate(date)}</span>
            <Link className="word-link font-mono" to={path(`books/documents/${document}`)}>
              {number}
            </Link>
            {kind && <span className="quiet">{kind}</span>}
            <span className="ml-auto">
              <Figure
                amount={amount}
                digits={digits}
                of={`document/${document}`}
                label={`Charged on ${number}`}
              />
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2">
        {sheet.left > 0 && `${displayAmount(sheet.left, digits)} is left to charge.`}
        {sheet.left < 0 && `${displayAmount(-sheet.left, digits)} was charged ahead of its receipt.`}
        {sheet.left === 0 && "All of it is charged."}
      </p>
    </>
  );
}

function OpeningDialog({
  sheet,
  view,
  digits,
  onClose,
}: {
  sheet: CollectionSheet;
  view: CollectionView;
  digits: number;
  onClose: () => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { amount: formatAmount(sheet.opening, digits), evidence: sheet.evidence },
    schema: collectionOpeningBody,
    body: ({ amount, evidence }) => ({ year: view.year, amount: plainAmount(amount) || "0", evidence }),
    seen: seenOf(sheet),
    send: (body, _typed, seen) =>
      api.put("/clients/:id/collection/customers/:contact/opening", [client?.id, sheet.contact], body, seen),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`${sheet.name}: received before these books`}
      action="Keep"
      className="grid gap-4"
      onClose={onClose}
    >
      <p>
        What this customer paid in the fiscal year to {displayDate(view.year)} before the books here begin.
      </p>
      <TextField name="amount" label="Received" inputMode="decimal" className="w-[180px]" />
      <TextField name="evidence" label="What says so" />
    </BodyDialog>
  );
}
