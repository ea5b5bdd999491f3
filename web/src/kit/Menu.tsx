import clsx from "clsx";
import { Check } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

const ITEM =
  "flex cursor-pointer items-center gap-2 rounded-[2px] px-2.5 py-1.5 outline-none data-[highlighted]:bg-accent";

/** A button that opens a list of things to do; arrows move in it, a letter finds, Escape closes. */
export function Menu({
  name,
  trigger,
  className,
  children,
}: {
  /** What a button is called that shows no words. */
  name?: string;
  trigger: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger aria-label={name} className={clsx("cursor-pointer", className)}>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-[70vh] min-w-[180px] overflow-y-auto rounded border border-base-300 bg-base-100 p-1 text-base-content shadow-lg"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function MenuItem({
  onSelect,
  disabled = false,
  children,
}: {
  onSelect: () => void;
  disabled?: boolean;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Item
      className={clsx(ITEM, disabled && "opacity-50")}
      disabled={disabled}
      onSelect={onSelect}
    >
      {children}
    </DropdownMenu.Item>
  );
}

/** Something that is on or off; the menu stays open. */
export function MenuCheck({
  checked,
  onChange,
  disabled = false,
  children,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.CheckboxItem
      className={clsx(ITEM, disabled && "opacity-50")}
      checked={checked}
      disabled={disabled}
      onCheckedChange={onChange}
      onSelect={(event) => event.preventDefault()}
    >
      <span className="w-4">
        <DropdownMenu.ItemIndicator>
          <Check size={14} aria-hidden />
        </DropdownMenu.ItemIndicator>
      </span>
      {children}
    </DropdownMenu.CheckboxItem>
  );
}

export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 border-t border-base-300" />;
}
