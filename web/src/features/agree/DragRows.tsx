import { DndContext, DragOverlay, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useState } from "react";
import type { ReactNode } from "react";

/** Rows inside are dragged to causes; what is dragged goes along under the pointer by its name. */
export function DragRows({ children }: { children: ReactNode }) {
  const [name, setName] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => setName(String(active.data.current?.["name"] ?? ""))}
      onDragEnd={() => setName(null)}
      onDragCancel={() => setName(null)}
    >
      {children}
      <DragOverlay dropAnimation={null}>
        {name !== null && (
          <span className="inline-block whitespace-nowrap rounded bg-base-100 px-3 py-1 text-[13px] shadow">
            {name}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}
