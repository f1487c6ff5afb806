import { useState } from "react";
import { Link, useParams } from "react-router";
import { messageOf, type RunSheetQuery, useReference, useRunSheet } from "../../api";
import { figure, grams, percent } from "../../lib/numbers";
import { Button } from "../../ui";
import { RunSheetPaper } from "./RunSheetPaper";
import { WeighLine } from "./WeighLine";

const AS_WRITTEN = "as-written";
const OWN_MASS = "own-mass";

/** How many, of what size: the run sheet follows. */
export function PlanPage() {
  const id = Number(useParams().formulaId);
  const [pieces, setPieces] = useState("10");
  const [shape, setShape] = useState(AS_WRITTEN);
  const [mass, setMass] = useState("");
  const [fill, setFill] = useState<"level" | "rounded" | "domed">("rounded");
  const reference = useReference();
  const count = Number(pieces);
  const badPieces = !(Number.isInteger(count) && count >= 1 && count <= 100_000);
  const grammes = Number(mass.replace(",", "."));
  const badMass = shape === OWN_MASS && mass.trim() !== "" && !(grammes > 0);
  const tool = reference.data?.tools.find((each) => each.id === shape);
  const query: RunSheetQuery = {
    pieces: badPieces ? 10 : count,
    piece_mass_g: shape === OWN_MASS && grammes > 0 ? grammes : undefined,
    tool: tool?.id,
    scoop_fill: tool?.type === "scoop" ? fill : undefined,
  };
  const { data: sheet, error } = useRunSheet(id, query);
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <div className="no-print">
        <h1>{sheet?.name ?? "Plan"}</h1>
        <p className="text-row text-soft">
          {sheet ? `${sheet.method_name}, ${sheet.set_time} to set. ` : ""}
          <Link className="underline underline-offset-4" to={`/formulas/${id}`}>
            Back to its Desk
          </Link>
        </p>
        <div className="flex flex-wrap items-end justify-between gap-6 pt-4">
          <p className="text-state font-[400] leading-10">
            <input
              aria-label="Number of pieces"
              aria-invalid={badPieces || undefined}
              inputMode="numeric"
              className="written w-20 text-center font-semibold"
              value={pieces}
              onChange={(event) => setPieces(event.target.value.replace(/\D/g, ""))}
            />{" "}
            pieces,{" "}
            <select
              aria-label="Shape of a piece"
              className="written max-w-[420px] font-semibold"
              value={shape}
              onChange={(event) => setShape(event.target.value)}
            >
              <option value={AS_WRITTEN}>as the formula says</option>
              <option value={OWN_MASS}>of my own mass</option>
              {reference.data?.tools.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name}
                </option>
              ))}
            </select>
            {shape === OWN_MASS && (
              <>
                {" "}
                <input
                  aria-label="Mass of a piece in grams"
                  aria-invalid={badMass || undefined}
                  inputMode="decimal"
                  className="written w-24 text-center font-semibold"
                  value={mass}
                  onChange={(event) => setMass(event.target.value)}
                />{" "}
                g
              </>
            )}
            {tool?.type === "scoop" && (
              <>
                ,{" "}
                <select
                  aria-label="How the scoop is filled"
                  className="written font-semibold"
                  value={fill}
                  onChange={(event) => setFill(event.target.value as typeof fill)}
                >
                  <option value="level">level</option>
                  <option value="rounded">rounded</option>
                  <option value="domed">domed</option>
                </select>
              </>
            )}
          </p>
          <Button primary onClick={() => window.print()} disabled={!sheet}>
            Print the run sheet
          </Button>
        </div>
        {badPieces && (
          <p className="text-label text-rosy">Pieces must be a whole number from 1 to 100 000.</p>
        )}
        {badMass && <p className="text-label text-rosy">The mass of a piece must be a number above 0 g.</p>}
        {error && <p className="pt-4 text-reading text-rosy">{messageOf(error)}</p>}
        {sheet && !error && (
          <>
            <p className="pt-1 text-body text-soft">
              {figure(sheet.piece_mass_g)} g a piece ({sheet.piece_basis}); weigh{" "}
              <b className="text-ink">{grams(sheet.batch_g)} g</b>, of which about{" "}
              {percent(sheet.loss_fraction * 100)} % stays on bowl and gloves.
            </p>
            <WeighLine sheet={sheet} />
          </>
        )}
      </div>
      {sheet && !error && <RunSheetPaper sheet={sheet} />}
    </div>
  );
}
