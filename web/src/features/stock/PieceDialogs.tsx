import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useWatch } from "react-hook-form";
import { boughtPieceBody, endBody, pieceBody } from "@fiscalon/contract/stockBook";
import type { PiecePage, PieceView } from "@fiscalon/contract/stockBook";
import { PIECE_ENDS } from "@fiscalon/core/model/stockBook";
import { formatAmount } from "@fiscalon/core/money/amount";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { BodyDialog } from "../../kit/BodyDialog.tsx";
import { FormDialog } from "../../kit/FormDialog.tsx";
import { plainAmount, today } from "../../kit/format.ts";
import { CheckField, ChoiceField, DayField, TextField } from "../../kit/formFields.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { useBodyForm } from "../../kit/useBodyForm.ts";
import { usePlainSetup } from "../../app/records.ts";
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
    seen: seenOf(piece),
    send: (body, _typed, seen) =>
      piece === null
        ? api.post("/clients/:id/pieces", [client?.id], body)
        : api.put("/clients/:id/pieces/:no", [client?.id, piece.no], body, seen),
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
  const accounts = (usePlainSetup()?.accounts ?? []).filter(({ role }) => role === "bank");
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
      return api.put("/clients/:id/pieces/:no", [client?.id, piece.no], body, seenOf(piece));
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
