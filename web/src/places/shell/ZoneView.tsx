import { Snowflake } from "lucide-react";
import { type PointerEvent, useState } from "react";
import type { Schema } from "../../api/client";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { type Rig, volumeOf, type Xyz } from "../../document/geometry";
import { type Area, overlap, widthOf } from "../../drawing/labels";
import { axesOf, type Frame, type Look, rectOf, threeViews } from "../../drawing/projection";
import { ShellMarks } from "../../drawing/SheetMarks";
import { useSize } from "../../ui/useSize";
import { useAnswers, useStores } from "../bench/benchStores";
import { stepsOf } from "../bench/moving";
import { type Edge, edgesOf, LEAST_M, snapped, withEdge } from "./zoneEdges";
import { boxOf, drawFaces, roomIn } from "./zoneEdits";

interface Props {
  rig: Rig;
  zoneId: string | null;
  onZone(id: string): void;
  /** While a room is being drawn: what its corners span. */
  onDrawn: ((box: Schema["Box"]) => void) | undefined;
}

/** Rooms from the kerb and from the rear, over rooms from above; the edges of the one that is selected are pulled. */
export function ZoneDrawing({ rig, zoneId, onZone, onDrawn }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const frames = threeViews(rig, size);
  return (
    <div ref={box} className="mt-2 h-[30rem] overflow-hidden rounded-[5px] bg-ground">
      {frames && (
        <div className="flex flex-wrap">
          {(["side", "rear", "plan"] as const).map((view) => (
            <ZoneView key={view} rig={rig} view={view} frame={frames[view]} zoneId={zoneId} onZone={onZone} onDrawn={onDrawn} />
          ))}
        </div>
      )}
    </div>
  );
}

interface Named {
  zone: Schema["Zone"];
  text: string;
  area: Area;
}

/** Names and temperatures in a corner of their rooms, that of the selected first; one that would lie on another is left out. */
function namesOf(zones: Schema["Zone"][], chosenId: string | null, view: Look, frame: Frame, airOf: (z: Schema["Zone"]) => string) {
  const placed: Named[] = [];
  for (const zone of [...zones].sort((a, b) => Number(b.id === chosenId) - Number(a.id === chosenId))) {
    const r = rectOf(view, frame, zone.box);
    const text = [`${zone.name} ${airOf(zone)}`, airOf(zone)].find((t) => widthOf(t) < r.width - 4);
    if (!text || r.height < 20) continue;
    const size = { width: widthOf(text), height: 14 };
    const spots = [r.y + 4, r.y + r.height - 18].flatMap((y) => [
      { x: r.x + 6, y, ...size },
      { x: r.x + r.width - size.width - 22, y, ...size },
    ]);
    const area = spots.find((a) => placed.every((p) => !overlap(p.area, a)));
    if (area) placed.push({ zone, text, area });
  }
  return placed;
}

const words = { side: "from the kerb", plan: "from above", rear: "from the rear" } as const;

