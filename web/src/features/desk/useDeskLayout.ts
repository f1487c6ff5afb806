import { type RefObject, useEffect, useRef, useState } from "react";

const WIDE = "(min-width: 1000px)";
const ROOMY = "(min-width: 1200px)";

/** Three columns from 1000 px on; below, the readings stand under the formula. */
export function useDeskLayout() {
  const [, redraw] = useState(0);
  useEffect(() => {
    const queries = [matchMedia(WIDE), matchMedia(ROOMY)];
    const listen = () => redraw((count) => count + 1);
    for (const query of queries) query.addEventListener("change", listen);
    return () => {
      for (const query of queries) query.removeEventListener("change", listen);
    };
  }, []);
  const wide = matchMedia(WIDE).matches;
  const roomy = matchMedia(ROOMY).matches;
  const left = roomy ? 352 : 312;
  const right = roomy ? 438 : 352;
  const strip = wide && !roomy ? 112 : 172;
  return { wide, left, right, strip, columns: `${left}px minmax(0, 1fr) ${right}px` };
}

const CALM_MS = 400;

/** Marks the stage while changes follow each other faster than the easing takes. */
export function useHurry(stage: RefObject<HTMLElement | null>, change: unknown): void {
  const last = useRef(0);
  useEffect(() => {
    const now = performance.now();
    const element = stage.current;
    if (element && change && now - last.current < CALM_MS) element.dataset.hurried = "";
    last.current = now;
    const timer = setTimeout(() => {
      if (element) delete element.dataset.hurried;
    }, CALM_MS);
    return () => clearTimeout(timer);
  }, [stage, change]);
}
