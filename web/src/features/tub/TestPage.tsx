import { useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import {
  messageOf,
  type TubHappening,
  type TubTest,
  useRefreshTests,
  useTestHappens,
  useTubTest,
  useTubTests,
} from "../../api";
import { readDecimal } from "../../lib/decimals";
import { emptied } from "../../lib/emptied";
import { fixed, sayMass } from "../../lib/numbers";
import { Button, DrawingTools, Photos, useActInTurn } from "../../ui";
import { SeenForm } from "./SeenForm";
import { foretoldAt, heightsOf, sectionSentence, tellingHeight } from "./section";
import { TubDrawing } from "./TubDrawing";
import { Watch } from "./Watch";

/** One test in the tub, drawn as half a bath; another can be set beside it. */
export function TestPage() {
  const id = Number(useParams().testId);
  const [parameters, setParameters] = useSearchParams();
  const test = useTubTest(id);
  const other = useTubTest(Number(parameters.get("other")) || null);
  if (test.error && !test.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(test.error)}</p>;
  if (!test.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return (
    <Test
      key={id}
      test={test.data}
      other={other.data ?? null}
      onOther={(chosen) => setParameters(chosen ? { other: String(chosen) } : {}, { replace: true })}
    />
  );
}

function Test({
  test,
  other,
  onOther,
}: {
  test: TubTest;
  other: TubTest | null;
  onOther: (id: number | null) => void;
}) {
  const happen = useTestHappens(test.id);
  const refresh = useRefreshTests();
  const drawing = useRef<SVGSVGElement>(null);
  const [height, setHeight] = useState("");
  const act = useActInTurn(
    test,
    (after, event: TubHappening) => happen.mutateAsync({ after, event }),
    "The test has moved on; this is how it stands now.",
  );
  const dragged = readDecimal(height);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>{test.name}</h1>
      <p className="text-row text-soft">
        {summary(test, other)}{" "}
        {test.formula_id && (
          <Link className="underline underline-offset-4" to={`/formulas/${test.formula_id}`}>
            Its Desk
          </Link>
        )}{" "}
        {test.series_id && (
          <Link className="underline underline-offset-4" to={`/tub/series/${test.series_id}`}>
            {test.blind ? "Its series; which variant this is stays closed" : "Its series"}
          </Link>
        )}{" "}
        {test.batch_id && (
          <Link className="underline underline-offset-4" to={`/batches/${test.batch_id}`}>
            Its batch
          </Link>
        )}{" "}
        {test.formula_id && (
          <Link className="underline underline-offset-4" to={`/clinic?test=${test.id}`}>
            What went wrong?
          </Link>
        )}
      </p>
      <Watch test={test} height={height} onHeight={setHeight} act={act} />
      <TubDrawing
        ref={drawing}
        test={test}
        other={other}
        dragged={dragged !== null && !Number.isNaN(dragged) ? dragged : null}
        onDrag={test.closed_at ? undefined : (value) => setHeight(String(value))}
      />
      <div className="flex flex-wrap items-baseline gap-x-8 gap-y-2">
        <Beside test={test} other={other} onOther={onOther} />
        <DrawingTools
          svg={() => drawing.current}
          name={`Tub ${test.name}`}
          columns={["minutes", "seen [cm]", "the Desk said [cm]"]}
          rows={heightsOf(test).map((each) => [
            String(each.minutes),
            fixed(each.height_cm, 1),
            foretoldAt(test, each.minutes)?.toFixed(1) ?? "",
          ])}
        />
      </div>
      <p className="sr-only">{sectionSentence(test)}</p>
      {test.state.seen["skin"] === "itches" && (
        <p role="alert" className="pt-4 text-reading text-rosy">
          Rinse it off and stop using it. If it does not go away, or it is a child, ask a doctor or
          pharmacist.
        </p>
      )}
      <SeenForm test={test} act={act} />
      <Photos
        of={{ noun: "tub-tests", id: test.id }}
        names={test.state.photos}
        what="Test"
        after={test.closed_at ? null : test.state.seq}
        onKept={refresh}
      />
      <Foot test={test} act={act} />
    </div>
  );
}

function summary(test: TubTest, other: TubTest | null): string {
  const bath = `${sayMass(test.use.dose_g ?? 0)} ${test.use.way ?? ""} in ${test.use.tub_l} L.`;
  const seen = tellingHeight(test);
  if (!seen) return `${bath} Open the tap, and the watch asks at 1, 5, 10 and 20 minutes.`;
  const beside = other ? heightsOf(other).find((each) => each.minutes === seen.minutes) : undefined;
  if (other && beside) {
    const more = seen.height_cm - beside.height_cm;
    return `${bath} It stood ${fixed(Math.abs(more), 1)} cm ${more >= 0 ? "taller" : "lower"} than ${other.name}.`;
  }
  const said = foretoldAt(test, seen.minutes);
  if (said === null) return bath;
  const off = seen.height_cm - said;
  return `${bath} It stood ${fixed(Math.abs(off), 1)} cm ${off >= 0 ? "over" : "under"} what the Desk said.`;
}

function Beside({
  test,
  other,
  onOther,
}: {
  test: TubTest;
  other: TubTest | null;
  onOther: (id: number | null) => void;
}) {
  const tests = useTubTests("");
  const offered = (tests.data?.pages[0]?.items ?? []).filter((each) => each.id !== test.id);
  return (
    <label className="text-body">
      Beside it{" "}
      <select
        className="written text-body"
        value={other?.id ?? ""}
        onChange={(event) => onOther(Number(event.target.value) || null)}
      >
        <option value="">no other test</option>
        {offered.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}, test {each.id}
          </option>
        ))}
      </select>
    </label>
  );
}

function Foot({ test, act }: { test: TubTest; act: (event: TubHappening) => Promise<boolean> }) {
  const [text, setText] = useState("");
  return (
    <div className="no-print flex flex-wrap items-end gap-6 pt-8">
      <form
        className="flex items-end gap-3"
        onSubmit={async (event) => {
          event.preventDefault();
          if (text.trim() && (await act({ kind: "note", text: text.trim() }))) setText(emptied(text));
        }}
      >
        <label className="text-caption italic text-soft">
          A note
          <input
            className="written block w-96 max-w-full text-row not-italic text-ink"
            maxLength={2000}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <Button type="submit">Note it</Button>
      </form>
      {!test.closed_at && <Button onClick={() => void act({ kind: "closed" })}>Close the test</Button>}
      {test.state.notes.length > 0 && (
        <ul aria-label="Notes" className="w-full text-body">
          {test.state.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