function ZoneView({ rig, view, frame, zoneId, onZone, onDrawn }: Props & { view: Look; frame: Frame }) {
  const { document } = useStores();
  const heat = useAnswers((s) => s.answers?.shellHeat);
  const system = useSettings((s) => s.system);
  const print = usePrint();
  const zones = [...rig.shell.zones].sort((a, b) => volumeOf(b.box) - volumeOf(a.box));
  const chosen = rig.shell.zones.find((z) => z.id === zoneId);
  const { right, up, sign } = axesOf[view];
  // Where the pointer is, on the two axes that the view shows.
  const under = (e: PointerEvent<SVGElement>): Partial<Xyz> => {
    const svg = (e.currentTarget.ownerSVGElement ?? e.currentTarget).getBoundingClientRect();
    return {
      [right]: frame.alongM + (sign * (e.clientX - svg.left - frame.width / 2)) / frame.scale,
      [up]: frame.otherM - (e.clientY - svg.top - frame.height / 2) / frame.scale,
    };
  };
  const [corners, setCorners] = useState<Partial<Record<keyof Xyz, [number, number]>> | null>(null);
  const onSnap = (axis: keyof Xyz, m: number) => snapped(rig, "", axis, m, 8 / frame.scale, stepsOf(system).plain);
  const begin = (e: PointerEvent<SVGRectElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    const at = under(e);
    const [x, y] = [onSnap(right, at[right] ?? 0), onSnap(up, at[up] ?? 0)];
    setCorners({ [right]: [x, x], [up]: [y, y] });
  };
  const span = (e: PointerEvent<SVGRectElement>) => {
    if (!corners || e.buttons !== 1) return;
    const at = under(e);
    const led = (axis: keyof Xyz): [number, number] => [corners[axis]?.[0] ?? 0, onSnap(axis, at[axis] ?? 0)];
    setCorners({ [right]: led(right), [up]: led(up) });
  };
  const end = () => {
    const box = corners && roomIn(rig, corners);
    setCorners(null);
    if (box && box.size[right] >= LEAST_M && box.size[up] >= LEAST_M) onDrawn?.(box);
  };
  const pull = (edge: Edge) => (e: PointerEvent<SVGRectElement>) => {
    if (!chosen || e.buttons !== 1) return;
    const to = withEdge(rig, chosen.id, edge, under(e)[edge.axis] ?? 0, 8 / frame.scale, stepsOf(system).plain);
    if (to) document.show([boxOf(chosen.id, to)]);
  };
  const letGo = () => {
    const edits = document.getState().previewEdits;
    if (edits.length > 0 && chosen) document.commit(`Edges of ${chosen.name}`, [...edits, drawFaces]);
  };
  return (
    <svg
      width={frame.width}
      height={frame.height}
      role="img"
      aria-label={`Rooms ${words[view]}`}
      className="block touch-none select-none"
      data-zones={view}
    >
      <text x={12} y={14} style={{ fill: "var(--muted)" }}>
        {words[view]}
      </text>
      <ShellMarks shell={{ ...rig.shell, zones: [] }} view={view} frame={frame} bare={false} zoneId={null} />
      {zones.map((z) => {
        const r = rectOf(view, frame, z.box);
        const mine = z.id === zoneId;
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a room is the list beneath
          <g key={z.id} onClick={() => onZone(z.id)} className="cursor-pointer" data-zone={z.id}>
            <rect
              {...r}
              fill={mine ? "var(--sunk)" : "transparent"}
              fillOpacity={0.8}
              stroke={mine ? "var(--ink)" : "var(--strong)"}
              strokeWidth={mine ? 2 : 1}
              strokeDasharray={mine ? undefined : "3 3"}
            />
            {heat?.coldestId === z.id && r.width > 24 && r.height > 24 && (
              <Snowflake x={r.x + r.width - 20} y={r.y + 4} size={16} color="var(--ice)" aria-label="Coldest with water" />
            )}
          </g>
        );
      })}
      {namesOf(zones, zoneId, view, frame, (z) => print(heat?.zones.find((h) => h.zoneId === z.id)?.airC, "temperature")).map((n) => (
        <text
          key={n.zone.id}
          x={n.area.x}
          y={n.area.y + 11}
          style={{ fill: n.zone.id === zoneId ? "var(--ink)" : "var(--muted)" }}
          fontWeight={n.zone.id === zoneId ? 650 : 450}
          className="pointer-events-none"
        >
          {n.text}
        </text>
      ))}
      {chosen &&
        edgesOf(view).map((edge) => {
          const r = rectOf(view, frame, chosen.box);
          const along = edge.axis === right;
          // Up the page is high; from the rear, so is left.
          const x = along ? (edge.high === sign > 0 ? r.x + r.width : r.x) : r.x + r.width / 2;
          const y = along ? r.y + r.height / 2 : edge.high ? r.y : r.y + r.height;
          const [w, h] = along ? [40, Math.max(40, r.height)] : [Math.max(40, r.width), 40];
          return (
            <g key={`${edge.axis}${edge.high}`}>
              <rect x={x - 5} y={y - 5} width={10} height={10} rx={2} fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
              <rect
                x={x - w / 2}
                y={y - h / 2}
                width={w}
                height={h}
                fill="transparent"
                className={along ? "cursor-ew-resize" : "cursor-ns-resize"}
                data-edge={`${edge.axis}${edge.high ? "+" : "-"}`}
                onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
                onPointerMove={pull(edge)}
                onPointerUp={letGo}
                onPointerCancel={() => document.letGo()}
              />
            </g>
          );
        })}
      {onDrawn && (
        <rect
          width={frame.width}
          height={frame.height}
          fill="transparent"
          className="cursor-crosshair"
          data-draw={view}
          onPointerDown={begin}
          onPointerMove={span}
          onPointerUp={end}
          onPointerCancel={() => setCorners(null)}
        />
      )}
      {corners && (
        <rect
          {...rectOf(view, frame, roomIn(rig, corners))}
          fill="var(--sunk)"
          fillOpacity={0.8}
          stroke="var(--ink)"
          strokeWidth={2}
          className="pointer-events-none"
        />
      )}
    </svg>
  );
}
