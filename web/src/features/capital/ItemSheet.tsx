import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { CapitalItemsView, CapitalItemView, CapitalStretch } from "@fiscalon/contract/capitalItems";
import { CAPITAL_ENDS } from "@fiscalon/core/model/capitalItem";
import { api } from "../../api/client.ts";
import { seenOf } from "../../api/seen.ts";
import { keys } from "../../api/keys.ts";
import { useScope } from "../../app/scope.ts";
import { ErrorNote } from "../../kit/ErrorNote.tsx";
import { Figure } from "../../kit/Figure.tsx";
import { bodyOfItem, sumOf } from "./itemWords.ts";

/** A capital item year by year: the share of its use, what it adjusts, and on which return. */
export function ItemSheet({ item, onChange }: { item: CapitalItemView; onChange: () => void }) {
  const { client, registration, minorDigits: digits } = useScope();
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: keys.client(client?.id) });
  const read = () =>
    queries
      .getQueryData<CapitalItemsView>(keys.of(client?.id, "capital-items", registration?.id))
      ?.items.find(({ no }) => no === item.no) ?? item;
  // One share after the other: each is put into the item as it was read after the one before.
  const keep = useMutation({
    scope: { id: `uses-of-capital-item-${item.no}` },
    mutationFn: ({ to, typed }: { to: string; typed: string }) => {
      const now = read();
      const { [to]: _before, ...others } = now.uses;
      const uses = typed === "" ? others : { ...others, [to]: typed };
      return api.put(
        "/clients/:id/registrations/:rid/capital-items/:no",
        [client?.id, registration?.id, item.no],
        { ...bodyOfItem(now, digits), uses },
        seenOf(now),
      );
    },
    onSettled: refresh,
  });
  const remove = useMutation({
    mutationFn: () =>
      api.delete(
        "/clients/:id/registrations/:rid/capital-items/:no",
        [client?.id, registration?.id, item.no],
        {},
        seenOf(item),
      ),
    onSettled: refresh,
  });
  const type = (to: string, typed: string) => {
    const { [to]: before = "" } = item.uses;
    if (typed !== before) keep.mutate({ to, typed });
  };
  return (
    <>
      {item.stretches.length > 0 && (
        <table className="sheet-table max-w-2xl text-[13px]">
          <thead>
            <tr>
              <th>Use</th>
              <th>Share, %</th>
              <th>On the return to</th>
              <th className="num">Adjusts</th>
            </tr>
          </thead>
          <tbody>
            {item.stretches.map((one) => (
              <tr key={one.to}>
                <td className="whitespace-nowrap">
                  {displayDate(one.from)} to {displayDate(one.to)}
                </td>
                <td>
                  <input
                    className="input input-xs w-20 text-right"
                    aria-label={`Share of use to ${displayDate(one.to)}, percent`}
                    inputMode="decimal"
                    defaultValue={one.share ?? ""}
                    key={`${one.to}/${one.share ?? ""}`}
                    onBlur={({ target }) => type(one.to, target.value.trim())}
                    onKeyDown={({ key, currentTarget }) => {
                      if (key === "Enter") currentTarget.blur();
                    }}
                  />
                </td>
                <td className="whitespace-nowrap">
                  {one.reported === null ? "none" : displayDate(one.reported)}
                </td>
                <td className="num">
                  <Adjusted item={item} stretch={one} at={one.to} />
                </td>
              </tr>
            ))}
            {item.rest && (
              <tr>
                <td>the rest, to {displayDate(item.rest.to)}</td>
                <td className="num">{item.rest.share} %</td>
                <td>{item.rest.reported === null ? "none" : displayDate(item.rest.reported)}</td>
                <td className="num">
                  <Adjusted item={item} stretch={item.rest} at={item.rest.from} />
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {item.ended && (
        <p className="mt-2">
          {displayDate(item.ended.on)}: {CAPITAL_ENDS[item.ended.how]}.
        </p>
      )}
      <ErrorNote error={keep.error ?? remove.error} />
      <p className="mt-2 flex gap-4">
        <button type="button" className="word-link" onClick={onChange}>
          Change …
        </button>
        <button
          type="button"
          className="word-link"
          disabled={remove.isPending}
          onClick={() => remove.mutate()}
        >
          Take off the list
        </button>
      </p>
    </>
  );
}

/** What a stretch adjusts, with its step of the workpaper. */
function Adjusted({ item, stretch, at }: { item: CapitalItemView; stretch: CapitalStretch; at: string }) {
  const { registration, minorDigits: digits } = useScope();
  const { reported, amounts } = stretch;
  const [levy] = Object.keys(amounts);
  return (
    <Figure
      amount={sumOf(amounts)}
      digits={digits}
      dash
      of={
        levy === undefined || reported === null || !registration
          ? null
          : `scheme/${registration.id}/${reported}/item-${item.no}-${at}-${levy}`
      }
      label={`Item ${item.no}, use to ${displayDate(at)},`}
    />
  );
}
