import clsx from "clsx";
import { useRef, useState } from "react";
import type { ReactNode } from "react";

const NARROWEST = 280;
const WIDEST = 620;

/** A panel at the right edge; its left border is dragged, or moved with the arrow keys, to change the width. */
export function SidePanel({
  name,
  initial = 356,
  yields = false,
  children,
}: {
  name: string;
  initial?: number;
  /** Something else is looked at now: where there is little room it makes way. */
  yields?: boolean;
  children: ReactNode;
}) {
  const key = `fiscalon.width.${name}`;
  const [width, setWidth] = useState(Number(localStorage.getItem(key) ?? initial));
  const from = useRef<{ x: number; width: number } | null>(null);
  const change = (next: number) => {
    const held = Math.min(WIDEST, Math.max(NARROWEST, next));
    setWidth(held);
    localStorage.setItem(key, String(held));
  };
  return (
    <div
      className={clsx("no-print relative shrink-0 border-l border-base-300", yields && "max-[1439px]:hidden")}
      style={{ width }}
    >
      <div
        role="separator"
        aria-orientation="vertical"
        aria-label={`Width of ${name}`}
        aria-valuenow={width}
        aria-valuemin={NARROWEST}
        aria-valuemax={WIDEST}
        tabIndex={0}
        className="absolute top-0 -left-[3px] z-10 h-full w-[6px] cursor-col-resize hover:bg-primary/30 focus-visible:bg-primary/40"
        onPointerDown={(event) => {
          from.current = { x: event.clientX, width };
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={(event) => from.current && change(from.current.width + from.current.x - event.clientX)}
        onPointerUp={() => (from.current = null)}
        onKeyDown={(event) => {
          if (event.key === "ArrowLeft") change(width + 20);
          if (event.key === "ArrowRight") change(width - 20);
        }}
      />
      {children}
    </div>
  );
}
