import { useEffect, useMemo, useRef } from "react";
import { Link, useLocation, useParams } from "react-router";
import {
  type Band,
  type Charts,
  drawCharts,
  messageOf,
  type Reference,
  useAnswer,
  useFormula,
  useProfiles,
  useReference,
} from "../../api";
import { figure, fixed, sayTemperature, temperatureFigure } from "../../lib/numbers";
import { inUnits } from "../../lib/units";
import { DrawingTools, Plot, type PlotLine } from "../../ui";
import { Frontier } from "./Frontier";

type Zones = readonly { state: string; saturation_from: number }[];

/** The curves behind the readings of one formula. */
export function CurvesPage() {
  const id = Number(useParams().formulaId);
  const formula = useFormula(id);
  const reference = useReference();
  const profiles = useProfiles();
  const file = formula.isFetchedAfterMount ? formula.data?.formula : undefined;
  const { answer: charts, error: failed } = useAnswer(
    useMemo(() => (file ? (signal: AbortSignal) => drawCharts(file, 0, signal) : null), [file]),
  );
  const { hash } = useLocation();
  useEffect(() => {
    if (charts && hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [charts, hash]);
  const failure = formula.error ?? failed;
  const error = failure ? messageOf(failure) : "";
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>{file ? `Curves of ${file.name}` : "Curves"}</h1>
      <p className="text-row text-soft">
        What the readings are read off.{" "}
        <Link className="underline underline-offset-4" to={`/formulas/${id}`}>
          Back to its Desk
        </Link>
      </p>
      {error && <p className="pt-6 text-reading text-rosy">{error}</p>}
      {!charts && !error && <p className="pt-6 text-reading text-soft">Drawing…</p>}
      {charts && (
        <div className="grid grid-cols-2 gap-x-14 gap-y-10 pt-6 max-[1100px]:grid-cols-1">
          <Texture charts={charts} zones={reference.data?.states ?? []} name={file?.name ?? ""} />
          <Bath charts={charts} name={file?.name ?? ""} />
          {charts.cooling && <Cooling charts={charts} name={file?.name ?? ""} />}
          {charts.foam.length > 0 && <FoamCurve charts={charts} name={file?.name ?? ""} />}
          {file && charts.foam.length > 0 && (
            <Frontier
              file={file}
              profile={profiles.data?.profiles.find((each) => each.id === file.profile)}
              dough={doughBand(reference.data, file.method)}
              name={file.name}
            />
          )}
          {charts.solid.length > 0 && <SolidFat charts={charts} name={file?.name ?? ""} />}
        </div>
      )}
    </div>
  );
}

function doughBand(reference: Reference | undefined, id: string): Band | null {
  const method = reference?.methods.find((each) => each.id === id);
  if (!method || method.saturation_low === null) return null;
  return { reading: "dough.saturation", low: method.saturation_low, high: method.saturation_high };
}

function Drawn({
  id,
  title,
  says,
  name,
  columns,
  rows,
  children,
}: {
  /** Where the page can be entered. */
  id: string;
  title: string;
  says: string;
  name: string;
  columns: readonly string[];
  rows: readonly (readonly string[])[];
  children: (ref: React.RefObject<SVGSVGElement | null>) => React.ReactNode;
}) {
  const drawing = useRef<SVGSVGElement>(null);
  return (
    <section id={id} aria-label={title} className="scroll-mt-4">
      <p className="flex items-baseline justify-between">
        <b className="text-row font-normal italic text-soft">{title}</b>
        <DrawingTools
          name={`${name}, ${title.toLowerCase()}`}
          columns={columns}
          rows={rows}
          svg={() => drawing.current}
        />
      </p>
      <p className="pb-2 text-body">{inUnits(says)}</p>
      {children(drawing)}
    </section>
  );
}

const MOST_S = 2.4;
const DRAWN = new Set(["damp sand", "crumbly dough", "play dough", "sticky", "batter", "pour"]);

function Texture({ charts, zones, name }: { charts: Charts; zones: Zones; name: string }) {
  const points = charts.texture.filter((point) => point.saturation !== null);
  const line = (all: Charts["texture"]): [number, number][] =>
    all.flatMap((point) =>
      point.saturation === null ? [] : [[point.temperature_c, point.saturation] as [number, number]],
    );
  const window = charts.working_window_c;
  const judged = points.find((point) => point.temperature_c === Math.round(charts.judged_c));
  const says = window
    ? `${sentenceCase(charts.wanted_states.join(" or "))} from ${temperatureFigure(window[0])} to ${sayTemperature(window[1])}.`
    : charts.window_reason === "never"
      ? `Never ${charts.wanted_states.join(" or ")} between ${temperatureFigure(charts.texture.at(0)?.temperature_c ?? 0)} and ${sayTemperature(charts.texture.at(-1)?.temperature_c ?? 0)}.`
      : `Hardly any fat, so it stays ${judged?.state ?? "as it is"} at any temperature.`;
  const lines: PlotLine[] = [{ name: "settled", points: line(charts.texture), style: "wet" }];
  if (charts.texture_fresh.length)
    lines.push({ name: "first hours", points: line(charts.texture_fresh), style: "thin" });
  const low = Math.min(
    ...zones.filter((z) => charts.wanted_states.includes(z.state)).map((z) => z.saturation_from),
  );
  const above = zones.filter((z) => z.saturation_from > low && !charts.wanted_states.includes(z.state));
  const high = Math.min(MOST_S, ...above.map((z) => z.saturation_from));
  if (points.length === 0)
    return <p className="text-body text-soft">No powder that drinks: the texture follows the fat alone.</p>;
  return (
    <Drawn
      id="texture"
      title="Texture over temperature"
      says={says}
      name={name}
      columns={["°C", "S", "state", "S, first hours"]}
      rows={charts.texture.map((point, index) => [
        String(point.temperature_c),
        point.saturation === null ? "–" : fixed(point.saturation, 3),
        point.state ?? "–",
        charts.texture_fresh[index]?.saturation?.toFixed(3) ?? "",
      ])}
    >
      {(ref) => (
        <Plot
          ref={ref}
          text={`Saturation over temperature. ${says}`}
          x={{ min: 10, max: 60, label: "°C", unit: "°C" }}
          y={{ min: 0, max: MOST_S, label: "S" }}
          lines={lines}
          lane={Number.isFinite(low) ? { name: "wanted", from: low, to: high } : undefined}
          levels={zones
            .filter((z) => DRAWN.has(z.state))
            .map((z) => ({ name: z.state, at: z.saturation_from }))}
          posts={[{ name: `room ${sayTemperature(charts.room_c)}`, at: Math.max(10, charts.room_c) }]}
          spans={window ? [{ name: "workable", from: window[0], to: window[1] }] : []}
        />
      )}
    </Drawn>
  );
}

function Bath({ charts, name }: { charts: Charts; name: string }) {
  const known = charts.bath.filter((stage) => stage.ph !== null);
  const points = known.map((stage) => [charts.bath.indexOf(stage), stage.ph ?? 0] as [number, number]);
  const edge = (end: "low" | "high") =>
    known.map((stage) => [charts.bath.indexOf(stage), stage[end] ?? 0] as [number, number]);
  const says = known.map((stage) => `${stage.stage} ${fixed(stage.ph ?? 0, 1)}`).join(", ");
  return (
    <Drawn
      id="bath"
      title="pH of the bath"
      says={
        says
          ? `${sentenceCase(says)}. The bather meets step-in and the soak; the lane is a project default.`
          : "Not known."
      }
      name={name}
      columns={["stage", "pH", "low", "high"]}
      rows={charts.bath.map((stage) => [
        stage.stage,
        stage.ph?.toFixed(2) ?? "–",
        stage.low?.toFixed(2) ?? "–",
        stage.high?.toFixed(2) ?? "–",
      ])}
    >
      {(ref) => (
        <Plot
          ref={ref}
          text={`pH of the bath: ${says}`}
          x={{ min: 0, max: 3, label: "" }}
          y={{ min: 4, max: 10, label: "pH" }}
          lines={[
            { name: "likely", points, style: "ink" },
            { name: "low", points: edge("low"), style: "dashed" },
            { name: "high", points: edge("high"), style: "dashed" },
          ]}
          lane={{ name: "wanted", from: 5.5, to: 8.5 }}
          posts={charts.bath.map((stage, index) => ({ name: stage.stage, at: index }))}
        />
      )}
    </Drawn>
  );
}

function Cooling({ charts, name }: { charts: Charts; name: string }) {
  const clock = charts.cooling;
  if (!clock || clock.path.length === 0) return null;
  const end = clock.path.at(-1)?.minutes ?? 60;
  return (
    <Drawn
      id="cooling"
      title="Cooling in the bowl"
      says={clock.sentence}
      name={name}
      columns={["min", "fat still undercooled, °C", "fat setting, °C"]}
      rows={clock.path.map((point) => [
        String(point.minutes),
        fixed(point.undercooled_c, 1),
        fixed(point.setting_c, 1),
      ])}
    >
      {(ref) => (
        <Plot
          ref={ref}
          text={`Temperature of the dough over minutes. ${clock.sentence}`}
          x={{ min: 0, max: end, label: "min" }}
          y={{
            min: Math.floor(charts.room_c) - 1,
            max: Math.ceil(clock.from_c) + 2,
            label: "°C",
            unit: "°C",
          }}
          lines={[
            { name: "setting", points: clock.path.map((p) => [p.minutes, p.setting_c]), style: "ink" },
            {
              name: "undercooled",
              points: clock.path.map((p) => [p.minutes, p.undercooled_c]),
              style: "dashed",
            },
          ]}
          lane={{ name: "workable", from: clock.window_c[0], to: clock.window_c[1] }}
        />
      )}
    </Drawn>
  );
}

function FoamCurve({ charts, name }: { charts: Charts; name: string }) {
  const most = Math.max(...charts.foam.map((point) => point.litres));
  const half = charts.foam.find((point) => point.minutes > 8 && point.litres < most / 2);
  const says = `${figure(most)} L when the tub is full${half ? `, half gone by minute ${half.minutes}, counted from when the tap is opened` : ""}. Within a factor of 2.`;
  return (
    <Drawn
      id="foam"
      title="Foam over the bath"
      says={says}
      name={name}
      columns={["min", "L"]}
      rows={charts.foam.map((point) => [String(point.minutes), fixed(point.litres, 1)])}
    >
      {(ref) => (
        <Plot
          ref={ref}
          text={`Foam over minutes: ${says}`}
          x={{ min: 0, max: 60, label: "min" }}
          y={{ min: 0, max: Math.ceil(most * 1.15), label: "L" }}
          lines={[{ name: "foam", points: charts.foam.map((p) => [p.minutes, p.litres]), style: "wet" }]}
          posts={[{ name: "tap closed", at: 8 }]}
        />
      )}
    </Drawn>
  );
}

function SolidFat({ charts, name }: { charts: Charts; name: string }) {
  const at = (celsius: number) =>
    charts.solid.find((point) => point.temperature_c === Math.round(celsius))?.solid_pct ?? 0;
  const says = `${Math.round(at(charts.room_c))} % of fat and oil is solid in this room, ${Math.round(at(charts.bath_c))} % in the bath.`;
  return (
    <Drawn
      id="solid-fat"
      title="Solid fat"
      says={says}
      name={name}
      columns={["°C", "all fat and oil, %", ...charts.fats.map((fat) => `${fat.name}, %`)]}
      rows={charts.solid.map((point, index) => [
        String(point.temperature_c),
        fixed(point.solid_pct, 1),
        ...charts.fats.map((fat) => fat.points[index]?.solid_pct.toFixed(1) ?? ""),
      ])}
    >
      {(ref) => (
        <Plot
          ref={ref}
          text={`Solid fat over temperature. ${says}`}
          x={{ min: 10, max: 60, label: "°C", unit: "°C" }}
          y={{ min: 0, max: 100, label: "%" }}
          lines={[
            {
              name: "together",
              points: charts.solid.map((p) => [p.temperature_c, p.solid_pct]),
              style: "ink",
            },
            ...charts.fats.map(
              (fat): PlotLine => ({
                name: fat.name,
                points: fat.points.map((p) => [p.temperature_c, p.solid_pct]),
                style: "thin",
                named: "start",
              }),
            ),
          ]}
          posts={[
            { name: "room", at: Math.max(10, charts.room_c) },
            { name: "bath", at: charts.bath_c },
          ]}
        />
      )}
    </Drawn>
  );
}

const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
