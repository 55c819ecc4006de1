import { memo, useLayoutEffect, useMemo, useRef } from "react";
import type { Schema } from "../api/client";
import { type Path, PathBrush, showPaths } from "./brushes";
import { PALE } from "./lens";
import { coverOf, straightOf } from "./photos";
import { type Frame, type Look, rectOf } from "./projection";
import { type PartMark, paintPart, paintRun, paintShell, type RunMark, type Sheet } from "./sheetPaint";

/** Paths as they were painted. */
function Paths({ paths, opacity }: { paths: Path[]; opacity?: number }) {
  const group = useRef<SVGGElement>(null);
  useLayoutEffect(() => showPaths(group.current as SVGGElement, paths), [paths]);
  return <g ref={group} opacity={opacity} />;
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

const sameMark = <T extends PartMark | RunMark>(a: T, b: T) =>
  (Object.keys(a) as (keyof T)[]).every((k) => {
    const [x, y] = [a[k], b[k]];
    return x === y || (Array.isArray(x) && Array.isArray(y) && k === "rungs" && x.length === y.length && x.every((r, i) => r === y[i]));
  });

/** What has been painted of each thing: only what has changed is painted anew. */
class Painted {
  private readonly known = new Map<string, { mark: PartMark | RunMark; paths: Path[] }>();

  constructor(private readonly sheet: Sheet) {}

  private of<T extends PartMark | RunMark>(key: string, name: string, mark: T, paint: (out: PathBrush) => void): Path[] {
    const before = this.known.get(key);
    if (before && sameMark(before.mark as T, mark)) return before.paths;
    const out = new PathBrush(name);
    paint(out);
    this.known.set(key, { mark, paths: out.paths });
    return out.paths;
  }

  paths(parts: PartMark[], runs: RunMark[]): Path[] {
    return [
      ...parts.flatMap((m) => this.of(`part/${m.part.id}`, m.part.name, m, (out) => paintPart(out, m, this.sheet))),
      ...runs.flatMap((m) => this.of(`run/${m.run.id}`, m.run.name, m, (out) => paintRun(out, m, this.sheet))),
    ];
  }
}

/** Parts and runs from above or from the side: what does not belong to the way of what is selected is pale, behind the rest. */
export function SheetMarks({ parts, runs, sheet }: { parts: PartMark[]; runs: RunMark[]; sheet: Sheet }) {
  const painted = useMemo(() => new Painted(sheet), [sheet]);
  const some = parts.some((m) => m.pale) || runs.some((m) => m.pale);
  const of = (pale: boolean) =>
    painted.paths(
      parts.filter((m) => m.pale === pale),
      runs.filter((m) => m.pale === pale),
    );
  return (
    <>
      <Paths paths={some ? of(true) : []} opacity={PALE} />
      <Paths paths={of(false)} />
    </>
  );
}
