import type { ComponentProps, RefObject } from "react";
import { fixed } from "../../lib/numbers";
import { Bowl } from "../../ui";

interface Props extends Omit<ComponentProps<typeof Bowl>, "cx" | "rimY" | "radius" | "depth"> {
  drawing: RefObject<SVGSVGElement | null>;
  sentence: string;
}

/** The bowl with its figure, where the page has no room for the whole drawing. */
export function NarrowBowl({ drawing, sentence, ...bowl }: Props) {
  return (
    <div className="flex items-end gap-6 pb-8">
      <svg ref={drawing} role="img" aria-label={sentence} viewBox="0 0 360 310" className="w-80 shrink-0">
        <Bowl cx={180} rimY={56} radius={150} depth={190} {...bowl} />
      </svg>
      <p className="text-state">
        <span className="block text-figure font-[350] leading-none">
          {bowl.saturation == null ? "–" : fixed(bowl.saturation, 2)}
        </span>
        {bowl.state}
      </p>
    </div>
  );
}
