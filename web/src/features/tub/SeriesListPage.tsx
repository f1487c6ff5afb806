import { useState } from "react";
import { Link } from "react-router";
import { type Series, useAllSeries } from "../../api";
import { Button, NamedList, PageHead } from "../../ui";
import { SeriesSheet } from "./SeriesSheet";

/** Claims of the craft, each put to the test in baths of one kind. */
export function SeriesListPage() {
  const [beginning, setBeginning] = useState(false);
  const series = useAllSeries();
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
      <NamedList
        asked={series}
        to={(row) => `/tub/series/${row.id}`}
        said={claimSentence}
        state={stateOf}
        empty="No claim yet. Choose two formulas that differ in one thing, and say which foams taller, and by how much it would have to."
      />
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
