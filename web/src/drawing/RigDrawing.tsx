import { memo, useMemo } from "react";
import type { Schema } from "../api/client";
import { useCatalogue } from "../app/catalogue";
import { usePrint } from "../app/units";
import { alongLine, placeLabels, type Wanted } from "./labels";
import { type Frame, type Px, part as partOfLine, pathOf, rectOf, toPx, type View, wheelUnder } from "./projection";
import { RunStroke } from "./RunStroke";
import { colourOf, cssOf } from "./temperature";

type Rig = Schema["Rig"];
/** What is drawn of the answers; a thumbnail has fewer of them. */
type Answers = Pick<Schema["AnswersAnswer"]["answers"], "drainDown" | "freezeLadder" | "advice">;

interface Props {
  rig: Rig;
  answers: Answers | null;
  view: View;
  frame: Frame;
  lens: "drain" | "cold";
  runId?: string | null;
  partId?: string | null;
  findingId?: string | null;
  pointId?: string | null;
  /** A thumbnail: no names, no numbers, nothing to press. */
  bare?: boolean;
  onRun?(id: string): void;
  onPart?(id: string): void;
  onFinding?(finding: Schema["Finding"]): void;
}

/** The rig from above or from the kerb: zones, what is in the way, parts, runs, and what its water does. */
export const RigDrawing = memo(function RigDrawing(props: Props) {
  const { rig, answers, view, frame, lens, bare = false } = props;
  const print = usePrint();
  const { stock, numbers } = useCatalogue();
  const drains = useMemo(() => new Map(answers?.drainDown?.runs.map((r) => [r.runId, r])), [answers?.drainDown]);
  const retained = useMemo(() => new Map(answers?.drainDown?.parts.map((p) => [p.partId, p.retainedL])), [answers?.drainDown]);
  const ladder = answers?.freezeLadder;
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const weight = bare ? 0.6 : 1;

  const rungOfPart = useMemo(() => new Map(ladder?.rungs.flatMap((r) => (r.partId ? [[r.partId, r] as const] : []))), [ladder]);
  const pieces = useMemo(() => Map.groupBy(ladder?.rungs ?? [], (r) => r.runId ?? null), [ladder]);
  const air = useMemo(() => new Map(ladder?.zones.map((z) => [z.zoneId, z.airC])), [ladder]);
  const zones = [...rig.shell.zones].sort((a, b) => area(b.box) - area(a.box));
  const body = rectOf(view, frame, rig.shell.body);
  const discs = bare ? [] : placeDiscs(answers?.advice?.findings ?? [], px);

  const wanted: Wanted[] = [];
  if (!bare) {
    for (const zone of zones) {
      const r = rectOf(view, frame, zone.box);
      if (r.width < 60 || zone.kind === "living") continue;
      const temperature = lens === "cold" ? ` ${print(air.get(zone.id), "temperature")}` : "";
      const base = { x: r.x + 4, y: r.y + r.height - 14, width: 1, height: 10 };
      if (view === "plan" && zone.kind === "openUnderfloor") continue;
      wanted.push({
        id: `zone:${zone.id}`,
        text: zone.name + temperature,
        ...base,
        rank: lens === "cold" ? 0 : 3,
      });
    }
    for (const p of rig.parts) {
      if (stock.get(p.stock)?.look === "joint") continue;
      const chosen = p.id === props.partId;
      // Close up there is room for every name; from afar only for what a builder looks for first.
      const big = p.box.size.xM * p.box.size.yM > 0.015 || stock.get(p.stock)?.landmark;
      if (!big && !chosen && frame.scale < 190) continue;
      wanted.push({
        id: p.id,
        text: p.name,
        ...rectOf(view, frame, p.box),
        rank: chosen ? -1 : big ? 1 : 2,
      });
    }
    rig.shell.obstacles.forEach((o, i) => {
      const r = rectOf(view, frame, o.box);
      if (i === 0 || view === "plan") wanted.push({ id: `obstacle:${i}`, text: o.kind === "wheelArch" ? "arch" : o.name, ...r, rank: 3 });
    });
  }
  const lines = bare ? [] : rig.runs.flatMap((run) => alongLine(drains.get(run.id)?.stations.map((s) => px(s.at)) ?? []));
  const labels = placeLabels(
    wanted,
    discs.map((d) => ({ x: d.at.x - 12, y: d.at.y - 12, width: 24, height: 24 })),
    frame,
    lines,
  );

  return (
    <g>
      {view === "side" && <Wheel rig={rig} frame={frame} px={px} />}
      <rect {...body} fill="var(--panel)" stroke="var(--ink)" strokeWidth={bare ? 1 : 1.5} rx={4} />
      {zones.map((zone) => {
        if (zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor")) return null;
        return (
          <rect
            key={zone.id}
            {...rectOf(view, frame, zone.box)}
            fill="var(--sunk)"
            opacity={0.75}
            stroke="var(--strong)"
            strokeWidth={0.75}
            strokeDasharray="2 3"
          />
        );
      })}
      {rig.shell.obstacles.map((o) => (
        <rect key={o.name} {...rectOf(view, frame, o.box)} fill="url(#solid-hatch)" stroke="var(--strong)" strokeWidth={0.75} />
      ))}
      {rig.parts.map((p) => (
        <PartShape
          key={p.id}
          part={p}
          rect={rectOf(view, frame, p.box)}
          rung={lens === "cold" ? rungOfPart.get(p.id) : undefined}
          look={stock.get(p.stock)?.look ?? "body"}
          retainedL={lens === "drain" ? (retained.get(p.id) ?? 0) : 0}
          numbers={numbers}
          chosen={p.id === props.partId}
          bare={bare}
          hidden={view === "plan" && p.box.at.zM + p.box.size.zM <= 0}
          onPress={props.onPart && (() => props.onPart?.(p.id))}
        />
      ))}
      {rig.runs.map((run) => {
        const drain = drains.get(run.id);
        const course = (drain?.stations.map((s) => s.at) ?? []).map(px);
        if (course.length === 0) return null;
        const chosen = run.id === props.runId;
        return (
          <g key={run.id}>
            {chosen && !bare && (
              <path
                d={pathOf(course)}
                fill="none"
                stroke="var(--ink)"
                strokeOpacity={0.16}
                strokeWidth={15}
                strokeLinejoin="round"
                strokeLinecap="round"
              />
            )}
            <RunStroke d={pathOf(course)} service={run.service} colour="var(--pipe)" weight={weight * (chosen ? 1.15 : 1)} />
            {lens === "drain" && drain && <WetSpans drain={drain} px={px} weight={weight} />}
            {lens === "drain" && drain && !bare && <Chevrons drain={drain} px={px} />}
            {lens === "cold" &&
              pieces.get(run.id)?.map((r) => <ColdPiece key={r.id} rung={r} px={px} run={run} weight={weight} numbers={numbers} />)}
            {props.onRun && (
              // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a run is the list in the strip
              <path
                d={pathOf(course)}
                fill="none"
                stroke="transparent"
                strokeWidth={18}
                className="cursor-pointer"
                data-run={run.id}
                onClick={() => props.onRun?.(run.id)}
              >
                <title>{run.name}</title>
              </path>
            )}
          </g>
        );
      })}
      {!bare && <HandMark drain={drains.get(props.runId ?? "")} pointId={props.pointId} px={px} />}
      {labels.map((l) => (
        <text
          key={l.id}
          x={l.x}
          y={l.y}
          textAnchor={l.anchor}
          className="pointer-events-none"
          style={{
            paintOrder: "stroke",
            fontWeight: l.id === props.partId ? 650 : 450,
            fill: l.id.includes(":") ? "var(--muted)" : "var(--ink)",
          }}
          stroke="var(--panel)"
          strokeWidth={3}
          strokeLinejoin="round"
        >
          {l.text}
        </text>
      ))}
      {discs.map((d) => (
        <FindingDisc key={d.finding.id} {...d} chosen={d.finding.id === props.findingId} onPress={() => props.onFinding?.(d.finding)} />
      ))}
    </g>
  );
});

function Wheel({ rig, frame, px }: { rig: Rig; frame: Frame; px(p: Schema["Point3"]): Px }) {
  const arch = rig.shell.obstacles.find((o) => o.kind === "wheelArch");
  if (!arch) return null;
  const wheel = wheelUnder(arch.box);
  const at = px(wheel.centre);
  const r = wheel.radiusM * frame.scale;
  return (
    <g opacity={0.7}>
      <rect x={0} y={at.y + r} width={frame.width} height={1} fill="var(--strong)" />
      <circle cx={at.x} cy={at.y} r={r} fill="var(--sunk)" stroke="var(--strong)" />
      <circle cx={at.x} cy={at.y} r={r * 0.45} fill="none" stroke="var(--strong)" />
    </g>
  );
}

const area = (b: Schema["Box"]) => b.size.xM * b.size.yM * b.size.zM;

function PartShape(props: {
  part: Schema["Part"];
  look: Schema["PartLook"];
  numbers: Schema["TradeNumbers"];
  rect: { x: number; y: number; width: number; height: number };
  rung: Schema["Rung"] | undefined;
  retainedL: number;
  chosen: boolean;
  bare: boolean;
  /** Under the floor, seen from above. */
  hidden: boolean;
  onPress: (() => void) | undefined;
}) {
  const { part, rect, rung, chosen, bare } = props;
  // Drops in a tank are not water that stays.
  const holds = props.retainedL > props.numbers.dryRunL;
  const mid = { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 };
  const fill = rung
    ? rung.morningIce > 0
      ? "url(#ice-hatch)"
      : cssOf(colourOf(props.numbers, rung.morningC))
    : holds
      ? "var(--stays)"
      : "var(--panel)";
  const line = {
    stroke: "var(--ink)",
    strokeDasharray: props.hidden ? "4 3" : undefined,
    strokeWidth: chosen ? 2.5 : bare ? 0.8 : 1.25,
  };
  let shape = <rect {...rect} rx={2} fill={fill} fillOpacity={rung ? (rung.morningIce > 0 ? 1 : 0.35) : holds ? 0.32 : 1} {...line} />;
  if (props.look === "joint") shape = <circle cx={mid.x} cy={mid.y} r={bare ? 1.5 : chosen ? 5 : 3} fill="var(--ink)" />;
  else if (props.look === "openEnd") shape = <circle cx={mid.x} cy={mid.y} r={bare ? 2 : 4} fill="var(--panel)" {...line} />;
  else if (props.look === "drain") {
    const r = bare ? 4 : 7;
    shape = (
      <path d={`M${mid.x - r} ${mid.y - r / 2}h${2 * r}l${-r} ${r * 1.3}z`} fill="var(--ink)" stroke="var(--panel)" strokeWidth={1} />
    );
  }
  if (!props.onPress) return shape;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a part is the ladder and the strip
    <g className="cursor-pointer" onClick={props.onPress} data-part={part.id}>
      <title>{part.name}</title>
      {shape}
    </g>
  );
}

