import { useRef } from "react";
import type { DrawnLabel, LabelDrawing } from "../../api";
import { fixed } from "../../lib/numbers";
import { Button, DrawingTools } from "../../ui";

const RULE_MM = 7; // room for the millimetre rules above and beside
const BRACKETS_MM = 38; // room for the measured heights

/** How a label stands by the rules; which of them are enough, a licensed assessor and local law decide. */
function standing({ missing, blocks, draft }: DrawnLabel): string {
  if (!draft) return "nothing is missing or held back by these rules";
  const held = blocks.length > 0 ? `held back by ${blocks.length}` : "";
  const lacks = missing.length > 0 ? `${missing.length} missing` : "";
  return `draft: ${[held, lacks].filter(Boolean).join(", ")}`;
}

/** One market's label at true size: a rule on two sides, a bracket beside what the law measures, dotted lines for what is missing. */
export function LabelView({
  label,
  drawing,
  name,
  onSize,
}: {
  label: DrawnLabel;
  drawing: LabelDrawing;
  name: string;
  onSize: (width_mm: number, height_mm: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const { width_mm: width, height_mm: height } = drawing;
  const tall = Math.max(height, label.used_mm) + RULE_MM + 2;
  const wide = width + RULE_MM + BRACKETS_MM;
  const says = `Label for the ${label.market}, ${fixed(width, 1, true)} by ${fixed(height, 1, true)} mm. ${label.fits ? "All texts fit." : "Its texts do not fit."} ${standing(label)}.`;
  return (
    <figure>
      <figcaption className="flex items-baseline gap-4 text-row">
        <b>{label.market}</b>
        <span className={label.draft ? "text-rosy" : "text-soft"}>{standing(label)}</span>
        <DrawingTools
          name={`${name}, label ${label.market}`}
          columns={["Element", "Text", "Letters, mm", "Rule"]}
          rows={label.texts.map((text) => [
            text.element.replaceAll("_", " "),
            text.text,
            fixed(text.height_mm, 2),
            text.rule,
          ])}
          svg={() => svg.current}
        />
      </figcaption>
      <svg
        ref={svg}
        role="img"
        aria-label={says}
        width={`${wide}mm`}
        height={`${tall}mm`}
        viewBox={`${-RULE_MM} ${-RULE_MM} ${wide} ${tall}`}
        className="block max-w-full"
      >
        <Rules width={width} height={height} />
        <rect width={width} height={height} fill="#fff" stroke="var(--ink)" strokeWidth=".2" />
        {label.draft && <Draft words={draftWords(label)} width={width} height={height} />}
        {label.lines.map((line, index) => (
          <text
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
            key={index}
            x={line.x_mm}
            y={line.baseline_mm}
            fontSize={line.size_mm}
            fontWeight={line.bold ? 700 : 400}
            fill={line.baseline_mm > height ? "#8e3247" : "#14302d"}
          >
            {line.text}
          </text>
        ))}
        <Brackets label={label} width={width} />
      </svg>
      {!label.fits && (
        <p className="pt-1 text-body text-rosy">
          The texts do not fit at the heights the rules ask for.{" "}
          {label.smallest ? (
            <Button
              onClick={() => label.smallest && onSize(label.smallest.width_mm, label.smallest.height_mm)}
            >
              Take {fixed(label.smallest.width_mm, 1, true)} by {fixed(label.smallest.height_mm, 1, true)} mm
            </Button>
          ) : (
            "No sheet of paper holds them."
          )}
        </p>
      )}
      {label.blocks.length > 0 && (
        <ul aria-label={`What holds the ${label.market} label back`} className="max-w-[520px] pt-2 text-body">
          {label.blocks.map((each) => (
            <li key={each.rule + each.text} className="border-b-[1.5px] border-solid border-rosy py-1">
              {each.text} <span className="text-caption text-soft">{each.rule}</span>
            </li>
          ))}
        </ul>
      )}
      <ul className="max-w-[520px] pt-2 text-body">
        {label.missing.map((each) => (
          <li key={each.rule + each.message} className="border-b-[1.5px] border-dotted border-rosy py-1">
            {each.message} <span className="text-caption text-soft">{each.rule}</span>
          </li>
        ))}
      </ul>
    </figure>
  );
}

/** Millimetres above and on the left, every fifth longer, every tenth with its figure. */
const draftWords = (label: DrawnLabel) => label.texts.find((text) => text.element === "draft")?.text ?? "";

/** The words across a draft, as its PDF and SVG have them. */
function Draft({ words, width, height }: { words: string; width: number; height: number }) {
  const angle = (Math.atan2(height, width) * 180) / Math.PI;
  return (
    <text
      transform={`translate(${width / 2} ${height / 2}) rotate(${angle})`}
      textAnchor="middle"
      dy=".3em"
      fontSize={Math.hypot(width, height) / 14}
      fontWeight={700}
      fill="#b8b8b8"
    >
      {words}
    </text>
  );
}

function Rules({ width, height }: { width: number; height: number }) {
  const path = (length: number, across: boolean) =>
    Array.from({ length: Math.floor(length) + 1 }, (_, mm) => {
      const tick = mm % 10 === 0 ? 2.4 : mm % 5 === 0 ? 1.7 : 1;
      return across ? `M${mm} -0.8v${-tick}` : `M-0.8 ${mm}h${-tick}`;
    }).join("");
  const tens = (length: number) => Array.from({ length: Math.floor(length / 10) + 1 }, (_, ten) => ten * 10);
  return (
    <g stroke="var(--ink)" strokeWidth=".15" fontSize="2.4">
      <path d={path(width, true) + path(height, false)} fill="none" />
      <g stroke="none" fill="var(--soft)">
        {tens(width).map((mm) => (
          <text key={`w${mm}`} x={mm} y="-4" textAnchor="middle">
            {mm}
          </text>
        ))}
        {tens(height)
          .slice(1)
          .map((mm) => (
            <text key={`h${mm}`} x="-3.8" y={mm + 0.8} textAnchor="end">
              {mm}
            </text>
          ))}
      </g>
    </g>
  );
}

/** Beside every text the height its letters must have. */
function Brackets({ label, width }: { label: DrawnLabel; width: number }) {
  const placed: { element: string; from: number; to: number; height: number }[] = [];
  for (const text of label.texts) {
    const lines = label.lines.filter((line) => line.element === text.element);
    const first = lines[0];
    const last = lines.at(-1);
    if (!first || !last || placed.some((each) => each.from === first.baseline_mm - 0.7 * first.size_mm))
      continue;
    placed.push({
      element: text.element,
      from: first.baseline_mm - 0.7 * first.size_mm,
      to: last.baseline_mm,
      height: text.height_mm,
    });
  }
  return (
    <g fontSize="2.6" fill="var(--ink)" stroke="none">
      {placed.map((each) => (
        <g key={each.element}>
          <path
            d={`M${width + 1} ${each.from}h1.4V${each.to}h-1.4`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth=".18"
          />
          <text x={width + 3.4} y={(each.from + each.to) / 2 + 0.9}>
            {fixed(each.height, 2)} mm, {each.element.replaceAll("_", " ")}
          </text>
        </g>
      ))}
    </g>
  );
}
