import { type RefObject, useCallback, useEffect, useLayoutEffect, useState } from "react";

/** Where rows and questions stand on the page, so that the drawing can join them. */
export interface Marks {
  width: number;
  height: number;
  /** Right end of each row's rule, by line key; only rows in view. */
  rows: Map<string, { x: number; y: number }>;
  /** Left end of each question's rule. */
  questions: Map<string, { x: number; y: number; right: number }>;
}

const NOWHERE: Marks = { width: 0, height: 0, rows: new Map(), questions: new Map() };

export function useMarks(
  stage: RefObject<HTMLElement | null>,
  scroller: RefObject<HTMLElement | null>,
  readings: RefObject<HTMLElement | null>,
  dependency: unknown,
): Marks {
  const [marks, setMarks] = useState<Marks>(NOWHERE);
  const measure = useCallback(() => {
    const element = stage.current;
    if (!element) return;
    const origin = element.getBoundingClientRect();
    const view = scroller.current?.getBoundingClientRect();
    const rows: Marks["rows"] = new Map();
    for (const row of element.querySelectorAll<HTMLElement>("[data-line]")) {
      const box = row.getBoundingClientRect();
      if (view && (box.bottom < view.top + 4 || box.bottom > view.bottom + 1)) continue;
      rows.set(row.dataset.line ?? "", { x: box.right - origin.left, y: box.bottom - origin.top - 0.5 });
    }
    const found: Marks["questions"] = new Map();
    for (const question of element.querySelectorAll<HTMLElement>("[data-question]")) {
      const box = question.getBoundingClientRect();
      const seen = readings.current?.getBoundingClientRect();
      if (seen && (box.top < seen.top - 1 || box.top > seen.bottom)) continue;
      found.set(question.dataset.question ?? "", {
        x: box.left - origin.left,
        y: box.top - origin.top + 0.5,
        right: box.right - origin.left,
      });
    }
    setMarks((before) => {
      const next = { width: origin.width, height: origin.height, rows, questions: found };
      return same(before, next) ? before : next;
    });
  }, [stage, scroller, readings]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the dependency stands for everything that moves rows
  useLayoutEffect(measure, [measure, dependency]);
  useEffect(() => {
    const observer = new ResizeObserver(measure);
    if (stage.current) observer.observe(stage.current);
    // The questions move when a strip opens, which leaves the stage as large as it was.
    const list = stage.current?.querySelector("[data-readings]");
    if (list) observer.observe(list);
    const boxes = [scroller.current, readings.current];
    for (const box of boxes) box?.addEventListener("scroll", measure, { passive: true });
    void document.fonts.ready.then(measure);
    return () => {
      observer.disconnect();
      for (const box of boxes) box?.removeEventListener("scroll", measure);
    };
  }, [measure, stage, scroller, readings]);
  return marks;
}

function same(a: Marks, b: Marks): boolean {
  return (
    JSON.stringify([a.width, a.height, [...a.rows], [...a.questions]]) ===
    JSON.stringify([b.width, b.height, [...b.rows], [...b.questions]])
  );
}