function WetSpans({ drain, px, weight }: { drain: Schema["RunDrain"]; px(p: Schema["Point3"]): Px; weight: number }) {
  return drain.stations.map((s, k) => {
    const next = drain.stations[k + 1];
    if (!next || s.wetTo <= s.wetFrom) return null;
    const [a, b] = partOfLine(s.at, next.at, s.wetFrom, s.wetTo);
    return <path key={s.id} d={pathOf([px(a), px(b)])} stroke="var(--stays)" strokeWidth={8 * weight} strokeLinecap="round" fill="none" />;
  });
}

/** Arrowheads along a length, pointing the way its water leaves. */
function Chevrons({ drain, px }: { drain: Schema["RunDrain"]; px(p: Schema["Point3"]): Px }) {
  return drain.stations.flatMap((s, k) => {
    const next = drain.stations[k + 1];
    if (!next || s.direction === 0 || (s.fall ?? 0) <= 0) return [];
    const [a, b] = s.direction > 0 ? [px(s.at), px(next.at)] : [px(next.at), px(s.at)];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const count = Math.floor(length / 52);
    const angle = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
    return Array.from({ length: count }, (_, i) => {
      const t = (i + 1) / (count + 1);
      const at = `translate(${a.x + (b.x - a.x) * t} ${a.y + (b.y - a.y) * t}) rotate(${angle})`;
      return (
        <path
          key={`${k}:${t}`}
          d="M-3.5-6 3.5 0-3.5 6"
          transform={at}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
      );
    });
  });
}

