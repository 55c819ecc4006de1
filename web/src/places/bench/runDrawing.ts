import { createStore, type StoreApi } from "zustand/vanilla";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { added, nameCut } from "../../document/edits";
import { courseOf, freePorts, indexOf, type Rig, towards, type Xyz } from "../../document/geometry";
import { freePort, rounded, type Thing } from "../../document/things";
import { fromLine } from "../../drawing/pick";
import { type Frame, type Px, toPx, type View } from "../../drawing/projection";

type Edit = Schema["Edit"];

/** Where a run begins or ends: at a port, on another run (a tee goes in there), or loose. */
export type Tie =
  | { kind: "port"; partId: string; portId: string; at: Xyz }
  | { kind: "run"; runId: string; after: string | null; at: Xyz }
  | { kind: "loose"; at: Xyz };

/** A run that is being drawn: where it began, its bends so far, and where the hand points. */
export interface RunDrawing {
  start: Tie | null;
  bends: Xyz[];
  pointer: Xyz | null;
  /** The view that the hand is over: figures stand there. */
  view: View | null;
  /** What the pointer would end on. */
  over: Tie | null;
  /** What it carries, where that was chosen; otherwise as where it begins. */
  service: Schema["Service"] | null;
  /** Of the last bend, what the view that it was put in cannot tell: it is as at the point before until it is said. */
  asks: "yM" | "zM" | null;
}

export interface RunDrawingStore extends StoreApi<{ drawing: RunDrawing | null }> {
  begin(start: Tie | null): void;
  bend(at: Xyz, asks?: RunDrawing["asks"]): void;
  /** Says of the last bend what its view could not tell. */
  amend(axis: "yM" | "zM", m: number): void;
  back(): void;
  point(pointer: Xyz | null, over: Tie | null, view: View): void;
  /** What it shall carry; null: as where it begins. */
  carry(service: Schema["Service"] | null): void;
  end(): void;
}

export function createRunDrawing(): RunDrawingStore {
  const store = createStore<{ drawing: RunDrawing | null }>(() => ({ drawing: null }));
  const change = (to: (d: RunDrawing) => RunDrawing | null) => {
    const { drawing } = store.getState();
    if (drawing) store.setState({ drawing: to(drawing) });
  };
  return Object.assign(store, {
    begin: (start: Tie | null) =>
      store.setState({
        drawing: {
          start,
          bends: [],
          pointer: start?.at ?? null,
          over: null,
          view: null,
          service: store.getState().drawing?.service ?? null,
          asks: null,
        },
      }),
    bend: (at: Xyz, asks: RunDrawing["asks"] = null) => change((d) => ({ ...d, bends: [...d.bends, rounded(at)], asks })),
    amend: (axis: "yM" | "zM", m: number) =>
      change((d) => ({ ...d, bends: d.bends.map((b, i) => (i === d.bends.length - 1 ? rounded({ ...b, [axis]: m }) : b)) })),
    /** The last bend goes; with none left, the start; with no start, the tool is laid down. */
    back: () =>
      change((d) => (d.bends.length > 0 ? { ...d, bends: d.bends.slice(0, -1), asks: null } : d.start ? { ...d, start: null } : null)),
    point: (pointer: Xyz | null, over: Tie | null, view: View) => change((d) => ({ ...d, pointer, over, view })),
    carry: (service: Schema["Service"] | null) => change((d) => ({ ...d, service })),
    end: () => store.setState({ drawing: null }),
  });
}

/** The last point that stands. */
export const lastOf = (d: RunDrawing): Xyz | null => d.bends.at(-1) ?? d.start?.at ?? null;

const PORT_PX = 14;
const RUN_PX = 9;

/** A port that is free, or a place on a run, under a pixel. `but`: where the run began. */
export function tieAt(rig: Rig, view: View, frame: Frame, at: Px, but: Tie | null): Tie | null {
  const px = (p: Xyz) => toPx(view, frame, p);
  let best: { tie: Tie; far: number } | null = null;
  for (const free of freePorts(rig)) {
    const here = px(free.at);
    const far = Math.hypot(here.x - at.x, here.y - at.y);
    if (far > PORT_PX || (best && far >= best.far)) continue;
    if (but?.kind === "port" && but.partId === free.part && but.portId === free.port) continue;
    best = { tie: { kind: "port", partId: free.part, portId: free.port, at: free.at }, far };
  }
  if (best) return best.tie;
  for (const run of rig.runs) {
    const course = courseOf(rig, run);
    for (let i = 1; i < course.length; i++) {
      const [a, b] = [course[i - 1] as (typeof course)[0], course[i] as (typeof course)[0]];
      const [pa, pb] = [px(a.at), px(b.at)];
      const far = fromLine(at, pa, pb);
      if (far > RUN_PX || (best && far >= (best as { far: number }).far)) continue;
      const square = (pb.x - pa.x) ** 2 + (pb.y - pa.y) ** 2;
      const t =
        square === 0 ? 0.5 : Math.min(0.95, Math.max(0.05, ((at.x - pa.x) * (pb.x - pa.x) + (at.y - pa.y) * (pb.y - pa.y)) / square));
      best = { tie: { kind: "run", runId: run.id, after: a.id === "from" ? null : a.id, at: rounded(towards(a.at, b.at, t)) }, far };
    }
  }
  return best && (best as { tie: Tie }).tie;
}

