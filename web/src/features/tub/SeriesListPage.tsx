import { useState } from "react";
import { Link } from "react-router";
import { messageOf, type Series, useAllSeries } from "../../api";
import { Button, PageHead } from "../../ui";
import { SeriesSheet } from "./SeriesSheet";

/** Claims of the craft, each put to the test in baths of one kind. */
export function SeriesListPage() {
  const [beginning, setBeginning] = useState(false);
  const series = useAllSeries();
  const rows = series.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead
        title="Side by side"
        lead="A claim, two to six formulas, the same bath for each, and codes that stay closed."
      >
        <Link className="border-b-[0.9px] border-ink text-body" to="/tub">
          Single tests
        </Link>
        <Button primary onClick={() => setBeginning(true)}>
          Put a claim to the test
        </Button>
      </PageHead>
      {series.error && <p className="pt-6 text-reading text-rosy">{messageOf(series.error)}</p>}
      {series.data && rows.length === 0 && (
        <p className="pt-8 text-reading">
          No claim yet. Choose two formulas that differ in one thing, and say which foams taller, and by how
          much it would have to.
        </p>
      )}
      <ul className="pt-6">
        {rows.map((row) => (
          <li
            key={row.id}
            className="flex flex-wrap items-baseline gap-x-8 border-b-[0.9px] border-ink py-3 hover:bg-lit"
          >
            <Link
              className="w-72 text-state hover:underline hover:underline-offset-4"
              to={`/tub/series/${row.id}`}
            >
              {row.name}
            </Link>
            <span className="flex-1 text-body">{claimSentence(row)}</span>
            <span className="text-body font-semibold">{stateOf(row)}</span>
          </li>
        ))}
      </ul>
      {series.hasNextPage && <Button onClick={() => void series.fetchNextPage()}>Older ones</Button>}
      {beginning && (
        <SeriesSheet readings={series.data?.pages[0]?.readings ?? []} onClose={() => setBeginning(false)} />
      )}
    </div>
  );
}

/** The claim in the maker's words. */
export function claimSentence({ claim, reading, variants }: Series): string {
  const name = (letter: string) =>
    `${variants.find((each) => each.letter === letter)?.name ?? ""} (${letter})`;
  const worth = claim.worth ? ` by at least ${claim.worth} ${reading.unit}` : "";
  const is = claim.lower_is_better ? "less" : "more";
  return `${reading.label}: ${is} for ${name(claim.better)} than for ${name(claim.than)}${worth}.`;
}

const stateOf = (series: Series) =>
  series.judgement ? series.judgement.answer : `${series.made} of ${series.tests.length} baths made`;
