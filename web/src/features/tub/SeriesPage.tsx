import { useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import {
  messageOf,
  type Series,
  useMoreBaths,
  useNextBath,
  useOpenCodes,
  useSeries,
  useSlip,
} from "../../api";
import { fixed, sayMass, sayTemperature } from "../../lib/numbers";
import { Button, Dialog, DrawingTools, Plot, useNotice } from "../../ui";
import { SeriesAnswer } from "./SeriesAnswer";
import { SeriesDrawing, saidOf } from "./SeriesDrawing";
import { claimSentence } from "./SeriesListPage";
import { VariantTable } from "./VariantTable";

/** One series: the claim, the baths under their codes, the answer once they are opened, and all variants on one sheet. */
export function SeriesPage() {
  const series = useSeries(Number(useParams().seriesId));
  if (series.error && !series.data)
    return <p className="px-14 py-10 text-reading text-rosy">{messageOf(series.error)}</p>;
  if (!series.data) return <p className="px-14 py-10 text-reading text-soft">Opening…</p>;
  return <Sheet series={series.data} />;
}

function Sheet({ series }: { series: Series }) {
  const drawing = useRef<SVGSVGElement>(null);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>{series.name}</h1>
      <p className="text-row text-soft">
        {claimSentence(series)} {sayMass(series.use.dose_g ?? 0)} {series.use.way} in {series.use.tub_l} L of{" "}
        {sayTemperature(series.use.bath_c)}, {series.use.hardness} water.{" "}
        <Link className="underline underline-offset-4" to="/tub/series">
          All series
        </Link>
      </p>
      {series.judgement && <SeriesAnswer series={series} judgement={series.judgement} />}
      {series.opened > 0 && !series.judgement && (
        <p className="pt-4 text-reading">
          The codes are open, and no bath has {series.reading.label.toLowerCase()}: measure it in the next
          ones.
        </p>
      )}
      <Baths series={series} />
      <div className="grid grid-cols-[3fr_2fr] gap-x-10 pt-6 max-[1100px]:grid-cols-1">
        <section aria-label="Baths on one rule">
          <SeriesDrawing series={series} ref={drawing} />
          <DrawingTools
            svg={() => drawing.current}
            name={`Series ${series.name}`}
            columns={["bath", "variant", `${series.reading.label} [${series.reading.unit}]`]}
            rows={series.tests.map((test) => [
              String(test.code),
              test.variant ?? "closed",
              String(test.figures[series.claim.reading] ?? ""),
            ])}
          />
        </section>
        <Curves series={series} />
      </div>
      <VariantTable series={series} said={(variant) => saidOf(variant, series.claim.reading)} />
    </div>
  );
}

/** The codes in their order, and what can be done next. */
function Baths({ series }: { series: Series }) {
  const [next, open, more, slip] = [
    useNextBath(series.id),
    useOpenCodes(series.id),
    useMoreBaths(series.id),
    useSlip(series.id),
  ];
  const [reading, setReading] = useState(false);
  const say = useNotice();
  const navigate = useNavigate();
  const attempt = async <T,>(act: () => Promise<T>, then?: (made: T) => unknown) => {
    try {
      const made = await act();
      await then?.(made);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const begun = series.tests.filter((test) => test.test_id !== null);
  const unfinished = begun.find((test) => !test.closed);
  const left = series.tests.length - begun.length;
  return (
    <section aria-label="Baths" className="pt-4">
      <ol className="flex flex-wrap gap-x-5 gap-y-1 text-reading">
        {series.tests.map((test) => (
          <li key={test.code} className={test.test_id === null ? "text-soft" : ""}>
            {test.test_id === null ? (
              test.code
            ) : (
              <Link className="underline underline-offset-4" to={`/tub/${test.test_id}`}>
                {test.code}
              </Link>
            )}
            {test.variant && <b> {test.variant}</b>}
            {!test.blind && <span className="text-caption text-soft"> not blind</span>}
          </li>
        ))}
      </ol>
      <p className="flex flex-wrap items-baseline gap-5 pt-3">
        {unfinished ? (
          <Link className="border-b-2 border-ink text-body" to={`/tub/${unfinished.test_id}`}>
            Go on with code {unfinished.code}
          </Link>
        ) : left > 0 ? (
          <Button
            primary
            disabled={next.isPending}
            onClick={() =>
              void attempt(
                () => next.mutateAsync(null),
                (test) => navigate(`/tub/${test.id}`),
              )
            }
          >
            Run the next bath
          </Button>
        ) : (
          <Button onClick={() => void attempt(() => more.mutateAsync(2))}>Two more of each</Button>
        )}
        {!unfinished && begun.length > series.opened && (
          <Button onClick={() => void attempt(() => open.mutateAsync(null))}>Read the answer</Button>
        )}
        {left > 0 && (
          <Button
            onClick={() =>
              void attempt(
                () => slip.mutateAsync(null),
                () => setReading(true),
              )
            }
          >
            Slip for the hands that wrap
          </Button>
        )}
        <span className="text-body text-soft">
          {series.made} of {series.tests.length} baths made
          {begun.length > series.opened && "; which is which stays closed until the answer is read"}.
        </span>
      </p>
      <Dialog
        open={reading}
        onOpenChange={setReading}
        title="Codes and pieces"
        lead="For whoever wraps the pieces, not for whoever measures. Read while baths are running, it makes the rest no longer blind."
      >
        <table className="mt-4 text-reading">
          <tbody>
            {slip.data?.places.map((place) => (
              <tr key={place.code} className="border-b-[0.9px] border-ink">
                <th scope="row" className="w-24 py-1 text-left font-semibold">
                  {place.code}
                </th>
                <td>
                  {place.variant}, {series.variants.find((each) => each.letter === place.variant)?.name}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Dialog>
    </section>
  );
}

/** Foam over the minutes: what was seen in ink, what the Desk said dashed. */
function Curves({ series }: { series: Series }) {
  const drawing = useRef<SVGSVGElement>(null);
  const seen = series.variants.filter((variant) => variant.heights.length > 0);
  if (seen.length === 0) return null;
  const lines = seen.flatMap((variant) => [
    {
      name: variant.letter,
      style: "ink" as const,
      points: variant.heights.map((each) => [each.minutes, each.height_cm] as const),
    },
    {
      name: `${variant.letter} said`,
      style: "dashed" as const,
      points: variant.foretold.heights
        .filter((each) => each.minutes <= 20)
        .map((each) => [each.minutes, each.height_cm] as const),
    },
  ]);
  const most = Math.max(...lines.flatMap((line) => line.points.map((point) => point[1])), 1);
  return (
    <section aria-label="Foam over the minutes">
      <Plot
        ref={drawing}
        text={`Foam of ${seen.map((each) => each.letter).join(", ")} over twenty minutes.`}
        x={{ min: 0, max: 20, label: "min" }}
        y={{ min: 0, max: Math.ceil(most * 1.1), label: "cm" }}
        lines={lines}
      />
      <DrawingTools
        svg={() => drawing.current}
        name={`Foam ${series.name}`}
        columns={["variant", "minutes", "seen [cm]", "baths"]}
        rows={seen.flatMap((variant) =>
          variant.heights.map((each) => [
            variant.letter,
            String(each.minutes),
            fixed(each.height_cm, 2),
            String(each.n),
          ]),
        )}
      />
    </section>
  );
}
