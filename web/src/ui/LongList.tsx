import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { Fragment, type ReactNode, useEffect, useRef } from "react";

interface Props<Row> {
  rows: readonly Row[];
  /** Height of most rows [px]; each is measured once it is drawn. */
  height: number;
  keyOf: (row: Row) => number;
  render: (row: Row, at: number, measure: (element: HTMLElement | null) => void) => ReactNode;
  /** What holds the rows, and stands for those that are not drawn. */
  as: "tbody" | "ol";
  /** The pages the rows come from: the next is asked for before the end is reached. */
  pages?: Pages;
}

interface Pages {
  hasNextPage: boolean;
  isFetching: boolean;
  fetchNextPage: () => unknown;
}

const BEYOND = 12; // rows drawn above and below what is seen

/** Rows of any number: only those in sight are drawn, and the next page is asked for before the end is reached. */
export function LongList<Row>({ rows, height, keyOf, render, as: Holder, pages }: Props<Row>) {
  const holder = useRef<HTMLElement>(null);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => height,
    overscan: BEYOND,
    scrollMargin: holder.current?.offsetTop ?? 0,
    getItemKey: (at) => keyOf(rows[at] as Row),
  });
  const drawn = virtual.getVirtualItems();
  const first = drawn[0];
  const last = drawn[drawn.length - 1];
  useEffect(() => {
    const near = last && last.index >= rows.length - 1 - BEYOND;
    if (near && pages?.hasNextPage && !pages.isFetching) void pages.fetchNextPage();
  }, [pages, last, rows.length]);
  const above = first ? first.start - virtual.options.scrollMargin : 0;
  const below = last ? virtual.getTotalSize() - (last.end - virtual.options.scrollMargin) : 0;
  const Gap = Holder === "tbody" ? "tr" : "li";
  return (
    <Holder ref={holder as never}>
      {above > 0 && <Gap aria-hidden="true" style={{ height: above }} />}
      {drawn.map((item) => (
        <Fragment key={item.key}>
          {render(rows[item.index] as Row, item.index, virtual.measureElement)}
        </Fragment>
      ))}
      {below > 0 && <Gap aria-hidden="true" style={{ height: below }} />}
    </Holder>
  );
}
