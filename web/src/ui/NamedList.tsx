import type { ReactNode } from "react";
import { Link } from "react-router";
import { messageOf } from "../api";
import { Button } from "./Button";

interface Named {
  id: number;
  name: string;
}

interface Props<Row extends Named> {
  /** What the studio has answered so far, a page at a time. */
  asked: {
    data: { pages: readonly { items: readonly Row[] }[] } | undefined;
    error: unknown;
    hasNextPage: boolean;
    fetchNextPage: () => unknown;
  };
  to: (row: Row) => string;
  /** What a row is, in a sentence. */
  said: (row: Row) => ReactNode;
  /** How far it is. */
  state: (row: Row) => ReactNode;
  /** Said where there is none. */
  empty: string;
}

/** Things by their names, the newest first: what each is and how far it is. */
export function NamedList<Row extends Named>({ asked, to, said, state, empty }: Props<Row>) {
  const rows = asked.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <>
      {asked.error !== null && <p className="pt-6 text-reading text-rosy">{messageOf(asked.error)}</p>}
      {asked.data && rows.length === 0 && <p className="pt-8 text-reading">{empty}</p>}
      <ul className="pt-6">
        {rows.map((row) => (
          <li
            key={row.id}
            className="flex flex-wrap items-baseline gap-x-8 border-b-[0.9px] border-ink py-3 hover:bg-lit"
          >
            <Link className="w-80 text-state hover:underline hover:underline-offset-4" to={to(row)}>
              {row.name}
            </Link>
            <span className="flex-1 text-body">{said(row)}</span>
            <span className="text-body font-semibold">{state(row)}</span>
          </li>
        ))}
      </ul>
      {asked.hasNextPage && <Button onClick={() => void asked.fetchNextPage()}>Older ones</Button>}
    </>
  );
}
