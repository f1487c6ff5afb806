import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

/** A short list of actions behind a mark. */
export function Menu({
  label,
  trigger,
  children,
}: {
  label: string;
  trigger: ReactNode;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger aria-label={label} className="min-h-6 min-w-6 px-1 text-soft hover:text-ink">
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" className="z-50 min-w-56 border-y-2 border-ink bg-lit py-1">
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function MenuItem({
  onSelect,
  hint,
  disabled = false,
  children,
}: {
  onSelect: () => void;
  hint?: string;
  disabled?: boolean;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      disabled={disabled}
      className="flex min-h-8 items-center justify-between gap-8 px-4 text-label outline-none data-[disabled]:text-soft data-[highlighted]:bg-shade"
    >
      {children}
      {hint && <kbd className="font-sans text-hint text-soft">{hint}</kbd>}
    </DropdownMenu.Item>
  );
}
