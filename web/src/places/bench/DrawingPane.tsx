import { useGesture } from "@use-gesture/react";
import { Maximize2, Minimize2, Minus, Plus, Scan } from "lucide-react";
import { useRef } from "react";
import { extentOf, type Frame, type View } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";
import { useBench } from "./benchStore";

/** How far a reader has zoomed in, and where to; null: all of it. The place along the vehicle is shared by both drawings. */
export interface Zoom {
  factor: number;
  alongM: number | null;
  otherM: Record<View, number | null>;
}

export const whole: Zoom = { factor: 1, alongM: null, otherM: { plan: null, side: null } };

const titles: Record<View, [string, string]> = {
  plan: ["Plan", "cab →"],
  side: ["Side", "from the kerb, cab →"],
};

interface Props {
  view: View;
  zoom: Zoom;
  wide: boolean;
  onZoom(zoom: Zoom): void;
  onWide(): void;
}

/** One of the two drawings, with its frame: wheel or pinch to zoom, drag to move. */
export function DrawingPane({ view, zoom, wide, onZoom, onWide }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const svg = useRef<SVGSVGElement>(null);
  const { rig, answers, lens, selection, select } = useBench();
  const extent = rig ? extentOf(rig, view) : { lowX: 0, highX: 1, lowO: 0, highO: 1 };
  const pad = 22;
  const fit = Math.max(
    10,
    Math.min((size.width - 2 * pad) / (extent.highX - extent.lowX), (size.height - 2 * pad) / (extent.highO - extent.lowO)),
  );
  const frame: Frame = {
    ...size,
    scale: fit * zoom.factor,
    alongM: zoom.alongM ?? (extent.lowX + extent.highX) / 2,
    otherM: zoom.otherM[view] ?? (extent.lowO + extent.highO) / 2,
  };

  const zoomTo = (factor: number, at?: { x: number; y: number }) => {
    const next = Math.min(12, Math.max(1, factor));
    if (next === 1) return onZoom(whole);
    // The place under the pointer stays under it.
    const x = (at?.x ?? size.width / 2) - size.width / 2;
    const y = size.height / 2 - (at?.y ?? size.height / 2);
    const shift = 1 / frame.scale - 1 / (fit * next);
    onZoom({
      factor: next,
      alongM: frame.alongM + x * shift,
      otherM: { ...zoom.otherM, [view]: frame.otherM + y * shift },
    });
  };
  // The buttons go to what is in hand, else to the middle.
  const zoomBy = (factor: number) => {
    const place = answers?.advice.findings.find((f) => f.id === selection.findingId)?.place?.at;
    const run = answers?.drainDown.runs.find((r) => r.runId === selection.runId);
    const station = run?.stations.find((s) => s.id === selection.pointId);
    const target = station?.at ?? place;
    if (!target || factor < 1) return zoomTo(zoom.factor * factor);
    onZoom({
      factor: Math.min(12, zoom.factor * factor),
      alongM: target.xM,
      otherM: { plan: target.yM, side: target.zM },
    });
  };
  const local = ([x, y]: [number, number]) => {
    const r = svg.current?.getBoundingClientRect();
    return { x: x - (r?.left ?? 0), y: y - (r?.top ?? 0) };
  };
  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        zoomTo(zoom.factor * Math.exp(-dy / 400), local([event.clientX, event.clientY]));
      },
      onPinch: ({ offset: [factor], origin }) => zoomTo(factor, local(origin)),
      onDrag: ({ delta: [dx, dy], pinching, cancel }) => {
        if (pinching) return cancel();
        if (zoom.factor === 1) return;
        onZoom({
          ...zoom,
          alongM: frame.alongM - dx / frame.scale,
          otherM: { ...zoom.otherM, [view]: frame.otherM + dy / frame.scale },
        });
      },
    },
    {
      target: svg,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { keys: false } },
      pinch: { from: () => [zoom.factor, 0] },
    },
  );

  const [title, hint] = titles[view];
  const tool = "grid size-10 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink disabled:opacity-30";
  return (
    <Panel aria-label={`${title} drawing`} className="flex flex-col">
      <header className="flex h-10 items-center pl-3">
        <h2 className="font-semibold">{title}</h2>
        <span className="ml-2 text-muted">{hint}</span>
        <span className="grow" />
        <button type="button" className={tool} aria-label="Zoom in" onClick={() => zoomBy(1.5)}>
          <Plus size={17} />
        </button>
        <button type="button" className={tool} aria-label="Zoom out" disabled={zoom.factor === 1} onClick={() => zoomBy(1 / 1.5)}>
          <Minus size={17} />
        </button>
        <button type="button" className={tool} aria-label="Show all of it" disabled={zoom.factor === 1} onClick={() => onZoom(whole)}>
          <Scan size={17} />
        </button>
        <button
          type="button"
          className={tool}
          aria-label={wide ? "Show both drawings" : `Show only the ${title.toLowerCase()}`}
          onClick={onWide}
        >
          {wide ? <Minimize2 size={16} /> : <Maximize2 size={16} />}
        </button>
      </header>
      <div ref={box} className="min-h-0 grow overflow-hidden">
        {rig && size.width > 0 && (
          <svg ref={svg} width={size.width} height={size.height} className="block touch-none select-none" data-view={view}>
            <title>{`${title} of ${rig.name}`}</title>
            <RigDrawing
              rig={rig}
              answers={answers}
              view={view}
              frame={frame}
              lens={lens}
              {...selection}
              onRun={(runId) => select({ runId })}
              onPart={(partId) => select({ partId, runId: selection.runId })}
              onFinding={(f) => select({ findingId: f.id, runId: f.runIds[0] ?? null, partId: f.place?.partId ?? null })}
            />
          </svg>
        )}
      </div>
    </Panel>
  );
}
