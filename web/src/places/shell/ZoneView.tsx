import type { PointerEvent } from "react";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { type Rig, volumeOf } from "../../document/geometry";
import { axesOf, type Frame, type Look, rectOf, threeViews } from "../../drawing/projection";
import { ShellMarks } from "../../drawing/SheetMarks";
import { useSize } from "../../ui/useSize";
import { useAnswers, useStores } from "../bench/benchStores";
import { stepsOf } from "../bench/moving";
import { type Edge, edgesOf, withEdge } from "./zoneEdges";
import { boxOf, drawFaces } from "./zoneEdits";

/** Rooms from the kerb and from the rear, over rooms from above; the edges of the one in hand are pulled. */
export function ZoneDrawing({ rig, zoneId, onZone }: { rig: Rig; zoneId: string | null; onZone(id: string): void }) {
  const [box, size] = useSize<HTMLDivElement>();
  const frames = threeViews(rig, size);
  return (
    <div ref={box} className="mt-2 h-[30rem] overflow-hidden rounded-[5px] bg-ground">
      {frames && (
        <div className="flex flex-wrap">
          {(["side", "rear", "plan"] as const).map((view) => (
            <ZoneView key={view} rig={rig} view={view} frame={frames[view]} zoneId={zoneId} onZone={onZone} />
          ))}
        </div>
      )}
    </div>
  );
}

const words = { side: "from the kerb", plan: "from above", rear: "from the rear" } as const;

function ZoneView({
  rig,
  view,
  frame,
  zoneId,
  onZone,
}: {
  rig: Rig;
  view: Look;
  frame: Frame;
  zoneId: string | null;
  onZone(id: string): void;
}) {
  const { document } = useStores();
  const heat = useAnswers((s) => s.answers?.shellHeat);
  const system = useSettings((s) => s.system);
  const print = usePrint();
  const zones = [...rig.shell.zones].sort((a, b) => volumeOf(b.box) - volumeOf(a.box));
  const chosen = rig.shell.zones.find((z) => z.id === zoneId);
  const pull = (edge: Edge) => (e: PointerEvent<SVGRectElement>) => {
    if (!chosen || e.buttons !== 1) return;
    const svg = e.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (!svg) return;
    const at =
      edge.axis === axesOf[view].right
        ? frame.alongM + (axesOf[view].sign * (e.clientX - svg.left - frame.width / 2)) / frame.scale
        : frame.otherM - (e.clientY - svg.top - frame.height / 2) / frame.scale;
    const to = withEdge(rig, chosen.id, edge, at, 8 / frame.scale, stepsOf(system).plain);
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
        const air = heat?.zones.find((h) => h.zoneId === z.id);
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
            {r.width > 70 &&
              r.height > 30 &&
              (mine || view === "side" || (view === "plan" && z.kind !== "living" && z.kind !== "openUnderfloor")) && (
                <text
                  x={r.x + 6}
                  y={r.y + 15}
                  style={{ fill: mine ? "var(--ink)" : "var(--muted)" }}
                  fontWeight={mine ? 650 : 450}
                  className="pointer-events-none"
                >
                  {r.width > 6.3 * z.name.length + 56 ? z.name : ""} {air ? print(air.airC, "temperature") : ""}
                </text>
              )}
          </g>
        );
      })}
      {chosen &&
        edgesOf(view).map((edge) => {
          const r = rectOf(view, frame, chosen.box);
          const along = edge.axis === axesOf[view].right;
          // Up the page is high; from the rear, so is left.
          const x = along ? (edge.high === axesOf[view].sign > 0 ? r.x + r.width : r.x) : r.x + r.width / 2;
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
    </svg>
  );
}
