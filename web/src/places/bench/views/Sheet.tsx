import { useGesture } from "@use-gesture/react";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { newId } from "../../../app/ids";
import { useSettings } from "../../../app/settings";
import { indexOf, type Rig, type Run, type Xyz } from "../../../document/geometry";
import { extentOf, movedBy, placeOf, sameThing, type Thing } from "../../../document/things";
import { middleAt, pick, within } from "../../../drawing/pick";
import { type Px, toPx, type View } from "../../../drawing/projection";
import { RigDrawing } from "../../../drawing/RigDrawing";
import { useSize } from "../../../ui/useSize";
import { useAnswers, useDocument, useDrawing, useSelection, useStores } from "../benchStores";
import { bentAt } from "../drawingTools";
import { snapped, stepsOf } from "../moving";
import { keyed } from "../RigPage";
import { tieAt } from "../runDrawing";
import { useShownRig } from "../Shown";
import { profileRun } from "../selectionStore";
import { useActions } from "../useActions";
import { useDrawRun } from "../useDrawRun";
import { useView, whole } from "../viewStore";
import { useWaterDrawn } from "../water/useWater";
import { useWay } from "./cornerParts";
import { FixGhost } from "./FixGhost";
import { RunGhost } from "./RunGhost";
import { axes, GAP, type Layout, layOut, Marquee, MOST_ZOOM, turned, useStable, zoomAround } from "./sheetLayout";
import { ViewFrame } from "./ViewFrame";

