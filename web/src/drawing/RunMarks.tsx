import { memo } from "react";
import type { Schema } from "../api/client";
import type { RunPoint } from "../document/geometry";
import { type Frame, type Px, part as partOfLine, pathOf, toPx, type View } from "./projection";
import { RunStroke } from "./RunStroke";
import { hanging, spansOf } from "./stays";
import { sameIn, shallow } from "./stretches";
import { colourOf, cssOf, markOf } from "./temperature";

export interface RunProps {
  run: Schema["Run"];
  course: RunPoint[];
  view: View;
  frame: Frame;
  drain: Schema["RunDrain"] | undefined;
  rungs: Schema["Rung"][];
  numbers: Schema["TradeNumbers"];
  chosen: boolean;
  bare: boolean;
  weight: number;
}

const sameRun = (a: RunProps, b: RunProps) =>
  shallow(a, b, "rungs") && a.rungs.length === b.rungs.length && a.rungs.every((r, i) => r === b.rungs[i]);

export const RunMarks = memo(({ marks }: { marks: RunProps[] }) => marks.map((m) => <RunMark key={m.run.id} {...m} />), sameIn(sameRun));

const RunMark = memo(function RunMark({ run, course, view, frame, drain, rungs, numbers, chosen, bare, weight }: RunProps) {
  if (course.length === 0) return null;
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const line = course.map((p) => px(p.at));
  const d = pathOf(line);
  const wet = drain && wetPath(drain, course, px);
  const held = bare ? "" : fixingsPath(run, line);
  const arrows = drain && !bare && chevrons(drain, line);
  return (
    <>
      {chosen && !bare && (
        <path d={d} fill="none" stroke="var(--ink)" strokeOpacity={0.16} strokeWidth={15} strokeLinejoin="round" strokeLinecap="round" />
      )}
      <RunStroke d={d} name={run.name} service={run.service} colour="var(--pipe)" weight={weight * (chosen ? 1.15 : 1)} />
      {wet?.pool && <path d={wet.pool} stroke="var(--stays)" strokeWidth={8 * weight} strokeLinecap="round" fill="none" />}
      {wet?.hangs && <path d={wet.hangs} stroke="var(--stays)" {...hanging(weight)} fill="none" />}
      {held && <path d={held} fill="none" stroke="var(--ink)" strokeWidth={1.8} strokeLinecap="round" />}
      {arrows && <path d={arrows} fill="none" stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round" />}
      {rungs.map((r) => (
        <ColdPiece key={r.id} rung={r} px={px} run={run} weight={weight} numbers={numbers} bare={bare} />
      ))}
    </>
  );
}, sameRun);

/** The lengths in which water stays: in pools, and hung for want of air. */
function wetPath(drain: Schema["RunDrain"], course: RunPoint[], px: (p: Schema["Point3"]) => Px) {
  const path = (kind: "pool" | "hangs") =>
    drain.stations
      .flatMap((s, k) => {
        const [from, to] = [course[k], course[k + 1]];
        const span = spansOf(s)[kind];
        return from && to && span ? [pathOf(partOfLine(from.at, to.at, ...span).map(px))] : [];
      })
      .join("");
  return { pool: path("pool"), hangs: path("hangs") };
}

/** What holds a run at its points: a clip is a stroke across it, a grommet a pair of them, as the hole is lined on both sides. */
function fixingsPath(run: Schema["Run"], line: Px[]) {
  return run.bends
    .flatMap((bend, i) => {
      const [before, at, after] = [line[i], line[i + 1], line[i + 2]];
      if (!bend.fixing || !before || !at || !after) return [];
      const [dx, dy] = [after.x - before.x, after.y - before.y];
      const length = Math.hypot(dx, dy);
      if (length < 1) return [];
      const [ux, uy] = [dx / length, dy / length];
      return (bend.fixing === "clip" ? [0] : [-3, 3]).map((far) => {
        const [x, y] = [at.x + ux * far, at.y + uy * far];
        return `M${(x - 7 * uy).toFixed(1)} ${(y + 7 * ux).toFixed(1)}L${(x + 7 * uy).toFixed(1)} ${(y - 7 * ux).toFixed(1)}`;
      });
    })
    .join("");
}

/** Arrowheads along each length that falls, pointing the way its water leaves. */
function chevrons(drain: Schema["RunDrain"], line: Px[]) {
  let d = "";
  drain.stations.forEach((s, k) => {
    const [from, to] = s.direction > 0 ? [line[k], line[k + 1]] : [line[k + 1], line[k]];
    if (!from || !to || s.direction === 0 || (s.fall ?? 0) <= 0) return;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const count = Math.floor(length / 52);
    const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
    for (let i = 1; i <= count; i++) {
      const [x, y] = [from.x + ((to.x - from.x) * i) / (count + 1), from.y + ((to.y - from.y) * i) / (count + 1)];
      const wing = (side: number) => `${(x - 3.5 * ux - side * 6 * uy).toFixed(1)} ${(y - 3.5 * uy + side * 6 * ux).toFixed(1)}`;
      d += `M${wing(1)}L${(x + 3.5 * ux).toFixed(1)} ${(y + 3.5 * uy).toFixed(1)}L${wing(-1)}`;
    }
  });
  return d;
}

function ColdPiece(props: {
  rung: Schema["Rung"];
  px(p: Schema["Point3"]): Px;
  run: Schema["Run"];
  weight: number;
  numbers: Schema["TradeNumbers"];
  bare: boolean;
}) {
  const { rung, px, run, weight } = props;
  const line = rung.course.map(px);
  const colour = colourOf(props.numbers, rung.morningC, rung.morningIce);
  if (rung.morningIce > 0)
    return (
      <path data-name={run.name} d={pathOf(line)} fill="none" stroke="url(#ice-hatch)" strokeWidth={7 * weight} strokeLinejoin="round" />
    );
  return (
    <>
      <RunStroke d={pathOf(line)} name={run.name} service={run.service} colour={cssOf(colour)} weight={weight * 1.2} />
      {!props.bare && <path d={markOf(colour, line)} fill="none" stroke="var(--ink)" strokeWidth={1.5} />}
    </>
  );
}
