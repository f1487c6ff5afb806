import { type Evaluation, useSettings, useUsual } from "../../api";
import { MONTHS } from "../../lib/months";
import { massUnit, temperatureUnit } from "../../lib/units";
import { WATERS } from "../../lib/waters";
import type { Draft } from "../draft";
import { Inline } from "../lines";
import { Choice, Paid, type Patch, Pick, Sentence } from "./settingParts";

const WAYS = [
  ["crumbled", "crumbled under the tap"],
  ["held", "held under the tap"],
  ["whole", "dropped in whole"],
] as const;

interface TubProps {
  use: Draft["use"];
  assumed: Evaluation["assumed"] | undefined;
  patch: Patch;
}

/** Dose, way, tub and tap. */
export function TubSentence({ use, assumed, patch }: TubProps) {
  const tubs = useSettings().data?.tubs ?? [];
  const usual = useUsual()?.use;
  if (!usual) return null;
  return (
    <Sentence title="In the tub">
      <Inline
        label="Dose in grams"
        unit="g"
        value={use.dose_g}
        assumed={assumed?.dose_g}
        onChange={(dose_g) => patch("use", { dose_g })}
      />{" "}
      {massUnit()},{" "}
      <Choice
        label="How it is used"
        value={use.way}
        assumed={assumed?.way}
        options={WAYS}
        onChange={(way) => patch("use", { way: way as typeof use.way })}
      />
      , in{" "}
      <Inline
        label="Water in the tub in litres"
        value={use.tub_l}
        assumed={usual.tub_l}
        onChange={(tub_l) => patch("use", { tub_l: tub_l ?? usual.tub_l })}
      />{" "}
      L at{" "}
      <Inline
        label="Bath in degrees Celsius"
        unit="°C"
        value={use.bath_c}
        assumed={usual.bath_c}
        onChange={(bath_c) => patch("use", { bath_c: bath_c ?? usual.bath_c })}
      />{" "}
      {temperatureUnit()} with{" "}
      <Inline
        label="Water surface in square metres"
        value={use.tub_area_m2}
        assumed={usual.tub_area_m2}
        onChange={(tub_area_m2) => patch("use", { tub_area_m2: tub_area_m2 ?? usual.tub_area_m2 })}
      />{" "}
      m² of surface
      <Pick
        label="A tub of the workshop"
        none="a tub"
        options={tubs.map((tub) => tub.name)}
        onPick={(index) => {
          const { tub_l, tub_area_m2 } = tubs[index] ?? use;
          patch("use", { tub_l, tub_area_m2 });
        }}
      />
      ; the tap gives{" "}
      <Choice
        label="Tap water"
        value={use.hardness}
        assumed={undefined}
        options={WATERS}
        onChange={(hardness) => patch("use", { hardness: (hardness ?? "moderate") as typeof use.hardness })}
      />{" "}
      water, alkalinity{" "}
      <Inline
        label="Alkalinity in milligrams per litre"
        value={use.alkalinity_mg_l}
        assumed={undefined}
        zero
        onChange={(alkalinity_mg_l) => patch("use", { alkalinity_mg_l })}
      />{" "}
      mg/L as CaCO3, pH{" "}
      <Inline
        label="pH of the tap"
        value={use.tap_ph}
        assumed={undefined}
        onChange={(tap_ph) => patch("use", { tap_ph })}
      />
      ; empty means what is usual for such water.
    </Sentence>
  );
}

/** The air, and the heat of what is poured. */
export function RoomSentence({ draft: { room, heat }, patch }: { draft: Draft; patch: Patch }) {
  const rooms = useSettings().data?.rooms ?? [];
  const usual = useUsual()?.room;
  if (!usual) return null;
  return (
    <Sentence title="The room">
      has{" "}
      <Inline
        label="Room in degrees Celsius"
        unit="°C"
        value={room.temperature_c}
        assumed={usual.temperature_c}
        onChange={(degrees) => patch("room", { temperature_c: degrees ?? usual.temperature_c })}
      />{" "}
      {temperatureUnit()} and{" "}
      <Inline
        label="Humidity in per cent"
        value={room.humidity_pct}
        assumed={usual.humidity_pct}
        zero
        onChange={(humidity_pct) => patch("room", { humidity_pct: humidity_pct ?? usual.humidity_pct })}
      />{" "}
      % humidity
      <Pick
        label="The workshop's air in a month"
        none="a month"
        options={rooms.length ? MONTHS : []}
        onPick={(index) => patch("room", rooms[index] ?? room)}
      />
      . The wet goes in at{" "}
      <Inline
        label="Wet phase in degrees Celsius"
        unit="°C"
        value={heat.wet_c}
        assumed={undefined}
        onChange={(wet_c) => patch("heat", { wet_c })}
      />{" "}
      {temperatureUnit()}, the bowl soaks up{" "}
      <Inline
        label="Heat capacity of the bowl in joules per kelvin"
        value={heat.bowl_j_k}
        assumed={undefined}
        zero
        onChange={(bowl_j_k) => patch("heat", { bowl_j_k })}
      />{" "}
      J/K; empty means as the method.
    </Sentence>
  );
}

interface BatchProps {
  draft: Draft;
  evaluation: Evaluation | null;
  change: (change: (draft: Draft) => Draft, field?: string) => void;
  patch: Patch;
}

/** What a share is a share of, and what a piece costs beside its ingredients. */
export function BatchSentence({ draft, evaluation, change, patch }: BatchProps) {
  const { making } = draft;
  const usual = useUsual();
  if (!usual) return null;
  return (
    <Sentence title="The batch">
      Per cent and parts share{" "}
      <Inline
        label="What per cent and parts share in grams"
        unit="g"
        value={draft.batch_g}
        assumed={usual.batch_g}
        onChange={(batch_g) =>
          change((before) => ({ ...before, batch_g: batch_g ?? usual.batch_g }), "batch_g")
        }
      />{" "}
      {massUnit()}. Packaging costs{" "}
      <Paid label="Packaging of a piece" making={making} name="packaging_per_piece" patch={patch} /> a piece;
      a batch takes{" "}
      <Paid label="Minutes of work on a batch" making={making} name="labour_minutes" patch={patch} /> minutes
      at <Paid label="Pay of an hour" making={making} name="labour_per_hour" patch={patch} /> an hour;{" "}
      <Paid label="Overhead in per cent" making={making} name="overhead_pct" patch={patch} /> % goes on top.
      All in, a piece costs{" "}
      <b>
        {evaluation?.cost.full_piece ?? "–"} {evaluation?.cost.currency}
      </b>
      .
    </Sentence>
  );
}
