import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { messageOf, type TubTest, useTubTests } from "../../api";
import { fixed, sayMass } from "../../lib/numbers";
import { useSettled } from "../../lib/useSettled";
import { Button, LongList, PageHead, SearchField } from "../../ui";
import { HeadRow } from "../../ui/HeadRow";
import { BeginSheet } from "./BeginSheet";
import { foretoldAt, tellingHeight } from "./section";

/** Every test in the tub, with how its foam stood against what the Desk had said. */
export function TubPage() {
  const [search, setSearch] = useState("");
  const [parameters, setParameters] = useSearchParams();
  const batch = Number(parameters.get("batch")) || null;
  const [beginning, setBeginning] = useState(batch !== null);
  const tests = useTubTests(useSettled(search.trim()));
  const rows = tests.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead title="Tub" lead="What the Desk said of a bath, and what was seen in it.">
        <SearchField label="Search tests" placeholder="Name" value={search} onSearch={setSearch} />
        <Link className="border-b-[0.9px] border-ink text-body" to="/tub/series">
          Side by side
        </Link>
        <Link className="border-b-[0.9px] border-ink text-body" to="/learning">
          What it teaches
        </Link>
        <Button primary onClick={() => setBeginning(true)}>
          Begin a test
        </Button>
      </PageHead>
      {tests.error && <p className="pt-6 text-reading text-rosy">{messageOf(tests.error)}</p>}
      {tests.data && rows.length === 0 && (
        <p className="pt-8 text-reading">
          {search
            ? `No test by "${search}".`
            : "No test yet. Take a piece to the bath, and begin one: it takes twenty minutes and a rule."}
        </p>
      )}
      {rows.length > 0 && (
        <table className="mt-6 w-full">
          <HeadRow
            columns={[
              "Test",
              "Made",
              "Bath",
              { says: "Foam seen", right: true },
              { says: "The Desk said", right: true },
            ]}
          />
          <LongList
            as="tbody"
            rows={rows}
            height={52}
            keyOf={(row) => row.id}
            pages={tests}
            render={(row, at, measure) => <Row test={row} at={at} measure={measure} />}
          />
        </table>
      )}
      {beginning && (
        <BeginSheet
          batch={batch}
          onClose={() => {
            setBeginning(false);
            setParameters({}, { replace: true });
          }}
        />
      )}
    </div>
  );
}

function Row({
  test,
  at,
  measure,
}: {
  test: TubTest;
  at: number;
  measure: (element: HTMLElement | null) => void;
}) {
  const seen = tellingHeight(test);
  const said = foretoldAt(test, seen?.minutes ?? 5);
  return (
    <tr ref={measure} data-index={at} className="border-b-[0.9px] border-ink hover:bg-lit">
      <td className="py-2">
        <Link className="text-state hover:underline hover:underline-offset-4" to={`/tub/${test.id}`}>
          {test.name}
        </Link>
        {!test.closed_at && <span className="text-caption font-semibold"> still open</span>}
      </td>
      <td className="text-body">
        {new Date(test.begun_at).toLocaleDateString("en-GB", {
          day: "numeric",
          month: "short",
          year: "numeric",
        })}
      </td>
      <td className="text-body">
        {sayMass(test.use.dose_g ?? 0)} in {test.use.tub_l} L
      </td>
      <td className="text-right text-body">
        {seen ? `${fixed(seen.height_cm, 1)} cm at ${seen.minutes} min` : "–"}
      </td>
      <td className="text-right text-body">{said === null ? "–" : `${fixed(said, 1)} cm`}</td>
    </tr>
  );
}
