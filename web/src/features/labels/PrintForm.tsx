import { useState } from "react";
import { type LabelDrawing, type LabelSave, messageOf, useBatch, useKeepLabel } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { readDecimal } from "../../lib/decimals";
import { Button, NumberInput, useNotice } from "../../ui";
import { factsOf, type TypedFacts } from "./FactsForm";

const SHEET = { rows: "8", columns: "3", left: "0", top: "0.5", gap_x: "0", gap_y: "0" };

/** Kept and given to the printer: one at a time, or a sheet of stickers. */
export function PrintForm({
  of,
  typed,
  drawing,
}: {
  of: { formula_id?: number; batch_id?: number };
  typed: TypedFacts;
  drawing: LabelDrawing;
}) {
  const pieces = useBatch(of.batch_id ?? 0).data?.pieces_now;
  const [chosen, setCopies] = useState<string | null>(null);
  // A label a piece, as they were counted; before that, as what was weighed gives them.
  const copies = chosen ?? String(pieces ?? 24);
  const [onSheet, setOnSheet] = useState(true);
  const [paper, setPaper] = useState<"A4" | "Letter">("A4");
  const [sheet, setSheet] = useState(SHEET);
  const keep = useKeepLabel();
  const say = useNotice();
  const number = (text: string) => readDecimal(text) ?? Number.NaN;
  const onKeep = async (market: LabelSave["market"], draft: boolean) => {
    const figures = {
      rows: number(sheet.rows),
      columns: number(sheet.columns),
      left_mm: number(sheet.left),
      top_mm: number(sheet.top),
      gap_x_mm: number(sheet.gap_x),
      gap_y_mm: number(sheet.gap_y),
    };
    const count = number(copies);
    if (!Number.isInteger(count) || Object.values(figures).some(Number.isNaN))
      return say("Copies, rows and columns are whole numbers; margins are millimetres.", { asks: true });
    try {
      const kept = await keep.mutateAsync({
        ...of,
        market,
        width_mm: drawing.width_mm,
        height_mm: drawing.height_mm,
        facts: factsOf(typed),
        copies: count,
        sheet: onSheet ? { paper, ...figures } : null,
        draft,
        key: askingKey(),
      });
      say(`Label ${kept.id} is kept and printed${kept.draft ? ", crossed as a draft" : ""}.`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const figure = (name: keyof typeof SHEET, label: string) => (
    <label>
      {label}{" "}
      <NumberInput
        className="w-12 text-center"
        value={sheet[name]}
        onChange={(event) => setSheet({ ...sheet, [name]: event.target.value })}
      />
    </label>
  );
  return (
    <section aria-label="Print" className="no-print pt-6 text-row">
      <p className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <label>
          Print{" "}
          <NumberInput
            whole
            className="w-14 text-center"
            value={copies}
            onChange={(event) => setCopies(event.target.value)}
          />
        </label>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={onSheet} onChange={(event) => setOnSheet(event.target.checked)} />
          on sheets
        </label>
        {onSheet && (
          <>
            <label>
              of{" "}
              <select
                className="written text-row"
                value={paper}
                onChange={(event) => setPaper(event.target.value as "A4" | "Letter")}
              >
                <option>A4</option>
                <option>Letter</option>
              </select>
            </label>
            {figure("rows", "rows")}
            {figure("columns", "columns")}
            {figure("left", "left, mm")}
            {figure("top", "top, mm")}
            {figure("gap_x", "between columns, mm")}
            {figure("gap_y", "between rows, mm")}
          </>
        )}
      </p>
      <p className="flex flex-wrap gap-4 pt-3">
        {drawing.labels.map((label) => {
          const { draft } = label;
          return (
            <Button
              key={label.market}
              primary={!draft}
              disabled={keep.isPending || !label.fits}
              onClick={() => void onKeep(label.market as LabelSave["market"], draft)}
            >
              {draft
                ? `Print the ${label.market} draft, crossed`
                : `Keep and print the ${label.market} label`}
            </Button>
          );
        })}
      </p>
    </section>
  );
}
