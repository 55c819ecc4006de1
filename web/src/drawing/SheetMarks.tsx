import { memo, useLayoutEffect, useMemo, useRef } from "react";
import type { Schema } from "../api/client";
import { type Brush, PaleBrush, type Path, PathBrush, showPaths } from "./brushes";
import { coverOf, straightOf } from "./photos";
import { type Frame, type Look, rectOf } from "./projection";
import { type PartMark, paintPart, paintRun, paintShell, type RunMark, type Sheet } from "./sheetPaint";

/** Paths as they were painted. */
function Paths({ paths }: { paths: Path[] }) {
  const group = useRef<SVGGElement>(null);
  useLayoutEffect(() => showPaths(group.current as SVGGElement, paths), [paths]);
  return <g ref={group} />;
}

interface ShellProps {
  shell: Schema["Shell"];
  view: Look;
  frame: Frame;
  bare: boolean;
  zoneId: string | null;
}

/** The body, its rooms, what is in the way, and photos of its walls. */
export const ShellMarks = memo(function ShellMarks({ shell, view, frame, bare, zoneId }: ShellProps) {
  const paths = useMemo(() => {
    const out = new PathBrush();
    paintShell(out, shell, view, frame, bare, zoneId);
    return out.paths;
  }, [shell, view, frame, bare, zoneId]);
  return (
    <>
      <Paths paths={paths} />
      {!bare &&
        shell.photos
          ?.filter((p) => p.view === view)
          .map((p) => (
            <image
              key={p.id}
              {...rectOf(view, frame, coverOf(p))}
              href={straightOf(p)}
              opacity={0.4}
              preserveAspectRatio="none"
              className="pointer-events-none"
              data-photo={p.id}
            />
          ))}
    </>
  );
});

type Mark = PartMark | RunMark;
const paintMark = (out: Brush, mark: Mark, sheet: Sheet) => ("part" in mark ? paintPart(out, mark, sheet) : paintRun(out, mark, sheet));
const thingOf = (mark: Mark) => ("part" in mark ? mark.part : mark.run);

const sameMark = (a: Mark, b: Mark) =>
  (Object.keys(a) as (keyof Mark)[]).every((k) => {
    const [x, y]: unknown[] = [a[k], b[k]];
    return (
      x === y ||
      (Array.isArray(x) && Array.isArray(y) && x.length === y.length && (k as string) === "rungs" && x.every((r, i) => r === y[i]))
    );
  });

const STRETCH = 32;

/** A stretch of a list: one of which nothing has changed is not painted anew, nor looked into. */
const Stretch = memo(
  function Stretch({ marks, sheet }: { marks: Mark[]; sheet: Sheet }) {
    const known = useRef<{ sheet: Sheet; painted: Map<string, { mark: Mark; paths: Path[] }> }>({ sheet, painted: new Map() });
    if (known.current.sheet !== sheet) known.current = { sheet, painted: new Map() };
    const { painted } = known.current;
    const paths = marks.flatMap((mark) => {
      const { id, name } = thingOf(mark);
      const before = painted.get(id);
      if (before && sameMark(before.mark, mark)) return before.paths;
      const out = new PathBrush(name);
      paintMark(mark.pale ? new PaleBrush(out) : out, mark, sheet);
      painted.set(id, { mark, paths: out.paths });
      return out.paths;
    });
    return <Paths paths={paths} />;
  },
  (a, b) => a.sheet === b.sheet && a.marks.length === b.marks.length && a.marks.every((m, i) => sameMark(m, b.marks[i] as Mark)),
);

const stretches = (marks: Mark[]): Mark[][] =>
  Array.from({ length: Math.ceil(marks.length / STRETCH) }, (_, i) => marks.slice(i * STRETCH, (i + 1) * STRETCH));

/** Parts and runs from above or from the side: what does not belong to the way of what is selected is pale, behind the rest. */
export function SheetMarks({ parts, runs, sheet }: { parts: PartMark[]; runs: RunMark[]; sheet: Sheet }) {
  const all = [...stretches(parts), ...stretches(runs)];
  const some = (pale: boolean) =>
    all.map((marks, i) => {
      const first = marks[0] as Mark;
      return <Stretch key={`${i}/${"part" in first}`} marks={marks.filter((m) => m.pale === pale)} sheet={sheet} />;
    });
  return (
    <>
      <g data-pale>{some(true)}</g>
      {some(false)}
    </>
  );
}