function ColdPiece(props: {
  rung: Schema["Rung"];
  px(p: Schema["Point3"]): Px;
  run: Schema["Run"];
  weight: number;
  numbers: Schema["TradeNumbers"];
}) {
  const { rung, px, run, weight } = props;
  const d = pathOf(rung.course.map(px));
  const colour = cssOf(colourOf(props.numbers, rung.morningC, rung.morningIce));
  if (rung.morningIce > 0) return <path d={d} fill="none" stroke="url(#ice-hatch)" strokeWidth={7 * weight} strokeLinejoin="round" />;
  return <RunStroke d={d} service={run.service} colour={colour} weight={weight * 1.2} />;
}

/** Where the point in hand is, in both drawings. */
function HandMark(props: { drain: Schema["RunDrain"] | undefined; pointId?: string | null | undefined; px(p: Schema["Point3"]): Px }) {
  const station = props.drain?.stations.find((s) => s.id === props.pointId);
  if (!station) return null;
  const at = props.px(station.at);
  return <circle cx={at.x} cy={at.y} r={8} fill="none" stroke="var(--ink)" strokeWidth={2} className="pointer-events-none" />;
}

interface Disc {
  finding: Schema["Finding"];
  number: number;
  at: Px;
  anchor: Px;
}

// Discs step aside from their place, and from each other where two findings share one.
function placeDiscs(findings: Schema["Finding"][], px: (p: Schema["Point3"]) => Px): Disc[] {
  const used: Px[] = [];
  return findings.flatMap((finding, i) => {
    // A finding on the rig as a whole has no place.
    if (!finding.place) return [];
    const anchor = px(finding.place.at);
    let at = { x: anchor.x + 15, y: anchor.y - 15 };
    for (let turn = 0; turn < 10 && used.some((u) => Math.hypot(u.x - at.x, u.y - at.y) < 24); turn++) {
      const angle = (turn * 50 * Math.PI) / 180;
      at = { x: anchor.x + 25 * Math.cos(angle), y: anchor.y - 25 * Math.sin(angle) };
    }
    used.push(at);
    return [{ finding, number: i + 1, at, anchor }];
  });
}

function FindingDisc({ finding, number, at, anchor, chosen, onPress }: Disc & { chosen: boolean; onPress(): void }) {
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a finding is the list beside the drawing
    <g className="cursor-pointer" onClick={onPress} data-finding={finding.id}>
      <title>{finding.title}</title>
      <path d={pathOf([anchor, at])} stroke="var(--ink)" strokeWidth={1} />
      <circle cx={at.x} cy={at.y} r={10.5} fill={chosen ? "var(--ink)" : "var(--panel)"} stroke="var(--ink)" strokeWidth={1.5} />
      <text
        x={at.x}
        y={at.y + 4.2}
        textAnchor="middle"
        fontWeight={700}
        style={{ fill: chosen ? "var(--panel)" : "var(--ink)", fontStretch: "100%" }}
      >
        {number}
      </text>
    </g>
  );
}
