import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { keys } from "../../api/keys.ts";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useNavigate, useParams } from "react-router";
import { minorDigits } from "@fiscalon/core/money/currency";
import { formatAmount } from "@fiscalon/core/money/amount";
import type { PaymentKind } from "@fiscalon/core/model/paymentKinds";
import type { OpenItem, PaymentView } from "@fiscalon/contract/payments";
import type { ContactView } from "@fiscalon/contract/views";
import { useScope } from "../../app/scope.ts";
import { api } from "../../api/client.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { showMoment } from "../../kit/format.ts";
import { Sheet } from "../../kit/Sheet.tsx";
import { ReasonDialog } from "../../kit/ReasonDialog.tsx";
import { useContacts, usePlainSetup } from "../../app/records.ts";
import { AllocationGrid } from "./AllocationGrid.tsx";
import { PaymentHead } from "./PaymentHead.tsx";
import {
  blankPayment,
  bodyOfPayment,
  draftOfPayment,
  NO_ALLOCATION,
  oldestFirst,
  restOf,
} from "./paymentDraft.ts";
import type { PaymentDraft } from "./paymentDraft.ts";
import { Waiting } from "../../kit/Waiting.tsx";

/** Opens a payment, or a blank one, once everything it needs is there. */
export function PaymentEditorPage() {
  const { paymentId, kind, contactId, documentId } = useParams();
  const { client } = useScope();
  const setup = usePlainSetup();
  const { data: payment } = useQuery({
    queryKey: keys.of(client?.id, "payment", paymentId),
    queryFn: ({ signal }) => api.get("/clients/:id/payments/:payment", [client?.id, paymentId], {}, signal),
    enabled: client !== undefined && paymentId !== undefined,
  });
  const { data: first } = useQuery({
    queryKey: keys.of(client?.id, "open-items", "first", contactId, documentId),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/open-items", [client?.id], { contact: contactId, document: documentId }, signal),
    enabled: client !== undefined && documentId !== undefined,
  });
  if (!setup || (paymentId && !payment) || (documentId && !first)) return <Waiting what="the payment" />;
  const bank = setup.accounts.find(({ role }) => role === "bank");
  const item = first?.rows.find(({ document }) => String(document) === documentId);
  const blank = blankPayment(
    (kind === "payment" ? "payment" : "receipt") satisfies PaymentKind,
    bank ? bank.code : "",
  );
  const initial = payment
    ? draftOfPayment(payment, setup.currency)
    : item
      ? settling(blank, item, setup.currency)
      : blank;
  return (
    <Editor
      key={paymentId ?? `${kind} ${documentId}`}
      payment={payment ?? null}
      initial={initial}
      settles={item ? [item] : []}
    />
  );
}

function settling(blank: PaymentDraft, item: OpenItem, base: string): PaymentDraft {
  const amount = formatAmount(item.open, minorDigits(item.currency));
  return {
    ...blank,
    contact: item.contact === null ? null : { id: item.contact, name: item.party },
    amount,
    currency: item.currency === base ? "" : item.currency,
    allocations: { [item.document]: { ...NO_ALLOCATION, amount } },
  };
}

