import { memo, useCallback, useDeferredValue, useMemo } from "react";
import type { Schema } from "../api/client";
import { useCatalogue } from "../app/catalogue";
import { usePrint } from "../app/units";
import { courseOf, indexOf, portsTaken } from "../document/geometry";
import type { Way } from "../document/way";
import { useRested } from "../ui/useRested";
import { AirMarks } from "./AirMarks";
import { placeDiscs, placeTags, type Tag, tagRoom } from "./discs";
import { FlowMarks, type Knob, Knobs, knobRoom } from "./FlowMarks";
import { HeatMarks, wattsOf, wattsRoom } from "./HeatMarks";
import { type Area, placeLabels, type Wanted } from "./labels";
import type { Lens } from "./lens";
import { Discs, Labels, Ports, roomOf, Tags } from "./notes";
import { middlesOf } from "./pick";
import { type Frame, type Px, rectOf, toPx, type View } from "./projection";
import { SheetMarks, ShellMarks } from "./SheetMarks";

type Rig = Schema["Rig"];
/** What is drawn of the answers; a thumbnail has fewer of them. */
type Answers = Partial<Pick<Schema["AnswersAnswer"]["answers"], "drainDown" | "freezeLadder" | "advice">>;

interface Props {
  rig: Rig;
  /** The state of the rig that the answers are about; what has moved since is drawn without them. */
  about: Rig | null;
  answers: Answers | null;
  view: View;
  frame: Frame;
  lens: Lens;
  /** What belongs to what is selected; the rest is pale. Null: nothing is. */
  way?: Way | null;
  /** Things in hand. */
  runs?: ReadonlySet<string>;
  parts?: ReadonlySet<string>;
  zoneId?: string | null;
  /** The run whose points are shown, and those of them in hand. */
  runId?: string | null;
  points?: ReadonlySet<string>;
  /** The part whose ports are shown, and the one of them in hand. */
  partId?: string | null;
  portId?: string | null;
  findingId?: string | null;
  /** Close up: every name and every disc. */
  close?: boolean;
  /** A thumbnail: no names, no numbers. */
  bare?: boolean;
  onFinding?(finding: Schema["Finding"]): void;
  /** Numbers that hang on parts; then those alone and landmarks are named. */
  tags?: Tag[];
  onTag?(number: number): void;
  /** Where its water goes, under the water lens, and what is turned by a hand. */
  flow?: Schema["WaterFlowAnswer"] | null;
  /** What blowing out sweeps, under the air lens: of one outlet, or the best of all. */
  air?: Schema["BlowOutAnswer"] | null;
  outletId?: string | null;
  /** What its circuits do at an hour, under the heat lens. */
  heating?: Schema["HeatingAnswer"] | null;
  hour?: number;
  knobs?: Knob[];
  onKnob?(partId: string): void;
}

const none: ReadonlySet<string> = new Set();
const noTags: Tag[] = [];
const noRungs: Schema["Rung"][] = [];
const noKnobs: Knob[] = [];

/** The rig from above or from the kerb: zones, what is in the way, parts, runs, and what its water does. */
export const RigDrawing = memo(function RigDrawing(props: Props) {
  const { rig, about, answers, view, frame, lens, bare = false, runs = none, parts = none, way = null } = props;
  const { stock, numbers } = useCatalogue();
  const drains = useMemo(() => new Map(answers?.drainDown?.runs.map((r) => [r.runId, r])), [answers?.drainDown]);
  const held = useMemo(() => new Map(answers?.drainDown?.parts.map((p) => [p.partId, p])), [answers?.drainDown]);
  const ladder = answers?.freezeLadder;
  const rungOfPart = useMemo(() => new Map(ladder?.rungs.flatMap((r) => (r.partId ? [[r.partId, r] as const] : []))), [ladder]);
  const pieces = useMemo(() => Map.groupBy(ladder?.rungs ?? [], (r) => r.runId ?? null), [ladder]);
  const sheet = useMemo(() => ({ view, frame, lens, numbers, bare }), [view, frame, lens, numbers, bare]);
  const then = about && indexOf(about);
  const reaches = useMemo(() => props.flow && new Map(props.flow.runs.map((r) => [r.runId, r.reach])), [props.flow]);
  const px = useCallback((p: Schema["Point3"]) => toPx(view, frame, p), [view, frame]);
  const print = usePrint();

  return (
    <g>
      <ShellMarks shell={rig.shell} view={view} frame={frame} bare={bare} zoneId={props.zoneId ?? null} />
      <SheetMarks
        sheet={sheet}
        parts={rig.parts.map((part) => ({
          part,
          rung: lens === "cold" ? rungOfPart.get(part.id) : undefined,
          look: stock.get(part.stock)?.look ?? "body",
          share: lens === "drain" ? shareOf(held.get(part.id)) : 0,
          chosen: parts.has(part.id),
          pale: way !== null && !way.parts.has(part.id),
        }))}
        runs={rig.runs.map((run) => {
          const course = courseOf(rig, run);
          const before = then?.runs.get(run.id);
          // The answers are about the run as it lay then.
          const current = about !== null && before !== undefined && courseOf(about, before) === course;
          return {
            run,
            course,
            drain: current && lens === "drain" ? drains.get(run.id) : undefined,
            rungs: current && lens === "cold" ? (pieces.get(run.id) ?? noRungs) : noRungs,
            reach: reaches?.get(run.id),
            chosen: runs.has(run.id),
            pale: way !== null && !way.runs.has(run.id),
          };
        })}
      />
      {props.flow && !bare && <FlowMarks rig={rig} flow={props.flow} px={px} />}
      {props.air && <AirMarks rig={rig} air={props.air} stepId={props.outletId ?? null} px={px} />}
      {props.heating && <HeatMarks rig={rig} heating={props.heating} hour={props.hour ?? 0} px={px} print={print} />}
      {!bare && <Notes {...props} />}
    </g>
  );
});

