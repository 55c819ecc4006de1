import { useGesture } from "@use-gesture/react";
import { type ReactNode, useLayoutEffect, useMemo, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { useSettings } from "../../../app/settings";
import { courseOf, indexOf, plus, portsTaken, type Rig, type RunPoint, volumeOf, type Xyz } from "../../../document/geometry";
import { extentOf, movedBy, moverOf, placeOf, sameThing, type Thing } from "../../../document/things";
import { CanvasBrush, showPaths } from "../../../drawing/brushes";
import { type Camera, eyeOf } from "../../../drawing/corner";
import { CornerPicture, paintTurning } from "../../../drawing/cornerPaint";
import { boxPiece, type Piece } from "../../../drawing/cornerPieces";
import type { Owner } from "../../../drawing/cornerScene";
import { Ports } from "../../../drawing/notes";
import { type Px, pathOf } from "../../../drawing/projection";
import { useFollowing } from "../../../ui/useFollowing";
import { useRested } from "../../../ui/useRested";
import { useSize } from "../../../ui/useSize";
import { useAnswers, useDocument, useSelection, useStores } from "../benchStores";
import { stepsOf } from "../moving";
import { useShownRig } from "../Shown";
import { profileRun } from "../selectionStore";
import { useActions } from "../useActions";
import { cornerAtFirst, useView } from "../viewStore";
import { CornerNotes } from "./CornerNotes";
import { distance, type Grip, LEAD_LONG, LEAD_PX, Lead, PORT_PX, pulledBy } from "./cornerGrip";
import { cameraOf, covers, inside, outlineOf, useScene, useWaters, useWay } from "./cornerParts";
import { FixGhost } from "./FixGhost";
import { TurnButtons } from "./TurnButtons";
import { ViewFrame } from "./ViewFrame";

const RESTS_MS = 160;
/** Pixels a metre from which details are worth their paths. */
const FINE = 45;

/** The rig from a corner, to understand how it runs: turned and tipped, heights nudged in it. */
export function CornerView({ beside }: { beside?: ReactNode }) {
  const [box, size] = useSize<HTMLDivElement>();
  const svg = useRef<SVGSVGElement>(null);
  const layer = useRef<SVGGElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { document, selection } = useStores();
  // The drawing under the hand comes first; this view follows a moment later, with the answers if they have come by then.
  const rigNow = useShownRig(useDocument((s) => s.rig) as Rig);
  const told = useAnswers(useShallow((s) => ({ answers: s.shown, about: s.about })));
  const { rig, answers, about } = useFollowing(useMemo(() => ({ rig: rigNow, ...told }), [rigNow, told]));
  const corner = useView((s) => s.corner);
  const turn = useView((s) => s.turn);
  const lens = useView((s) => s.lens);
  const { stock } = useCatalogue();
  const actions = useActions();
  const system = useSettings((s) => s.system);
  const things = useSelection((s) => s.things);
  const stripRunId = useSelection(profileRun);
  const way = useWay(rig, answers);
  const waters = useWaters(rig, answers, about, lens, things, way);

  const scene = useScene(rig, stock);
  const held = useRef<Camera | null>(null);
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const fresh = useMemo(() => (size.width > 0 ? cameraOf(rig, corner, size, things) : null), [rig, corner, size, things]);
  // What is moved stays under the finger.
  const camera = previewing && held.current ? { ...held.current } : fresh;
  held.current = camera;
  const cameraKey = JSON.stringify(camera);
  // biome-ignore lint/correctness/useExhaustiveDependencies: equal cameras are one
  const eye = useMemo(() => (camera ? eyeOf(camera) : null), [cameraKey]);
  const last = things.at(-1);
  const runId = last && "runId" in last ? last.runId : stripRunId;
  const run = runId ? indexOf(rig).runs.get(runId) : undefined;
  const course = run ? courseOf(rig, run) : noPoints;

  // While it turns it is painted on a canvas, without names; at rest it is a drawing.
  const from = `${corner.turnDeg},${corner.tipDeg},${corner.factor}`;
  const turning = useRested(from, RESTS_MS) !== from;
  const fine = (camera?.scale ?? 0) > FINE;
  const picture = useMemo(() => eye && !turning && new CornerPicture(eye, fine, waters.numbers), [eye, turning, fine, waters.numbers]);
  const drops = useMemo(
    () => [...course.map((p) => p.at), ...things.flatMap((t) => (t.kind === "part" ? extentOf(rig, t) : []))],
    [rig, course, things],
  );
  const order = useRef<Piece<Owner>[]>([]);
  useLayoutEffect(() => {
    if (!picture || !layer.current || !scene) return;
    const painted = picture.paint(rig, scene, drops, waters);
    order.current = painted.order;
    showPaths(layer.current, painted.paths);
  }, [picture, rig, scene, drops, waters]);
  useLayoutEffect(() => {
    const on = turning && canvas.current?.getContext("2d");
    if (!on || !eye || !scene) return;
    const style = getComputedStyle(on.canvas);
    const { devicePixelRatio: dense } = window;
    on.canvas.width = size.width * dense;
    on.canvas.height = size.height * dense;
    on.setTransform(dense, 0, 0, dense, 0, 0);
    on.lineJoin = "round";
    const brush = new CanvasBrush(on, (name) => style.getPropertyValue(name));
    paintTurning(brush, rig, scene, drops, eye, waters);
    brush.end();
  }, [turning, rig, scene, drops, eye, waters, size]);

  const local = (x: number, y: number): Px => {
    const r = svg.current?.getBoundingClientRect();
    return { x: x - (r?.left ?? 0), y: y - (r?.top ?? 0) };
  };
  const selectedPart = last && "partId" in last ? indexOf(rig).parts.get(last.partId) : undefined;
  const selectedZone = last?.kind === "zone" ? rig.shell.zones.find((z) => z.id === last.zoneId) : undefined;
  const lead = useMemo(() => {
    const of = last && (last.kind === "point" || last.kind === "part" || last.kind === "port") ? last : null;
    const place = of && eye && placeOf(rig, of);
    if (!of || !place || !eye || !moverOf(rig, of, actions.fixed)) return null;
    const box = of.kind === "part" ? indexOf(rig).parts.get(of.partId)?.box : undefined;
    const foot = eye.px(box ? { ...plus(box.at, { xM: box.size.xM / 2, yM: box.size.yM / 2, zM: box.size.zM }) } : place);
    return { thing: of, foot, top: { x: foot.x, y: foot.y - LEAD_LONG } };
  }, [last, rig, eye, actions]);
  const pointAt = (at: Px) => eye && course.find((p) => Math.hypot(eye.px(p.at).x - at.x, eye.px(p.at).y - at.y) < 18);
  const thingAt = (at: Px): Thing | null => {
    if (!eye) return null;
    const point = pointAt(at);
    if (point && runId) return { kind: "point", runId, pointId: point.id };
    if (selectedPart) {
      const from = (p: { offset: Xyz }) => distance(eye.px(plus(selectedPart.box.at, p.offset)), at);
      const [port] = selectedPart.ports.filter((p) => from(p) < PORT_PX).sort((a, b) => from(a) - from(b));
      if (port) return { kind: "port", partId: selectedPart.id, portId: port.id };
    }
    for (let i = order.current.length - 1; i >= 0; i--) {
      const piece = order.current[i] as Piece<Owner>;
      if (!covers(piece, at, eye)) continue;
      return piece.key.kind === "part" ? { kind: "part", partId: piece.key.part.id } : { kind: "run", runId: piece.key.run.id };
    }
    // Where nothing else is, the smallest room that is seen there.
    const zone = [...rig.shell.zones]
      .sort((a, b) => volumeOf(a.box) - volumeOf(b.box))
      .find((z) => inside(outlineOf(boxPiece(null, z.box), eye), at));
    return zone ? { kind: "zone", zoneId: zone.id } : null;
  };

  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        event.preventDefault();
        turn({ factor: Math.min(8, Math.max(1, corner.factor * Math.exp(-dy / 400))) });
      },
      onPinch: ({ offset: [factor] }) => turn({ factor }),
      onDrag: ({
        first,
        last,
        tap,
        initial: [x0, y0],
        xy: [x, y],
        delta: [dx, dy],
        movement: [, my],
        shiftKey,
        event,
        pinching,
        cancel,
        memo,
      }) => {
        if (pinching) return cancel();
        if (first) svg.current?.focus({ preventScroll: true });
        const start = local(x0, y0);
        if (tap) {
          if ((event.target as Element).closest("[data-finding]")) return;
          const hit = thingAt(start);
          if (hit) selection.take(hit, shiftKey);
          else selection.nothing();
          return;
        }
        const grip = memo === undefined ? gripAt(start) : memo;
        if (grip) {
          const step = shiftKey ? stepsOf(system).fine : stepsOf(system).plain;
          const by = pulledBy(grip, start, local(x, y), my, step);
          const edits = movedBy(grip.rig, [grip.thing], by, actions.fixed);
          if (!last) document.drag(edits);
          else if (document.holds()) actions.commit(`${grip.lead ? "Height of" : "Move"} ${actions.what([grip.thing])}`, edits);
        } else turn({ turnDeg: corner.turnDeg - dx * 0.4, tipDeg: corner.tipDeg + dy * 0.3 });
        return grip;
      },
    },
    {
      target: svg,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { keys: false }, preventDefault: true },
      pinch: { from: () => [corner.factor, 0], scaleBounds: { min: 1, max: 8 } },
    },
  );
  /** What is in hand already is pulled in its plane, by its lead up and down; all else turns the view. */
  const gripAt = (at: Px): Grip | null => {
    if (!eye || !camera) return null;
    const make = (thing: Thing, lead: boolean): Grip | null => {
      const place = placeOf(rig, thing);
      return place && moverOf(rig, thing, actions.fixed) ? { rig, thing, lead, at: place, camera, eye } : null;
    };
    if (lead && distance(lead.top, at) < LEAD_PX) return make(lead.thing, true);
    const hit = thingAt(at);
    const chosen = (thing: Thing) => things.some((t) => sameThing(t, thing));
    // A port that is not in hand itself is a place on its part.
    const taken: Thing | null = hit?.kind === "port" && !chosen(hit) ? { kind: "part", partId: hit.partId } : hit;
    return taken && taken.kind !== "zone" && taken.kind !== "run" && chosen(taken) ? make(taken, false) : null;
  };

  return (
    <ViewFrame
      title="3D"
      svg={svg}
      name={`${rig.name}, 3D`}
      beside={beside}
      zoom={{
        factor: corner.factor,
        by: (f) => turn({ factor: Math.min(8, Math.max(1, corner.factor * f)) }),
        all: () => turn(cornerAtFirst),
      }}
    >
      <div ref={box} className="relative min-h-0 grow overflow-hidden [contain:strict] will-change-transform">
        {turning && <canvas ref={canvas} className="pointer-events-none absolute inset-0 size-full" />}
        {camera && eye && (
          <svg
            ref={svg}
            width={size.width}
            height={size.height}
            // biome-ignore lint/a11y/noNoninteractiveTabindex: the drawing is worked with keys
            tabIndex={0}
            role="application"
            aria-label="3D. Left and right turn it; up and down move what is selected, or tip the view."
            className="absolute inset-0 block cursor-grab touch-none select-none"
            data-corner
            onKeyDown={(e) => {
              if (e.key === "." || e.key === ",") return actions.walk(e.key === "." ? 1 : -1);
              if (e.key === "ArrowLeft" || e.key === "ArrowRight") {
                e.preventDefault();
                return turn({ turnDeg: corner.turnDeg + (e.key === "ArrowRight" ? 5 : -5) });
              }
              if (things.some((t) => t.kind !== "zone")) return void actions.key(e, null, "zM");
              if (e.key === "ArrowUp" || e.key === "ArrowDown") {
                e.preventDefault();
                turn({ tipDeg: corner.tipDeg + (e.key === "ArrowUp" ? 5 : -5) });
              }
            }}
          >
            <title>{`${rig.name} in 3D`}</title>
            <g ref={layer} display={turning ? "none" : undefined} data-picture />
            {!turning && (
              <CornerNotes
                rig={rig}
                findings={answers?.advice.findings ?? none}
                eye={eye}
                size={size}
                close={corner.factor > 2}
                way={way}
              />
            )}
            <FixGhost px={eye.px} />
            {course.map((p) => {
              const at = eye.px(p.at);
              const chosen = things.some((t) => t.kind === "point" && t.runId === runId && t.pointId === p.id);
              return (
                <circle
                  key={p.id}
                  cx={at.x}
                  cy={at.y}
                  r={chosen ? 8 : 5.5}
                  fill={chosen ? "var(--ink)" : "var(--panel)"}
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
              );
            })}
            {selectedZone && (
              <path
                d={`${pathOf(outlineOf(boxPiece(null, selectedZone.box), eye))}Z`}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={2}
                strokeDasharray="6 3"
                data-zone={selectedZone.id}
              />
            )}
            {lead && !turning && <Lead lead={lead} />}
            {selectedPart && (
              <Ports
                part={selectedPart}
                portId={last?.kind === "port" ? last.portId : null}
                taken={portsTaken(rig, selectedPart.id)}
                px={eye.px}
              />
            )}
          </svg>
        )}
        <TurnButtons />
      </div>
    </ViewFrame>
  );
}

const [none, noPoints]: [Schema["Finding"][], RunPoint[]] = [[], []];
