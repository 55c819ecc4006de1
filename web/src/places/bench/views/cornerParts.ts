import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Schema } from "../../../api/client";
import { type Stock, useCatalogue } from "../../../app/catalogue";
import type { Answers } from "../../../document/answersStore";
import { boxAround, courseOf, indexOf, middleOf, plumbingOf, plus, type Rig, type Xyz } from "../../../document/geometry";
import { extentOf, type Thing } from "../../../document/things";
import { sameWay, type Way, wayOf } from "../../../document/way";
import { type Camera, cornersOf, type Eye, eyeOf, hull } from "../../../drawing/corner";
import type { Piece } from "../../../drawing/cornerPieces";
import type { Waters } from "../../../drawing/cornerRuns";
import { type CornerScene, type Divided, heapOf, type Owner, sceneOf, sceneWith } from "../../../drawing/cornerScene";
import type { Lens } from "../../../drawing/lens";
import { fromLine } from "../../../drawing/pick";
import type { Px } from "../../../drawing/projection";
import { useSelection } from "../benchStores";
import { useView } from "../viewStore";

const PAD = 26;
const DIVIDES_MS = 400;

/** The body, its rooms, and whatever sticks out of them. */
function bodyOf(rig: Rig) {
  const boxes = [rig.shell.body, ...rig.shell.zones.map((z) => z.box), plumbingOf(rig, 0.05)];
  return boxAround(boxes.flatMap((b) => [b.at, plus(b.at, b.size)]));
}

/** As large as the vehicle allows; the thing in hand in the middle once it is magnified. */
export function cameraOf(
  rig: Rig,
  corner: { turnDeg: number; tipDeg: number; factor: number },
  size: { width: number; height: number },
  things: Thing[],
): Camera {
  const seen = bodyOf(rig);
  const middle = middleOf(seen);
  const unit = eyeOf({ ...corner, scale: 1, middle, width: 0, height: 0 });
  const corners = cornersOf({ low: seen.at, high: plus(seen.at, seen.size) }).map(unit.px);
  const span = (pick: (p: Px) => number) => Math.max(...corners.map(pick)) - Math.min(...corners.map(pick));
  const fit = Math.max(10, Math.min((size.width - 2 * PAD) / span((p) => p.x), (size.height - 2 * PAD) / span((p) => p.y)));
  const last = things.at(-1);
  const target = corner.factor > 1.2 && last ? extentOf(rig, last)[0] : undefined;
  return { ...corner, scale: fit * corner.factor, middle: target ?? middle, ...size };
}

/** Whether a piece is seen at a place. */
export function covers(piece: Piece<Owner>, at: Px, eye: Eye): boolean {
  if (piece.kind === "line") return fromLine(at, eye.px(piece.a), eye.px(piece.b)) < Math.max(9, piece.halfPx);
  return inside(outlineOf(piece, eye), at);
}

/** What a box covers as it is seen. */
export const outlineOf = (box: { low: Xyz; high: Xyz }, eye: Eye) => hull(cornersOf(box).map(eye.px));

/** Whether a place lies within an outline. */
export function inside(outline: Px[], at: Px): boolean {
  return outline.every((a, i) => {
    const b = outline[(i + 1) % outline.length] as Px;
    return (b.x - a.x) * (at.y - a.y) - (b.y - a.y) * (at.x - a.x) >= -0.5;
  });
}

/** What the picture takes from the answers. */
export function useWaters(rig: Rig, answers: Answers | null, about: Rig | null, lens: Lens, things: Thing[], way: Way | null): Waters {
  const { numbers } = useCatalogue();
  return useMemo(() => {
    const rungs = answers?.freezeLadder.rungs ?? [];
    return {
      lens,
      numbers,
      drains: new Map(answers?.drainDown.runs.map((r) => [r.runId, r])),
      shares: new Map(answers?.drainDown.parts.map((p) => [p.partId, p.fullL > 0 ? Math.min(1, p.retainedL / p.fullL) : 0])),
      rungs: new Map(rungs.flatMap((r) => (r.partId ? [[r.partId, r] as const] : []))),
      pieces: Map.groupBy(rungs, (r) => r.runId ?? null),
      current: (runId: string) => {
        const [then, now] = [about && indexOf(about).runs.get(runId), indexOf(rig).runs.get(runId)];
        return about !== null && !!then && !!now && courseOf(about, then) === courseOf(rig, now);
      },
      chosenRuns: new Set(things.flatMap((t) => ("runId" in t ? [t.runId] : []))),
      chosenParts: new Set(things.flatMap((t) => ("partId" in t ? [t.partId] : []))),
      way,
    };
  }, [rig, lens, things, answers, about, numbers, way]);
}

/** What belongs to what is selected, in every view; null where nothing is selected, or where it is not to be followed. */
export function useWay(rig: Rig, answers: Answers | null): Way | null {
  const { stock } = useCatalogue();
  const things = useSelection((s) => s.things);
  const follow = useView((s) => s.follow);
  const drains = answers?.drainDown.runs;
  const kept = useRef<Way | null>(null);
  return useMemo(() => {
    const { parts } = indexOf(rig);
    const way = follow ? wayOf(rig, things, drains ?? [], (id) => stock.get(parts.get(id)?.stock ?? "")?.passage === "vessel") : null;
    // The same way stays the same object: names are not placed anew for it.
    if (!kept.current || !way || !sameWay(kept.current, way)) kept.current = way;
    return kept.current;
  }, [rig, things, drains, stock, follow]);
}

/** The scene of a rig: patched while a hand is on it, divided anew beside the page once it rests. Null until it is there for the first time. */
export function useScene(rig: Rig, stock: Stock): CornerScene | null {
  const lookOf = useCallback((p: Schema["Part"]) => stock.get(p.stock)?.look ?? "body", [stock]);
  const [divided, setDivided] = useState<CornerScene | null>(null);
  useEffect(() => {
    if (divided?.rig === rig) return;
    let worker: Worker | undefined;
    const begin = () => {
      const { owners, heap } = heapOf(rig, lookOf);
      worker = new Worker(new URL("../../../drawing/divide.worker.ts", import.meta.url), { type: "module" });
      worker.onmessage = ({ data }: MessageEvent<Divided>) => setDivided(sceneOf(rig, owners, data));
      worker.postMessage(heap);
    };
    const timer = setTimeout(begin, divided ? DIVIDES_MS : 0);
    return () => {
      clearTimeout(timer);
      worker?.terminate();
    };
  }, [rig, lookOf, divided]);
  return useMemo(() => divided && sceneWith(divided, rig, lookOf), [divided, rig, lookOf]);
}