/** A place under a pixel: what a view cannot tell stays as at the last point. `square`: along one axis from there. */
export function placeUnder(view: View, frame: Frame, at: Px, last: Xyz, square: boolean, step: number): Xyz {
  const snap = (m: number) => Math.round(m / step) * step;
  const up = view === "side" ? "zM" : "yM";
  const place = {
    ...last,
    xM: snap(frame.alongM + (at.x - frame.width / 2) / frame.scale),
    [up]: snap(frame.otherM - (at.y - frame.height / 2) / frame.scale),
  };
  if (!square) return rounded(place);
  return rounded(Math.abs(place.xM - last.xM) >= Math.abs(place[up] - last[up]) ? { ...place, [up]: last[up] } : { ...place, xM: last.xM });
}

const ANYTHING: Schema["PortRole"][] = ["inlet", "outlet", "drain", "spout"];

/** What a run between these carries, and in what: as where it begins; where that says nothing, as where it ends. */
export function usualFor(
  rig: Rig,
  ties: Tie[],
  stock: Map<string, Schema["StockPart"]>,
  usual: Schema["UsualRun"][],
): { service: Schema["Service"]; pipe: string } {
  const { parts, runs } = indexOf(rig);
  let plain: Schema["UsualRun"] | undefined;
  for (const tie of ties) {
    const run = tie.kind === "run" ? runs.get(tie.runId) : undefined;
    if (run) return { service: run.service, pipe: run.pipe };
    const part = tie.kind === "port" ? parts.get(tie.partId) : undefined;
    const port = part?.ports.find((p) => tie.kind === "port" && p.id === tie.portId);
    const role = port?.role ?? stock.get(part?.stock ?? "")?.ports.find((p) => p.id === port?.id)?.role;
    const leads = usual.find((u) => u.role === role);
    // An outlet may let out anything; a waste port lets out waste.
    if (leads && !ANYTHING.includes(leads.role)) return { service: leads.service, pipe: leads.pipe };
    plain ??= leads;
    // A joint carries what the lines at it carry.
    const at = part && indexOf(rig).runsAt.get(part.id)?.[0];
    if (!leads && at) return { service: at.service, pipe: at.pipe };
  }
  if (plain) return { service: plain.service, pipe: plain.pipe };
  return { service: "cold", pipe: usual.at(-1)?.pipe ?? "" };
}

const freePortAt = (rig: Rig, at: Xyz): Tie | null => {
  const found = freePort(rig, at);
  return found && { kind: "port", partId: found.part, portId: found.port, at };
};

/** The edits that make a run of a drawing, tees and all: one step. */
export function madeOf(
  rig: Rig,
  drawing: RunDrawing,
  end: Tie,
  stock: Map<string, Schema["StockPart"]>,
  usual: Schema["UsualRun"][],
): { edits: Edit[]; thing: Thing; name: string } | null {
  const { start } = drawing;
  if (!start) return null;
  const { parts, runs } = indexOf(rig);
  const edits: Edit[] = [];
  // What ends exactly on a port is joined to it.
  const free = end.kind === "loose" ? freePortAt(rig, end.at) : null;
  if (free) return madeOf(rig, drawing, free, stock, usual);
  const named = (tie: Tie) =>
    tie.kind === "port" ? (parts.get(tie.partId)?.name ?? "") : tie.kind === "run" ? (runs.get(tie.runId)?.name ?? "") : "loose end";
  const tied = (tie: Tie) => {
    if (tie.kind === "loose") return { at: rounded(tie.at) };
    if (tie.kind === "port") return { part: tie.partId, port: tie.portId };
    const teeId = newId("tee");
    edits.push({
      kind: "tee",
      runId: tie.runId,
      after: tie.after,
      at: tie.at,
      teeId,
      teeName: nameCut(`tee, ${named(tie)}`),
      newRunId: newId("run"),
    } as Edit);
    return { part: teeId, port: "c" };
  };
  const chosen =
    drawing.service && (usual.find((u) => u.service === drawing.service) ?? { service: drawing.service, pipe: usual.at(-1)?.pipe ?? "" });
  // A second tee in the same run would have to know of the first.
  if (start.kind === "run" && end.kind === "run" && start.runId === end.runId) return null;
  const id = newId("run");
  const name = nameCut(`${named(start)} to ${named(end)}`);
  const value = {
    id,
    name,
    ...(chosen ? { service: chosen.service, pipe: chosen.pipe } : usualFor(rig, [start, end], stock, usual)),
    from: tied(start),
    to: tied(end),
    bends: drawing.bends.map((at, i) => ({ id: `b${i + 1}`, at: rounded(at) })),
  };
  edits.push(added("runs", value));
  return { edits, thing: { kind: "run", runId: id }, name };
}
