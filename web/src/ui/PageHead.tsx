import type { ReactNode } from "react";

interface Props {
  title: string;
  /** One sentence under it. */
  lead: ReactNode;
  /** What can be done here, and where else to go. */
  children?: ReactNode;
}

/** The head of a place: its name, a sentence, and at its right what can be done there. */
export function PageHead({ title, lead, children }: Props) {
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-8">
      <div>
        <h1>{title}</h1>
        <p className="text-row text-soft">{lead}</p>
      </div>
      {children && <div className="no-print flex flex-wrap items-baseline gap-6">{children}</div>}
    </div>
  );
}