/** The drafting sheet: the rig from the kerb over the rig from above. Things are taken and moved in it. */
export function Sheet({ beside }: { beside?: ReactNode }) {
  const [box, size] = useSize<HTMLDivElement>();
  const svg = useRef<SVGSVGElement>(null);
  const { document, selection, drawing } = useStores();
  const draw = useDrawRun();
  const drawingRun = useDrawing((d) => d !== null);
  const rig = useShownRig(useDocument((s) => s.rig) as Rig);
  const answers = useAnswers((s) => s.shown);
  const about = useAnswers((s) => s.about);
  const parked = useAnswers((s) => s.conditions?.parked);
  const things = useSelection((s) => s.things);
  const findingId = useSelection((s) => s.findingId);
  const stripRunId = useSelection(profileRun);
  const lens = useView((s) => s.lens);
  const zoom = useView((s) => s.zoom);
  const setZoom = useView((s) => s.setZoom);
  const system = useSettings((s) => s.system);
  const actions = useActions();
  const [marquee, setMarquee] = useState<{ view: View; a: Px; b: Px } | null>(null);
  const [over, setOver] = useState<View>("side");

  // Where the sheet lies is kept while something is moved on it, or it would move under the finger.
  const held = useRef<Layout | null>(null);
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const fresh = useMemo(() => (size.width > 0 ? layOut(rig, zoom, size) : null), [rig, zoom, size]);
  const stable = useStable(fresh);
  const layout = previewing && held.current ? held.current : stable;
  held.current = layout;

  const chosen = useMemo(() => {
    const last = things.at(-1);
    const runId = last && "runId" in last ? last.runId : null;
    return {
      runs: new Set(things.flatMap((t) => (t.kind === "run" || t.kind === "point" ? [t.runId] : []))),
      parts: new Set(things.flatMap((t) => ("partId" in t ? [t.partId] : []))),
      points: new Set(things.flatMap((t) => (t.kind === "point" ? [t.pointId] : []))),
      zoneId: last?.kind === "zone" ? last.zoneId : null,
      runId: runId ?? stripRunId,
      partId: last && "partId" in last ? last.partId : null,
      portId: last?.kind === "port" ? last.portId : null,
    };
  }, [things, stripRunId]);

  const way = useWay(rig, answers);
  const water = useWaterDrawn(rig, chosen.parts, drawingRun);
  const tip = parked?.pitchDeg ?? 0;
  /** A place of the pointer in the frame of the drawing that it is over. */
  const local = (x: number, y: number): { view: View; at: Px } | null => {
    const r = svg.current?.getBoundingClientRect();
    if (!r || !layout) return null;
    const view: View = y - r.top < layout.planTop - GAP / 2 ? "side" : "plan";
    const at = { x: x - r.left, y: y - r.top - (view === "plan" ? layout.planTop : 0) };
    return { view, at: view === "side" ? turned(at, layout.side, -tip) : at };
  };

  const zoomTo = (factor: number, view: View = over, at?: Px) => {
    if (!layout) return;
    const next = Math.min(MOST_ZOOM, Math.max(1, factor));
    if (next === 1) return setZoom(whole);
    const frame = layout[view];
    const shift = 1 / frame.scale - 1 / (layout.fit * next);
    const [, up] = axes(view);
    const across = ((at?.x ?? frame.width / 2) - frame.width / 2) * shift;
    const along = (frame.height / 2 - (at?.y ?? frame.height / 2)) * shift;
    setZoom({ factor: next, xM: frame.alongM + across, zM: layout.side.otherM, yM: layout.plan.otherM, [up]: frame.otherM + along });
  };
  /** The buttons go to what is in hand, else to the middle. */
  const zoomBy = (factor: number) => {
    const target = things.flatMap((t) => extentOf(rig, t))[0];
    if (!target || factor < 1) return zoomTo(zoom.factor * factor);
    setZoom({ factor: Math.min(MOST_ZOOM, zoom.factor * factor), ...target });
  };

  const toSelection = () => {
    const places = things.flatMap((t) => extentOf(rig, t));
    if (layout && places.length > 0) setZoom(zoomAround(layout, places));
  };
  useHotkeys("z", toSelection, { ...keyed, ignoreEventWhen: () => drawing.getState().drawing !== null });

  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        const here = local(event.clientX, event.clientY);
        if (here) zoomTo(zoom.factor * Math.exp(-dy / 400), here.view, here.at);
      },
      onMove: ({ xy: [x, y], shiftKey }) => {
        const here = drawing.getState().drawing && local(x, y);
        if (here && layout) draw.point(rig, here.view, layout[here.view], here.at, shiftKey);
      },
      onPinch: ({ offset: [factor], origin: [x, y] }) => {
        const here = local(x, y);
        if (here) zoomTo(factor, here.view, here.at);
      },
      onDrag: ({ first, last, tap, initial: [x0, y0], xy: [x, y], movement: [dx, dy], delta, shiftKey, event, pinching, cancel, memo }) => {
        if (pinching) return cancel();
        const start = local(x0, y0);
        if (!start || !layout) return;
        const frame = layout[start.view];
        const here = local(x, y);
        if (memo?.drawing || drawing.getState().drawing) {
          if (!here) return memo;
          // A finger is led to the place; where it leaves the glass is where the point is.
          // A tap comes without its last.
          if (last || tap) draw.tap(rig, here.view, layout[here.view], here.at, shiftKey);
          else draw.point(rig, here.view, layout[here.view], here.at, shiftKey);
          return { drawing: true };
        }
        if (first) {
          svg.current?.focus({ preventScroll: true });
          setOver(start.view);
        }
        const hit = memo ? (memo.hit as Thing | null) : pick(rig, start.view, frame, start.at, chosen.runId, chosen.partId);
        if (tap) {
          if ((event.target as Element).closest("[data-finding], [data-knob]")) return;
          return hit ? selection.take(hit, shiftKey) : selection.nothing();
        }
        // What is in hand is moved; all else moves the sheet.
        const grip = !memo
          ? hit &&
            selection.getState().things.some((t) => sameThing(t, hit)) &&
            hit.kind !== "zone" &&
            !(hit.kind === "port" && !actions.fixed(hit.partId))
            ? { rig, things: selection.getState().things }
            : null
          : memo?.grip;
        const frameAtStart = memo ? memo.frame : frame;
        // Pulled from a port, a run begins there; one that is in hand itself is moved on its tank.
        if (!memo && hit?.kind === "port" && !grip) {
          const at = placeOf(rig, hit);
          const tie = tieAt(rig, start.view, frame, start.at, null);
          if (at && tie?.kind === "port") {
            drawing.begin(tie);
            return { drawing: true };
          }
        }
        // A leg of the run in hand, pulled at its middle, gets a bend there.
        const run = indexOf(rig).runs.get(chosen.runId ?? "");
        const leg = memo
          ? memo.leg
          : run && hit?.kind === "run" && hit.runId === run.id && middleAt(rig, run, (p) => toPx(start.view, frame, p), start.at);
        if (leg) {
          const pulled = memo?.pulled ?? { run: run as Run, id: newId("b"), frame };
          const [right, up] = axes(start.view);
          const step = shiftKey ? stepsOf(system).fine : stepsOf(system).plain;
          const far = { [right]: dx / pulled.frame.scale, [up]: -dy / pulled.frame.scale } as Record<keyof Xyz, number>;
          const at: Xyz = { ...leg.at, [right]: snapped(leg.at[right] + far[right], step), [up]: snapped(leg.at[up] + far[up], step) };
          const edits = [bentAt(pulled.run, leg.leg, pulled.id, at)];
          if (!last) document.drag(edits);
          else if (document.holds()) {
            selection.takeWhenThere({ kind: "point", runId: pulled.run.id, pointId: pulled.id });
            actions.commit(`Bend in ${pulled.run.name}`, edits);
          }
          return { hit, leg, pulled };
        }
        if (grip) {
          const [right, up] = axes(start.view);
          const lead = placeOf(grip.rig, hit as Thing);
          const step = shiftKey ? stepsOf(system).fine : stepsOf(system).plain;
          const by = { xM: 0, yM: 0, zM: 0 };
          const far = { [right]: dx / frameAtStart.scale, [up]: -dy / frameAtStart.scale } as Record<keyof Xyz, number>;
          for (const axis of [right, up]) by[axis] = lead ? snapped(lead[axis] + far[axis], step) - lead[axis] : snapped(far[axis], step);
          const edits = movedBy(grip.rig, grip.things, by, actions.fixed);
          if (!last) document.drag(edits);
          else if (edits.length > 0 && document.holds()) actions.commit(`Move ${actions.what(grip.things)}`, edits);
        } else if (shiftKey || memo?.marquee) {
          const to = local(x, y);
          if (last) {
            const found = to ? within(rig, start.view, frame, start.at, { x: to.at.x, y: to.at.y }) : [];
            selection.takeAll(found);
            setMarquee(null);
          } else if (to) setMarquee({ view: start.view, a: start.at, b: to.at });
          return { ...memo, hit, grip: null, frame: frameAtStart, marquee: true };
        } else if (zoom.factor > 1) {
          const [, up] = axes(start.view);
          setZoom({
            factor: zoom.factor,
            xM: frame.alongM - delta[0] / frame.scale,
            zM: layout.side.otherM,
            yM: layout.plan.otherM,
            [up]: frame.otherM + delta[1] / frame.scale,
          });
        }
        return { hit, grip, frame: frameAtStart };
      },
    },
    {
      target: svg,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { keys: false }, preventDefault: true },
      pinch: { from: () => [zoom.factor, 0] },
    },
  );

  const one = (view: View) =>
    layout && (
      <RigDrawing
        rig={rig}
        about={about}
        answers={answers}
        view={view}
        frame={layout[view]}
        lens={lens}
        {...chosen}
        way={way}
        findingId={findingId}
        close={zoom.factor > 2}
        {...water}
        onFinding={drawingRun ? undefined : selection.takeFinding}
      />
    );
  return (
    <ViewFrame
      title="Side and plan"
      svg={svg}
      name={`${rig.name}, side and plan`}
      beside={beside}
      zoom={{ factor: zoom.factor, by: zoomBy, all: () => setZoom(whole), toSelection: things.length > 0 ? toSelection : undefined }}
    >
      <div ref={box} className="relative min-h-0 grow overflow-hidden [contain:strict] will-change-transform">
        {layout && (
          <svg
            ref={svg}
            width={size.width}
            height={size.height}
            // biome-ignore lint/a11y/noNoninteractiveTabindex: the drawing is worked with keys
            tabIndex={0}
            role="application"
            aria-label="Side and plan. Arrow keys move what is selected, comma and full stop go from point to point."
            className={`absolute inset-0 block touch-none select-none ${drawingRun ? "cursor-crosshair" : ""}`}
            data-sheet
            data-parts={rig.parts.length}
            onPointerOver={(e) => {
              // One title for hundreds of marks: that of what the pointer rests on.
              const told = e.currentTarget.querySelector("title");
              if (told) told.textContent = (e.target as Element).getAttribute("data-name") ?? `Side and plan of ${rig.name}`;
            }}
            onKeyDown={(e) => {
              const [right, up] = axes(over);
              if (e.key === "." || e.key === ",") actions.walk(e.key === "." ? 1 : -1);
              else actions.key(e, right, up);
            }}
          >
            <title>{`Side and plan of ${rig.name}`}</title>
            <svg width={size.width} height={layout.side.height} data-view="side" aria-label="From the kerb">
              <g transform={tip === 0 ? undefined : `rotate(${-tip} ${size.width / 2} ${layout.side.height / 2})`}>
                {one("side")}
                <FixGhost px={(p) => toPx("side", layout.side, p)} />
                <RunGhost view="side" frame={layout.side} />
              </g>
              {marquee?.view === "side" && <Marquee {...marquee} />}
            </svg>
            <line x1={0} x2={size.width} y1={layout.planTop - GAP / 2} y2={layout.planTop - GAP / 2} stroke="var(--rule)" />
            <text x={8} y={14} style={{ fill: "var(--muted)" }}>
              side
            </text>
            <text x={8} y={layout.planTop + 8} style={{ fill: "var(--muted)" }}>
              plan
            </text>
            <svg y={layout.planTop} width={size.width} height={layout.plan.height} data-view="plan" aria-label="From above">
              {one("plan")}
              <FixGhost px={(p) => toPx("plan", layout.plan, p)} />
              <RunGhost view="plan" frame={layout.plan} />
              {marquee?.view === "plan" && <Marquee {...marquee} />}
            </svg>
          </svg>
        )}
      </div>
    </ViewFrame>
  );
}
