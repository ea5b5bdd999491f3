import { useDroppable } from "@dnd-kit/core";
import clsx from "clsx";

/** What dropping rows on it, or choosing it for the chosen ones, does: a cause by its name, or a new one. */
export const NEW_CAUSE = "";

/** The causes people named before, to drop rows on or to choose for those that are chosen. */
export function CauseChips({
  named,
  active,
  onChoose,
}: {
  named: readonly string[];
  /** Rows are chosen: the chips can be pressed. */
  active: boolean;
  onChoose: (cause: string) => void;
}) {
  return (
    <div
      className="flex flex-wrap items-center gap-2 py-1.5 pl-6"
      role="group"
      aria-label="Causes to drop rows on"
    >
      <span className="quiet text-[12.5px]">Drag rows to a cause, or choose them and press it:</span>
      {[...named, NEW_CAUSE].map((cause) => (
        <Chip key={cause} cause={cause} active={active} onChoose={onChoose} />
      ))}
    </div>
  );
}

function Chip({
  cause,
  active,
  onChoose,
}: {
  cause: string;
  active: boolean;
  onChoose: (cause: string) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: `cause ${cause}`, data: { cause } });
  return (
    <button
      ref={setNodeRef}
      type="button"
      disabled={!active}
      className={clsx(
        "rounded-full border border-base-content/40 px-3 py-0.5 text-[13px]",
        isOver ? "bg-primary text-primary-content" : active ? "hover:bg-base-200" : "border-dashed",
      )}
      onClick={() => onChoose(cause)}
    >
      {cause === NEW_CAUSE ? "New cause …" : cause}
    </button>
  );
}