const shareOf = (p: Schema["PartDrain"] | undefined) => (p && p.fullL > 0 ? Math.min(1, p.retainedL / p.fullL) : 0);

/** What lies over the drawing: the points of the run in hand at once, names and discs when there is time for them. */
function Notes(props: Props) {
  const { rig, view, frame, points = none, runId = null, partId = null } = props;
  const { runs, parts } = indexOf(rig);
  const run = runId ? runs.get(runId) : undefined;
  const part = partId ? parts.get(partId) : undefined;
  const course = run ? courseOf(rig, run) : [];
  const px = (p: Schema["Point3"]) => toPx(view, frame, p);
  const later = useDeferredValue(props);
  return (
    <g>
      <Names {...later} />
      {part && <Ports part={part} portId={props.portId ?? null} taken={portsTaken(rig, part.id)} px={px} />}
      {run &&
        middlesOf(rig, run, px).map(({ leg, px: at }) => (
          <path
            key={leg}
            data-handle={`${runId}/${leg}`}
            d={`M${at.x - 5} ${at.y}h10M${at.x} ${at.y - 5}v10`}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        ))}
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

/** Names and discs. Names are placed anew as a whole, once the hand rests. */
const Names = memo(function Names(props: Props) {
  const { answers, view, frame, lens, parts = none, way = null, tags = noTags, knobs = noKnobs } = props;
  const rig = useRested(props.rig);
  const print = usePrint();
  const { stock } = useCatalogue();
  const [px, inside] = useMemo(
    () => [(p: Schema["Point3"]) => toPx(view, frame, p), (p: Px) => p.x > 0 && p.y > 0 && p.x < frame.width && p.y < frame.height],
    [view, frame],
  );
  // Under the water lens knobs hang where discs would.
  const discs = placeDiscs(
    lens === "water" || lens === "air" || lens === "heat" ? [] : (answers?.advice?.findings ?? []),
    props.findingId,
    props.close ?? false,
    px,
    inside,
  );
  const ladder = useRested(answers?.freezeLadder);
  const air = useMemo(() => new Map(ladder?.zones.map((z) => [z.zoneId, z.airC])), [ladder]);
  const [tagged, hung] = useMemo(() => {
    const byId = indexOf(rig).parts;
    const at = (id: string) => {
      const part = byId.get(id);
      const r = part && rectOf(view, frame, part.box);
      const middle = r && { x: r.x + r.width / 2, y: r.y + r.height / 2 };
      return middle && inside(middle) ? middle : undefined;
    };
    return [placeTags(tags, at), placeTags(knobs, at, knobRoom, frame)];
  }, [tags, knobs, rig, view, frame, inside]);
  const { heating, hour = 0 } = props;
  const figures = useMemo(() => (heating ? wattsOf(rig, heating, hour, px, print) : []), [rig, heating, hour, px, print]);
  const rooms = useRested(
    JSON.stringify([...discs.flatMap(roomOf), ...tagged.map(tagRoom), ...hung.map(knobRoom), ...figures.map(wattsRoom)]),
  );

  const labels = useMemo(() => {
    const wanted: Wanted[] = [];
    for (const zone of rig.shell.zones) {
      const r = rectOf(view, frame, zone.box);
      if (r.width < (lens === "cold" ? 30 : 60) || zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor")) continue;
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
      if (way && !way.parts.has(p.id)) continue;
      if (tags.length > 0 && !kind?.landmark && !tags.some((t) => t.partId === p.id)) continue;
      // Close up there is room for every name; from afar only for what a builder looks for first.
      const big = p.box.size.xM * p.box.size.yM > 0.015 || kind?.landmark === true;
      if (!big && !chosen && frame.scale < 190) continue;
      wanted.push({ id: p.id, text: short(p.name), ...r, rank: chosen ? -1 : big ? 1 : 2, led: big });
    }
    for (const o of rig.shell.obstacles.slice(0, view === "plan" ? undefined : 1))
      wanted.push({
        id: `obstacle:${o.id}`,
        text: o.kind === "wheelArch" ? "arch" : short(o.name),
        ...rectOf(view, frame, o.box),
        rank: 3,
      });
    const lines = rig.runs.map((r) => courseOf(rig, r).map((p) => px(p.at)));
    return placeLabels(wanted, JSON.parse(rooms) as Area[], frame, lines);
  }, [rig, view, frame, lens, parts, way, tags, stock, print, air, rooms, px, inside]);
  return (
    <g>
      <Labels
        labels={labels}
        styleOf={(id) => ({ fontWeight: parts.has(id) ? 650 : 450, fill: id.includes(":") ? "var(--muted)" : "var(--ink)" })}
      />
      <Discs discs={discs} chosenId={props.findingId} onFinding={props.onFinding} />
      <Tags tags={tagged} onTag={props.onTag} />
      <Knobs knobs={hung} onKnob={props.onKnob} />
    </g>
  );
});

/** A drawing has no room for more of a name. */
const short = (name: string) => (name.length > 32 ? `${name.slice(0, 30)}…` : name);
