import { memo, useDeferredValue, useMemo } from "react";
import type { Schema } from "../api/client";
import { useCatalogue } from "../app/catalogue";
import { usePrint } from "../app/units";
import { courseOf, indexOf, type RunPoint } from "../document/geometry";
import { placeDiscs } from "./discs";
import { placeLabels, type Wanted } from "./labels";
import { Discs, Labels, roomOf } from "./notes";
import { type Frame, type Px, part as partOfLine, pathOf, rectOf, toPx, type View, wheelUnder } from "./projection";
import { RunStroke } from "./RunStroke";
import { colourOf, cssOf, markOf } from "./temperature";

type Rig = Schema["Rig"];
type Rect = { x: number; y: number; width: number; height: number };
/** What is drawn of the answers; a thumbnail has fewer of them. */
type Answers = Pick<Schema["AnswersAnswer"]["answers"], "drainDown" | "freezeLadder" | "advice">;

interface Props {
  rig: Rig;
  /** The state of the rig that the answers are about; what has moved since is drawn without them. */
  about: Rig | null;
  answers: Answers | null;
  view: View;
  frame: Frame;
  lens: "drain" | "cold";
  /** Things in hand. */
  runs?: ReadonlySet<string>;
  parts?: ReadonlySet<string>;
  zoneId?: string | null;
  /** The run whose points are shown, and those of them in hand. */
  runId?: string | null;
  points?: ReadonlySet<string>;
  findingId?: string | null;
  /** Close up: every name and every disc. */
  close?: boolean;
  /** A thumbnail: no names, no numbers. */
  bare?: boolean;
  onFinding?(finding: Schema["Finding"]): void;
}

const none: ReadonlySet<string> = new Set();
const noRungs: Schema["Rung"][] = [];

/** The rig from above or from the kerb: zones, what is in the way, parts, runs, and what its water does. */
export const RigDrawing = memo(function RigDrawing(props: Props) {
  const { rig, about, answers, view, frame, lens, bare = false, runs = none, parts = none } = props;
  const { stock, numbers } = useCatalogue();
  const drains = useMemo(() => new Map(answers?.drainDown?.runs.map((r) => [r.runId, r])), [answers?.drainDown]);
  const held = useMemo(() => new Map(answers?.drainDown?.parts.map((p) => [p.partId, p])), [answers?.drainDown]);
  const ladder = answers?.freezeLadder;
  const rungOfPart = useMemo(() => new Map(ladder?.rungs.flatMap((r) => (r.partId ? [[r.partId, r] as const] : []))), [ladder]);
  const pieces = useMemo(() => Map.groupBy(ladder?.rungs ?? [], (r) => r.runId ?? null), [ladder]);
  const weight = bare ? 0.6 : 1;
  const then = about && indexOf(about);

  return (
    <g>
      <Backdrop shell={rig.shell} view={view} frame={frame} bare={bare} zoneId={props.zoneId ?? null} />
      {rig.parts.map((p) => (
        <PartMark
          key={p.id}
          part={p}
          view={view}
          frame={frame}
          rung={lens === "cold" ? rungOfPart.get(p.id) : undefined}
          look={stock.get(p.stock)?.look ?? "body"}
          share={lens === "drain" ? shareOf(held.get(p.id)) : 0}
          numbers={numbers}
          chosen={parts.has(p.id)}
          bare={bare}
        />
      ))}
      {rig.runs.map((run) => {
        const course = courseOf(rig, run);
        const before = then?.runs.get(run.id);
        // The answers are about the run as it lay then.
        const current = about !== null && before !== undefined && courseOf(about, before) === course;
        return (
          <RunMark
            key={run.id}
            run={run}
            course={course}
            view={view}
            frame={frame}
            lens={lens}
            drain={current && lens === "drain" ? drains.get(run.id) : undefined}
            rungs={current && lens === "cold" ? (pieces.get(run.id) ?? noRungs) : noRungs}
            numbers={numbers}
            chosen={runs.has(run.id)}
            bare={bare}
            weight={weight}
          />
        );
      })}
      {!bare && <Notes {...props} />}
    </g>
  );
});

const shareOf = (p: Schema["PartDrain"] | undefined) => (p && p.fullL > 0 ? Math.min(1, p.retainedL / p.fullL) : 0);

/** What lies over the drawing: the points of the run in hand at once, names and discs when there is time for them. */
function Notes(props: Props) {
  const { rig, view, frame, points = none, runId = null } = props;
  const run = runId ? indexOf(rig).runs.get(runId) : undefined;
  const course = run ? courseOf(rig, run) : [];
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const later = useDeferredValue(props);
  return (
    <g>
      <Names {...later} />
      {course.map((p) => {
        const at = px(p.at);
        const chosen = points.has(p.id);
        const end = p.id === "from" || p.id === "to";
        return (
          <circle
            key={p.id}
            data-handle={`${runId}:${p.id}`}
            cx={at.x}
            cy={at.y}
            r={chosen ? 8 : end ? 4 : 6}
            fill={chosen ? "var(--ink)" : "var(--panel)"}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        );
      })}
    </g>
  );
}

