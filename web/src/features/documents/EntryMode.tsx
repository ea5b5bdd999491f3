import clsx from "clsx";
import type { PriceMode } from "@fiscalon/core/model/document";

/** How the amounts of a document are typed: with or without tax, by amount or by quantity. */
export function EntryMode({
  prices,
  quantities,
  readOnly,
  onPrices,
  onQuantities,
  onNewItem,
}: {
  prices: PriceMode;
  quantities: boolean;
  readOnly: boolean;
  onPrices: (mode: PriceMode) => void;
  onQuantities: (shown: boolean) => void;
  onNewItem: (() => void) | null;
}) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[13px]">
      <div role="group" aria-label="Prices" className="join">
        {(["exclusive", "inclusive"] as const).map((mode) => (
          <button
            key={mode}
            type="button"
            aria-pressed={prices === mode}
            disabled={readOnly}
            className={clsx(
              "action join-item !min-h-[28px] !py-0.5",
              prices === mode && "bg-neutral text-neutral-content",
            )}
            onClick={() => onPrices(mode)}
          >
            tax-{mode}
          </button>
        ))}
      </div>
      {!readOnly && (
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={quantities}
            onChange={(event) => onQuantities(event.target.checked)}
          />
          quantities, unit prices and discounts
        </label>
      )}
      {!readOnly && onNewItem && (
        <button type="button" className="word-link" onClick={onNewItem}>
          New item
        </button>
      )}
    </div>
  );
}
