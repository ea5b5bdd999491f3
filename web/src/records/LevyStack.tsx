import { textAt } from "@fiscalon/core/at";
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import type { DragEndEvent } from "@dnd-kit/core";
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import clsx from "clsx";
import { usePacks } from "../api/packs.ts";
import type { Packs } from "@fiscalon/core/model/packs";
import type { Component, TaxCode } from "@fiscalon/core/model/taxCode";

const TONES = [
  "bg-primary text-primary-content",
  "bg-warning text-warning-content",
  "bg-info text-info-content",
];

/** What a stack shows of a levy: its name and its rate in force, as text. */
export interface StackPart {
  component: Component;
  rate: string;
  width: number;
}

/**
 * The levies of a code as a stack in the order in which they are charged. Dragged, or moved with space and the arrow
 * keys, to another place, they are charged in another order.
 */
export function LevyStack({
  code,
  parts,
  onReorder,
}: {
  code: TaxCode;
  parts: readonly StackPart[];
  onReorder?: ((components: Component[]) => void) | undefined;
}) {
  const packs = usePacks();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = parts.map((_, index) => `${code.code}/${index}`);
  const moved = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const from = ids.indexOf(String(active.id));
    const to = ids.indexOf(String(over.id));
    onReorder?.(
      arrayMove(
        parts.map(({ component }) => component),
        from,
        to,
      ),
    );
  };
  if (!onReorder || parts.length < 2) {
    return (
      <span className="flex flex-wrap items-center gap-0.5">
        {parts.map((part, index) => (
          <span
            key={index}
            className={clsx(blockClass(part, index), "max-w-full")}
            style={{ minWidth: part.width }}
          >
            {blockText(part, packs)}
          </span>
        ))}
      </span>
    );
  }
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        <span className="flex flex-wrap items-center gap-0.5">
          {parts.map((part, index) => (
            <Block key={ids[index]} id={textAt(ids, index)} part={part} index={index} />
          ))}
        </span>
      </SortableContext>
    </DndContext>
  );
}

function Block({ id, part, index }: { id: string; part: StackPart; index: number }) {
  const packs = usePacks();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`${blockText(part, packs)}, ${index + 1} in the order of charging; space picks it up, arrows move it`}
      className={clsx(blockClass(part, index), "cursor-grab whitespace-nowrap")}
      style={{ transform: CSS.Transform.toString(transform), transition, minWidth: part.width }}
    >
      {blockText(part, packs)}
    </button>
  );
}

function blockClass({ component }: StackPart, index: number): string {
  const bare = component.rate.kind === "none" || component.rate.kind === "typed";
  return clsx(
    "inline-block rounded-[2px] px-1.5 py-0.5 text-left text-[11.5px]",
    bare ? "border border-base-300" : TONES[index % TONES.length],
    component.charged !== "charged" &&
      "border border-dashed border-base-content bg-transparent !text-base-content",
  );
}

function blockText({ component, rate }: StackPart, packs: Packs): string {
  const charged = { charged: "", "self-assessed": ", self-assessed", "declared-only": ", shown only" };
  return `${packs.levyName(component.levy)}${rate === "" ? "" : ` ${rate}`}${charged[component.charged]}`;
}
