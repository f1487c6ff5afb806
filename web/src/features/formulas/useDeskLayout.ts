import { useEffect, useState } from "react";

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
  const left = roomy ? 352 : 330;
  const right = roomy ? 438 : 392;
  return { wide, left, right, columns: `${left}px minmax(0, 1fr) ${right}px` };
}
