import { Dialog as Radix } from "radix-ui";
import { type ReactNode, useRef } from "react";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  /** One sentence under the title. */
  lead?: ReactNode;
  /** For a table beside a table. */
  wide?: boolean;
  children: ReactNode;
}

/** A sheet laid over the page. */
export function Dialog({ open, onOpenChange, title, lead, wide = false, children }: Props) {
  // Opened from anywhere, it gives the focus back to where it came from.
  const cameFrom = useRef<Element | null>(null);
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-shade/80" />
        <Radix.Content
          className={`fixed left-1/2 top-[8vh] z-50 max-h-[84vh] -translate-x-1/2 overflow-y-auto border-y-2 border-ink bg-paper px-10 py-8 ${wide ? "w-[min(1080px,96vw)]" : "w-[min(760px,92vw)]"}`}
          onOpenAutoFocus={() => {
            cameFrom.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            if (!(cameFrom.current instanceof HTMLElement) || !cameFrom.current.isConnected) return;
            event.preventDefault();
            cameFrom.current.focus();
          }}
          {...(lead ? {} : { "aria-describedby": undefined })}
        >
          <Radix.Title className="text-heading font-[350]">{title}</Radix.Title>
          {lead && <Radix.Description className="mt-1 text-body text-soft">{lead}</Radix.Description>}
          {children}
          <Radix.Close className="absolute right-6 top-6 border-b border-ink px-1 text-label">
            Close <kbd className="font-sans text-hint text-soft">Esc</kbd>
          </Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