function Editor({
  payment,
  initial,
  settles,
}: {
  payment: PaymentView | null;
  initial: PaymentDraft;
  /** What a new one is begun for. */
  settles: readonly OpenItem[];
}) {
  const { client, path } = useScope();
  const setup = usePlainSetup();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [draft, setDraft] = useState(initial);
  const [search, setSearch] = useState("");
  const [voiding, setVoiding] = useState(false);
  const [posted, setPosted] = useState<PaymentView | null>(null);
  const { data: contacts = [] } = useContacts(search);
  const [number, setNumber] = useState("");
  const [settled, setSettled] = useState(settles);
  const asked = { contact: draft.contact?.id, search: number, limit: SHOWN };
  const { data: open } = useQuery({
    queryKey: keys.of(client?.id, "open-items", "of", asked),
    queryFn: ({ signal }) => api.get("/clients/:id/open-items", [client?.id], asked, signal),
    enabled: client !== undefined,
    placeholderData: (before) => before,
  });
  const base = setup?.currency ?? "";
  const currency = draft.currency || base;
  const digits = minorDigits(currency);
  const all = itemsOf(open?.rows ?? [], payment, settled);
  const items = all.filter((one) => one.currency === currency);
  const readOnly = payment !== null && (payment.locked !== null || payment.state !== "posted");
  const rest = restOf(draft, items, digits);
  const update = (change: Partial<PaymentDraft>) => {
    setPosted(null);
    setDraft((now) => ({ ...now, ...change }));
  };
  const save = useMutation({
    mutationFn: () =>
      payment
        ? api.put("/clients/:id/payments/:payment", [client?.id, payment.id], bodyOfPayment(draft))
        : api.post("/clients/:id/payments", [client?.id], bodyOfPayment(draft)),
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
      if (payment) await navigate(path(`books/payments/${saved.id}`), { replace: true });
      else {
        setSettled([]);
        setDraft({ ...blankPayment(draft.kind, draft.account), date: draft.date });
        setPosted(saved);
      }
    },
  });
  const takeOut = useMutation({
    mutationFn: (reason: string) =>
      api.post("/clients/:id/payments/:payment/void", [client?.id, payment?.id], { reason }),
    onSuccess: async () => {
      setVoiding(false);
      await queries.invalidateQueries({ queryKey: keys.client(client?.id) });
    },
    onError: () => setVoiding(false),
  });
  const idle = readOnly || save.isPending || (payment !== null && draft === initial);
  useHotkeys("mod+enter", () => !idle && save.mutate(), { enableOnFormTags: true, preventDefault: true });
  const name = draft.kind === "receipt" ? "Receipt" : "Payment";
  return (
    <Sheet
      title={name}
      aside={payment ? `${payment.number}${payment.state === "posted" ? "" : ` · ${payment.state}`}` : "new"}
      actions={
        readOnly ? undefined : (
          <>
            {payment && (
              <button type="button" className="action" onClick={() => setVoiding(true)}>
                Take out
              </button>
            )}
            <button type="button" className="action main" disabled={idle} onClick={() => save.mutate()}>
              {payment ? "Save correction" : "Post"}{" "}
              <kbd className="rounded border border-current px-1 font-mono text-[11px] opacity-80">
                Ctrl ⏎
              </kbd>
            </button>
          </>
        )
      }
    >
      {posted && (
        <p role="status" className="note-row mb-3">
          Posted {name.toLowerCase()} <strong>{posted.number}</strong>.
        </p>
      )}
      {payment && <Facts payment={payment} />}
      <ErrorNote error={save.error ?? takeOut.error} />
      <PaymentHead
        draft={draft}
        contacts={contacts}
        accounts={setup?.accounts ?? []}
        base={base}
        currencies={[...new Set([base, currency, ...all.map((one) => one.currency)])]}
        readOnly={readOnly}
        onSearch={setSearch}
        onChange={update}
        onContact={(contact: ContactView | null) => {
          setSettled([]);
          setNumber("");
          update({ contact: contact && { id: contact.id, name: contact.name }, allocations: {} });
        }}
      />
      <AllocationGrid
        draft={draft}
        items={items}
        accounts={setup?.accounts ?? []}
        digits={digits}
        rest={rest}
        readOnly={readOnly}
        total={open?.total ?? 0}
        shown={open?.rows.length ?? 0}
        number={number}
        onNumber={setNumber}
        onAllocations={(allocations) => {
          setSettled(items.filter(({ document }) => document in allocations));
          update({ allocations });
        }}
        onOldestFirst={() => update({ allocations: oldestFirst(draft, items, digits) })}
      />
      <ReasonDialog
        open={voiding}
        title={`Take ${draft.number} out of the books`}
        label="Why"
        action="Take out"
        onClose={() => setVoiding(false)}
        onReason={(reason) => takeOut.mutate(reason)}
      >
        The documents it settles are open again, and what it made reportable is not reported. The payment and
        this reason stay on record.
      </ReasonDialog>
    </Sheet>
  );
}

/** So many of the oldest are shown at once. */
const SHOWN = 200;

/** What is open, and what this payment already settles, or what is typed into now: those first. */
function itemsOf(
  open: readonly OpenItem[],
  payment: PaymentView | null,
  settled: readonly OpenItem[],
): OpenItem[] {
  const allocations = payment?.state === "posted" ? payment.allocations : [];
  const beyond = settled.filter((one) => !open.some(({ document }) => document === one.document));
  const known = new Set(allocations.map(({ document }) => document));
  return [...allocations, ...[...beyond, ...open].filter(({ document }) => !known.has(document))];
}

function Facts({ payment }: { payment: PaymentView }) {
  return (
    <div className="mb-4 space-y-1 text-[13px]">
      {payment.locked && (
        <p className="note-row">
          What it made reportable is on the return to {displayDate(payment.locked.period)}, which is{" "}
          {payment.locked.state}. It cannot be changed; record a payment the other way instead.
        </p>
      )}
      <ul className="quiet flex flex-wrap gap-x-4">
        {payment.history.map(({ at, by, what }) => (
          <li key={`${at} ${what}`}>
            {what} by {by}, {showMoment(at)}
          </li>
        ))}
      </ul>
    </div>
  );
}
