import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

/** One for the whole application: how long the pointer rests before a tip comes. */
export function TipProvider({ children }: { children: ReactNode }) {
  return <Tooltip.Provider delayDuration={350}>{children}</Tooltip.Provider>;
}

/**
 * More words for what has room for few: they come when the pointer rests on it, or the keyboard is there, and are read
 * out with it. What is no control by itself gets a place in the order of the keyboard.
 */
export function Tip({
  words,
  control = false,
  reached = true,
  className,
  children,
}: {
  words: ReactNode;
  /** The child is a control of its own. */
  control?: boolean;
  /** Whether the keyboard stops here; not in the rows of long lists. */
  reached?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        {control ? (
          children
        ) : (
          <span tabIndex={reached ? 0 : undefined} className={className}>
            {children}
          </span>
        )}
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={5}
          collisionPadding={8}
          className="z-50 max-w-[360px] rounded bg-neutral px-2.5 py-1.5 text-[12.5px] text-neutral-content shadow-lg"
        >
          {words}
          <Tooltip.Arrow className="fill-neutral" />
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
