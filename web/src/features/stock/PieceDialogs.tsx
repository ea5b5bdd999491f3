import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useFieldArray, useFormContext, useWatch } from "react-hook-form";
import { boughtPieceBody, endBody, joinBody, pieceBody, splitBody } from "@fiscalon/contract/stockBook";
import type { PiecePage, PieceView, UnlistedLine } from "@fiscalon/contract/stockBook";
import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import { displayAmount, formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { DateField } from "../../kit/DateField.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { plainAmount, plural, showDate, today } from "../../kit/format.ts";
import { CheckField, ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { useSetup } from "../../app/useSetup.ts";
import { pieceNo } from "./pieceWords.ts";

/** What a piece is sent as, of what the form holds. */
function bodyOfPiece(piece: PieceView | null, digits: number) {
  return {
    name: piece?.name ?? "",
    identifier: piece?.identifier ?? "",
    kind: piece?.kind ?? "goods",
    boughtOn: piece ? piece.boughtOn : today(),
    price: piece === null || piece.price === null ? "" : formatAmount(piece.price, digits),
    purchaseNumber: piece?.purchaseNumber ?? "",
    seller: piece?.seller ?? "",
    sellerAddress: piece?.sellerAddress ?? "",
    offReason: piece?.offReason ?? "",
    note: piece?.note ?? "",
  };
}

/** A new piece with its purchase, or what is on record of one. */
export function PieceDialog({
  head,
  piece,
  onClose,
  onSaved,
}: {
  head: PiecePage;
  piece: PieceView | null;
  onClose: () => void;
  onSaved: (piece: PieceView) => void;
}) {
  const { client, minorDigits: digits } = useScope();
  const dialog = useBodyForm({
    values: { ...bodyOfPiece(piece, digits), book: piece === null, paidThrough: "", ownPaper: true },
    schema: piece === null ? boughtPieceBody : pieceBody,
    body: ({ book, paidThrough, ownPaper, ...typed }) => {
      const body = { ...typed, boughtOn: typed.boughtOn || null, price: plainAmount(typed.price) };
      return book && piece === null ? { ...body, purchase: { contact: null, ownPaper, paidThrough } } : body;
    },
    send: (body) =>
      piece === null
        ? api.post("/clients/:id/pieces", [client?.id], body)
        : api.put("/clients/:id/pieces/:no", [client?.id, piece.no], body),
    refresh: keys.client(client?.id),
    onSaved,
  });
  const sold = piece?.state === "sold";
  return (
    <BodyDialog
      of={dialog}
      title={piece === null ? `Piece ${pieceNo(head.nextNo)}` : `Piece ${pieceNo(piece.no)}`}
      action={piece === null ? "Buy" : "Keep"}
      wide
      className="grid grid-cols-2 gap-x-4 gap-y-3"
      onClose={onClose}
    >
      <TextField name="name" label="Description" className="col-span-2" />
      <TextField name="identifier" label="Serial, chassis or other mark" />
      <ChoiceField name="kind" label="Kind">
        {head.kinds.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </ChoiceField>
      <DayField name="boughtOn" label="Day of purchase" optional />
      <TextField name="price" label="Purchase price" inputMode="decimal" readOnly={sold} />
      <TextField name="seller" label="Seller" />
      <TextField name="purchaseNumber" label="Number of the purchase paper" />
      <TextField name="sellerAddress" label="Address of the seller" className="col-span-2" />
      <TextField name="note" label="Note" className="col-span-2" />
      {piece === null && <PurchaseFields />}
      <p className="quiet col-span-2">
        {head.says} ({head.source})
      </p>
    </BodyDialog>
  );
}

/** Whether and how the purchase is booked with the piece. */
function PurchaseFields() {
  const book = useWatch({ name: "book" }) as boolean;
  const accounts = (useSetup()?.plain.accounts ?? []).filter(({ role }) => role === "bank");
  return (
    <div className="col-span-2 flex flex-wrap items-end gap-5">
      <CheckField name="book">Book the purchase with it</CheckField>
      {book && (
        <>
          <CheckField name="ownPaper">On a paper of our own</CheckField>
          <ChoiceField name="paidThrough" label="Paid" className="w-[200px]">
            <option value="">not yet, it is owed</option>
            {accounts.map(({ code, name }) => (
              <option key={code} value={code}>
                {code} {name}
              </option>
            ))}
          </ChoiceField>
        </>
      )}
    </div>
  );
}

/** A lot becomes pieces of their own; the price goes to them by value. */
export function SplitDialog({ piece, onClose }: { piece: PieceView; onClose: () => void }) {
  const { client, minorDigits: digits } = useScope();
  const part = { name: piece.name, identifier: "", value: "" };
  const dialog = useBodyForm({
    values: { on: today(), parts: [part, { ...part }] },
    schema: splitBody,
    body: ({ on, parts }) => ({
      on,
      parts: parts.map(({ value, ...rest }) => ({ ...rest, value: plainAmount(value) || "0" })),
    }),
    send: (body) => api.post("/clients/:id/pieces/:no/split", [client?.id, piece.no], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog of={dialog} title={`Split piece ${pieceNo(piece.no)}`} action="Split" wide onClose={onClose}>
      <p className="quiet mb-3">
        {displayAmount(piece.price ?? 0, digits)} is shared among the parts in proportion to what each is
        worth; what is left over goes to the largest.
      </p>
      <DayField name="on" label="On" className="w-[160px]" />
      <Parts part={part} />
    </BodyDialog>
  );
}

function Parts({ part }: { part: { name: string; identifier: string; value: string } }) {
  const { control } = useFormContext();
  const { fields, append, remove } = useFieldArray({ control, name: "parts" });
  return (
    <>
      {fields.map((field, index) => (
        <div key={field.id} className="mt-2 flex items-end gap-3">
          <TextField name={`parts.${index}.name`} label={`Part ${index + 1}`} className="flex-1" />
          <TextField name={`parts.${index}.identifier`} label="Mark" className="w-[130px]" />
          <TextField name={`parts.${index}.value`} label="Worth" inputMode="decimal" className="w-[110px]" />
          <button
            type="button"
            className="word-link pb-1.5"
            disabled={fields.length <= 2}
            onClick={() => remove(index)}
          >
            Remove
          </button>
        </div>
      ))}
      <button type="button" className="word-link mt-2" onClick={() => append(part)}>
        One more part
      </button>
    </>
  );
}

/** Several pieces that are sold as one. */
export function JoinDialog({
  nos,
  onClose,
  onSaved,
}: {
  nos: number[];
  onClose: () => void;
  onSaved: (piece: PieceView) => void;
}) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { on: today(), name: "" },
    schema: joinBody,
    body: (typed) => ({ ...typed, pieces: nos }),
    send: (body) => api.post("/clients/:id/pieces/join", [client?.id], body),
    refresh: keys.client(client?.id),
    onSaved,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Join ${plural(nos.length, "piece")} into a set`}
      action="Join"
      onClose={onClose}
    >
      <p className="quiet mb-3">
        {nos.map(pieceNo).join(", ")}: sold in one price, with one margin over the sum of what they cost.
      </p>
      <div className="grid gap-3">
        <TextField name="name" label="What the set is called" />
        <DayField name="on" label="On" />
      </div>
    </BodyDialog>
  );
}

/** What became of a piece that was not sold. */
export function EndDialog({ piece, onClose }: { piece: PieceView; onClose: () => void }) {
  const { client } = useScope();
  const dialog = useBodyForm({
    values: { kind: "scrapped", on: today(), reason: "" },
    schema: endBody,
    body: (typed) => typed,
    send: (body) => api.post("/clients/:id/pieces/:no/end", [client?.id, piece.no], body),
    refresh: keys.client(client?.id),
    onSaved: onClose,
  });
  return (
    <BodyDialog
      of={dialog}
      title={`Piece ${pieceNo(piece.no)} is not in stock any more`}
      action="Take out of stock"
      className="grid gap-3"
      onClose={onClose}
    >
      <ChoiceField name="kind" label="What became of it">
        {Object.entries(PIECE_ENDS)
          .filter(([kind]) => kind !== "split")
          .map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
      </ChoiceField>
      <DayField name="on" label="On" />
      <TextField name="reason" label="Reason, evidence" />
    </BodyDialog>
  );
}

/** Off the scheme by choice, with the reason; or back on it. */
export function OffDialog({ piece, onClose }: { piece: PieceView; onClose: () => void }) {
  const { client, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const off = piece.offReason === null;
  const save = useMutation({
    mutationFn: (offReason: string) => {
      const body = { ...bodyOfPiece(piece, digits), offReason };
      return api.put("/clients/:id/pieces/:no", [client?.id, piece.no], body);
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  if (!off) {
    return (
      <FormDialog
        title={`Piece ${pieceNo(piece.no)} on the scheme`}
        action="Put on the scheme"
        pending={save.isPending}
        error={save.error}
        onClose={onClose}
        onSubmit={() => save.mutate("")}
      >
        <p>
          It was off because: {piece.offReason}. Where its kind or the tax on its bill keeps it off, it stays
          off.
        </p>
      </FormDialog>
    );
  }
  return (
    <ReasonDialog
      open
      title={`Piece ${pieceNo(piece.no)} off the scheme`}
      label="Why"
      action="Take off"
      onClose={onClose}
      onReason={save.mutate}
    >
      Its sale bears tax on the whole price, and the customer can deduct it.
    </ReasonDialog>
  );
}

/** Purchases that are in no piece yet. */
export function TakeInDialog({ onClose }: { onClose: () => void }) {
  const { client, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { data: lines = [] } = useQuery({
    queryKey: keys.of(client?.id, "pieces", "unlisted"),
    queryFn: () => api.get("/clients/:id/pieces/unlisted", [client?.id]),
  });
  const key = ({ document, line }: UnlistedLine) => `${document}/${line}`;
  const chosen = lines.filter((line) => !left.has(key(line)));
  const take = useMutation({
    mutationFn: () =>
      api.post("/clients/:id/pieces/take-in", [client?.id], {
        lines: chosen.map(({ document, line }) => ({ document, line })),
      }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      onClose();
    },
  });
  return (
    <FormDialog
      title="Take purchases into the stock book"
      action={`Take in ${chosen.length}`}
      pending={take.isPending || chosen.length === 0}
      error={take.error}
      wide
      onClose={onClose}
      onSubmit={() => take.mutate()}
    >
      <p className="quiet mb-2">
        Each line becomes a piece with the day, the price and the seller of its bill. Marks and addresses are
        filled in piece by piece.
      </p>
      <div className="max-h-[46vh] overflow-auto">
        <table className="sheet-table">
          <tbody>
            {lines.map((line) => (
              <tr key={key(line)}>
                <td className="w-[28px]">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    aria-label={`Take in ${line.number}, ${line.text}`}
                    checked={!left.has(key(line))}
                    onChange={() => {
                      const next = new Set(left);
                      if (!next.delete(key(line))) next.add(key(line));
                      setLeft(next);
                    }}
                  />
                </td>
                <td>{showDate(line.date)}</td>
                <td className="font-mono text-[12.5px]">{line.number}</td>
                <td>{line.party}</td>
                <td>{line.text}</td>
                <td className="num">{displayAmount(line.net, digits)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </FormDialog>
  );
}

/** Pieces from a CSV file, all or nothing. */
export function ImportDialog({ file, onClose }: { file: File; onClose: () => void }) {
  const { client } = useScope();
  const queries = useQueryClient();
  const [on, setOn] = useState("");
  const read = useMutation({
    mutationFn: () => {
      const form = new FormData();
      form.append("file", file);
      return api.post("/clients/:id/pieces/import", [client?.id], form, on === "" ? {} : { on });
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.client(client?.id) }),
  });
  return (
    <FormDialog
      title={`Pieces from ${file.name}`}
      action={read.data ? "Done" : "Import"}
      pending={read.isPending}
      error={read.error}
      onClose={onClose}
      onSubmit={() => (read.data ? onClose() : read.mutate())}
    >
      {read.data ? (
        <p role="status">{plural(read.data.taken, "piece")} taken in.</p>
      ) : (
        <>
          <p className="quiet mb-3">
            Columns: name, identifier, kind, boughtOn, price, purchaseNumber, seller, sellerAddress,
            offReason, note. One row that does not fit stops all of it.
          </p>
          <DateField
            label="Book their cost as opening balance of"
            value={on}
            optional
            onChange={setOn}
            className="w-[180px]"
          />
        </>
      )}
    </FormDialog>
  );
}