/** Names and discs, placed anew as a whole. */
const Names = memo(function Names(props: Props) {
  const { rig, answers, view, frame, lens, parts = none } = props;
  const print = usePrint();
  const { stock } = useCatalogue();
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const inside = (p: Px) => p.x > 0 && p.y > 0 && p.x < frame.width && p.y < frame.height;
  const discs = placeDiscs(answers?.advice?.findings ?? [], props.findingId, props.close ?? false, px, inside);
  const air = useMemo(() => new Map(answers?.freezeLadder?.zones.map((z) => [z.zoneId, z.airC])), [answers?.freezeLadder]);

  const wanted: Wanted[] = [];
  for (const zone of rig.shell.zones) {
    const r = rectOf(view, frame, zone.box);
    if (r.width < 60 || zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor")) continue;
    const temperature = lens === "cold" ? ` ${print(air.get(zone.id), "temperature")}` : "";
    wanted.push({
      id: `zone:${zone.id}`,
      text: zone.name + temperature,
      x: Math.max(r.x, 0) + 4,
      y: r.y + r.height - 14,
      width: 1,
      height: 10,
      rank: lens === "cold" ? 0 : 3,
    });
  }
  for (const p of rig.parts) {
    const kind = stock.get(p.stock);
    if (kind?.look === "joint" && !parts.has(p.id)) continue;
    const r = rectOf(view, frame, p.box);
    if (!inside({ x: r.x + r.width / 2, y: r.y + r.height / 2 })) continue;
    const chosen = parts.has(p.id);
    // Close up there is room for every name; from afar only for what a builder looks for first.
    const big = p.box.size.xM * p.box.size.yM > 0.015 || kind?.landmark;
    if (!big && !chosen && frame.scale < 190) continue;
    wanted.push({ id: p.id, text: short(p.name), ...r, rank: chosen ? -1 : big ? 1 : 2 });
  }
  for (const o of rig.shell.obstacles.slice(0, view === "plan" ? undefined : 1))
    wanted.push({ id: `obstacle:${o.id}`, text: o.kind === "wheelArch" ? "arch" : short(o.name), ...rectOf(view, frame, o.box), rank: 3 });
  const labels = placeLabels(
    wanted,
    discs.map(roomOf),
    frame,
    rig.runs.map((r) => courseOf(rig, r).map((p) => px(p.at))),
  );
  return (
    <g>
      <Labels
        labels={labels}
        styleOf={(id) => ({ fontWeight: parts.has(id) ? 650 : 450, fill: id.includes(":") ? "var(--muted)" : "var(--ink)" })}
      />
      <Discs discs={discs} chosenId={props.findingId} onFinding={props.onFinding} />
    </g>
  );
});

/** A drawing has no room for more of a name. */
const short = (name: string) => (name.length > 32 ? `${name.slice(0, 30)}…` : name);

const Backdrop = memo(function Backdrop(props: { shell: Schema["Shell"]; view: View; frame: Frame; bare: boolean; zoneId: string | null }) {
  const { shell, view, frame, bare } = props;
  const zones = [...shell.zones].sort((a, b) => volume(b.box) - volume(a.box));
  return (
    <g>
      {view === "side" && <Wheel shell={shell} frame={frame} />}
      <rect {...rectOf(view, frame, shell.body)} fill="var(--panel)" stroke="var(--ink)" strokeWidth={bare ? 1 : 1.5} rx={4} />
      {zones.map((zone) => {
        const chosen = zone.id === props.zoneId;
        if (!chosen && (zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor"))) return null;
        return (
          <rect
            key={zone.id}
            {...rectOf(view, frame, zone.box)}
            fill="var(--sunk)"
            opacity={0.75}
            stroke={chosen ? "var(--ink)" : "var(--strong)"}
            strokeWidth={chosen ? 2 : 0.75}
            strokeDasharray={chosen ? "6 3" : "2 3"}
          />
        );
      })}
      {shell.obstacles.map((o) => (
        <rect key={o.id} {...rectOf(view, frame, o.box)} fill="url(#solid-hatch)" stroke="var(--strong)" strokeWidth={0.75} />
      ))}
    </g>
  );
});

function Wheel({ shell, frame }: { shell: Schema["Shell"]; frame: Frame }) {
  const arch = shell.obstacles.find((o) => o.kind === "wheelArch");
  if (!arch) return null;
  const wheel = wheelUnder(arch.box);
  const at = toPx("side", frame, wheel.centre);
  const r = wheel.radiusM * frame.scale;
  return (
    <g opacity={0.7}>
      <circle cx={at.x} cy={at.y} r={r} fill="var(--sunk)" stroke="var(--strong)" />
      <circle cx={at.x} cy={at.y} r={r * 0.45} fill="none" stroke="var(--strong)" />
    </g>
  );
}

const volume = (b: Schema["Box"]) => b.size.xM * b.size.yM * b.size.zM;

const PartMark = memo(function PartMark(props: {
  part: Schema["Part"];
  view: View;
  frame: Frame;
  look: Schema["PartLook"];
  numbers: Schema["TradeNumbers"];
  rung: Schema["Rung"] | undefined;
  /** How full of water that stays. */
  share: number;
  chosen: boolean;
  bare: boolean;
}) {
  const { part, view, rung, chosen, bare, share } = props;
  const rect = rectOf(view, props.frame, part.box);
  const mid = { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 };
  // Under the floor, seen from above.
  const hidden = view === "plan" && part.box.at.zM + part.box.size.zM <= 0;
  const line = { stroke: "var(--ink)", strokeDasharray: hidden ? "4 3" : undefined, strokeWidth: chosen ? 2.5 : bare ? 0.8 : 1.25 };
  const iced = rung !== undefined && rung.morningIce > 0;
  return (
    <g data-part={part.id}>
      <title>{part.name}</title>
      {props.look === "joint" ? (
        <circle cx={mid.x} cy={mid.y} r={bare ? 1.5 : chosen ? 5 : 3} fill="var(--ink)" />
      ) : props.look === "openEnd" ? (
        <circle cx={mid.x} cy={mid.y} r={bare ? 2 : chosen ? 6 : 4} fill="var(--panel)" {...line} />
      ) : props.look === "drain" ? (
        <path d={funnel(mid, bare ? 4 : chosen ? 9 : 7)} fill="var(--ink)" stroke="var(--panel)" strokeWidth={1} />
      ) : (
        <>
          <rect {...rect} rx={2} fill="var(--panel)" />
          {/* Water stands from the bottom up; from above it is as deep a tint as it is full. */}
          {share > 0.002 && (
            <rect {...filled(rect, view, share)} rx={2} fill="var(--stays)" fillOpacity={view === "plan" ? 0.08 + 0.34 * share : 0.42} />
          )}
          {rung && (
            <rect
              {...rect}
              rx={2}
              fill={iced ? "url(#ice-hatch)" : cssOf(colourOf(props.numbers, rung.morningC))}
              fillOpacity={iced ? 1 : 0.35}
            />
          )}
          <rect {...rect} rx={2} fill="none" {...line} />
        </>
      )}
    </g>
  );
});

const funnel = (mid: Px, r: number) => `M${mid.x - r} ${mid.y - r / 2}h${2 * r}l${-r} ${r * 1.3}z`;
const filled = (r: Rect, view: View, share: number): Rect =>
  view === "plan" ? r : { x: r.x, width: r.width, y: r.y + r.height * (1 - share), height: r.height * share };

interface RunProps {
  run: Schema["Run"];
  course: RunPoint[];
  view: View;
  frame: Frame;
  lens: "drain" | "cold";
  drain: Schema["RunDrain"] | undefined;
  rungs: Schema["Rung"][];
  numbers: Schema["TradeNumbers"];
  chosen: boolean;
  bare: boolean;
  weight: number;
}

const sameRun = (a: RunProps, b: RunProps) =>
  a.run === b.run &&
  a.course === b.course &&
  a.view === b.view &&
  a.frame === b.frame &&
  a.lens === b.lens &&
  a.drain === b.drain &&
  a.numbers === b.numbers &&
  a.chosen === b.chosen &&
  a.rungs.length === b.rungs.length &&
  a.rungs.every((r, i) => r === b.rungs[i]);

const RunMark = memo(function RunMark({ run, course, view, frame, drain, rungs, numbers, chosen, bare, weight }: RunProps) {
  if (course.length === 0) return null;
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const line = course.map((p) => px(p.at));
  const d = pathOf(line);
  return (
    <g data-run={run.id}>
      <title>{run.name}</title>
      {chosen && !bare && (
        <path d={d} fill="none" stroke="var(--ink)" strokeOpacity={0.16} strokeWidth={15} strokeLinejoin="round" strokeLinecap="round" />
      )}
      <RunStroke d={d} service={run.service} colour="var(--pipe)" weight={weight * (chosen ? 1.15 : 1)} />
      {drain && <path d={wetPath(drain, course, px)} stroke="var(--stays)" strokeWidth={8 * weight} strokeLinecap="round" fill="none" />}
      {drain && !bare && <path d={chevrons(drain, line)} fill="none" stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round" />}
      {rungs.map((r) => (
        <ColdPiece key={r.id} rung={r} px={px} run={run} weight={weight} numbers={numbers} bare={bare} />
      ))}
    </g>
  );
}, sameRun);

/** The lengths in which water stays. */
function wetPath(drain: Schema["RunDrain"], course: RunPoint[], px: (p: Schema["Point3"]) => Px) {
  return drain.stations
    .flatMap((s, k) => {
      const [from, to] = [course[k], course[k + 1]];
      return from && to && s.wetTo > s.wetFrom ? [pathOf(partOfLine(from.at, to.at, s.wetFrom, s.wetTo).map(px))] : [];
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
    return <path d={pathOf(line)} fill="none" stroke="url(#ice-hatch)" strokeWidth={7 * weight} strokeLinejoin="round" />;
  return (
    <>
      <RunStroke d={pathOf(line)} service={run.service} colour={cssOf(colour)} weight={weight * 1.2} />
      {!props.bare && <path d={markOf(colour, line)} fill="none" stroke="var(--ink)" strokeWidth={1.5} />}
    </>
  );
}
