import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { capitalItemsOf } from "@fiscalon/core/model/capitalItem";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { CapitalItemView, CapitalSuggestion } from "@fiscalon/contract/capitalItems";
import { displayAmount } from "@fiscalon/core/money/amount";
import { api, filled, withQuery } from "../../api/client.ts";
import { keys } from "../../api/keys.ts";
import { usePacks } from "../../api/packs.ts";
import { BooksNav } from "../../app/BooksNav.tsx";
import { LedgerNav } from "../../app/LedgerNav.tsx";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { EmptyState, Sheet } from "../../kit/Sheet.tsx";
import { ItemDialog } from "./ItemDialog.tsx";
import { ItemSheet } from "./ItemSheet.tsx";
import { sumOf } from "./itemWords.ts";

/** The list of capital items of a registration: what their tax was, how they are used, and what each year adjusts. */
export function CapitalPage() {
  const { client, registration, path, minorDigits: digits } = useScope();
  const packs = usePacks();
  const rule = registration ? capitalItemsOf(packs.byId(registration.pack), registration.levies) : undefined;
  const [open, setOpen] = useState<number | null>(null);
  const [typing, setTyping] = useState<CapitalItemView | CapitalSuggestion | "new" | null>(null);
  const { data, error } = useQuery({
    queryKey: keys.of(client?.id, "capital-items", registration?.id),
    queryFn: ({ signal }) =>
      api.get("/clients/:id/registrations/:rid/capital-items", [client?.id, registration?.id], {}, signal),
    enabled: rule !== undefined,
  });
  if (!registration || !rule) {
    return (
      <Sheet title="Capital items" actions={<BooksNav />}>
        <LedgerNav />
        <EmptyState title="No tax follows the use of capital items here">
          The law of this registration deducts it once, or the jurisdiction has no rule for it yet.
        </EmptyState>
      </Sheet>
    );
  }
  const file = (format: string) =>
    `/api${withQuery(filled("/clients/:id/registrations/:rid/capital-items/export", [client?.id, registration?.id]), { format })}`;
  const kindOf = (id: string) => rule.kinds.find((kind) => kind.id === id)?.name ?? id;
  return (
    <Sheet title="Capital items" lead={`${rule.says} (${rule.source})`} actions={<BooksNav />}>
      <LedgerNav />
      <div className="mb-3 flex flex-wrap items-center gap-4">
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setTyping("new")}>
          New item
        </button>
        {(data?.items.length ?? 0) > 0 &&
          ["csv", "xlsx", "pdf"].map((format) => (
            <a key={format} className="word-link" href={file(format)} download>
              {format.toUpperCase()}
            </a>
          ))}
      </div>
      <ErrorNote error={error} />
      {data?.items.length === 0 && (
        <p className="quiet max-w-xl">
          Nothing is on the list. Items that were in use before these books belong here too, with the share
          that was deducted at first.
        </p>
      )}
      {data && data.items.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th className="num">No</th>
              <th>Item</th>
              <th>In use from</th>
              <th>Adjusted to</th>
              <th className="num">Cost</th>
              <th className="num">Tax</th>
              <th className="num">At first</th>
            </tr>
          </thead>
          <tbody>
            {data.items.map((item) => (
              <ItemRows
                key={item.no}
                item={item}
                kind={kindOf(item.kind)}
                open={open === item.no}
                onOpen={() => setOpen(open === item.no ? null : item.no)}
                onChange={() => setTyping(item)}
              />
            ))}
          </tbody>
        </table>
      )}
      {data && data.suggested.length > 0 && (
        <section aria-label="Purchases that may belong here" className="mt-6 max-w-3xl">
          <h2 className="mb-1">Purchases that may belong here</h2>
          <ul>
            {data.suggested.map((one) => (
              <li
                key={`${one.document}/${one.line}`}
                className="flex flex-wrap gap-3 border-b border-base-300 py-1.5"
              >
                <span>{displayDate(one.date)}</span>
                <Link className="word-link font-mono" to={path(`books/documents/${one.document}`)}>
                  {one.number}
                </Link>
                <span>{one.text || `line ${one.line}`}</span>
                <span className="num ml-auto">
                  {displayAmount(one.net, digits)}, tax {displayAmount(sumOf(one.taxes), digits)}
                </span>
                <button type="button" className="word-link" onClick={() => setTyping(one)}>
                  Put on the list …
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {typing !== null && (
        <ItemDialog rule={rule} from={typing} onClose={() => setTyping(null)} onSaved={(no) => setOpen(no)} />
      )}
    </Sheet>
  );
}

function ItemRows({
  item,
  kind,
  open,
  onOpen,
  onChange,
}: {
  item: CapitalItemView;
  kind: string;
  open: boolean;
  onOpen: () => void;
  onChange: () => void;
}) {
  const { minorDigits: digits } = useScope();
  return (
    <>
      <tr>
        <td className="num">{item.no}</td>
        <td>
          <button type="button" className="word-link text-left" aria-expanded={open} onClick={onOpen}>
            {item.name}
          </button>
          <span className="quiet block text-[13px]">
            {kind} {item.evidence !== "" && <span className="font-mono">{item.evidence}</span>}
          </span>
        </td>
        <td className="whitespace-nowrap">{displayDate(item.firstUse)}</td>
        <td className="whitespace-nowrap">{displayDate(item.ended?.on ?? item.until)}</td>
        <td className="num">{displayAmount(item.net, digits)}</td>
        <td className="num">{displayAmount(sumOf(item.taxes), digits)}</td>
        <td className="num">{item.share} %</td>
      </tr>
      {open && (
        <tr>
          <td />
          <td colSpan={6} className="pb-4">
            <ItemSheet item={item} onChange={onChange} />
          </td>
        </tr>
      )}
    </>
  );
}
