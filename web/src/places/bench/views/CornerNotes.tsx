import { useCallback, useMemo } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { courseOf, plus, type Rig } from "../../../document/geometry";
import type { Way } from "../../../document/way";
import { cornersOf, type Eye } from "../../../drawing/corner";
import { placeDiscs } from "../../../drawing/discs";
import { type Area, placeLabels } from "../../../drawing/labels";
import { Discs, Labels, roomOf } from "../../../drawing/notes";
import type { Px } from "../../../drawing/projection";
import { useRested } from "../../../ui/useRested";
import { useSelection, useStores } from "../benchStores";

interface NotesProps {
  rig: Rig;
  findings: Schema["Finding"][];
  eye: Eye;
  size: { width: number; height: number };
  close: boolean;
  /** What belongs to what is selected: nothing else is named. */
  way: Way | null;
}

/** Names and discs, placed when the view rests. */
export function CornerNotes({ rig, findings, eye, size, close, way }: NotesProps) {
  const { selection } = useStores();
  const { stock } = useCatalogue();
  const findingId = useSelection((s) => s.findingId);
  const things = useSelection((s) => s.things);
  const inside = useCallback((p: Px) => p.x > 0 && p.y > 0 && p.x < size.width && p.y < size.height, [size]);
  const discs = placeDiscs(findings, findingId, close, eye.px, inside);
  const calm = useRested(rig);
  const rooms = useRested(JSON.stringify(discs.flatMap(roomOf)));
  const labels = useMemo(() => {
    const wanted = calm.parts.flatMap((p) => {
      const kind = stock.get(p.stock);
      const chosen = things.some((t) => t.kind === "part" && t.partId === p.id);
      if (way && !way.parts.has(p.id)) return [];
      if (!chosen && (kind?.look === "joint" || !(kind?.landmark || p.box.size.xM * p.box.size.yM > 0.015 || close))) return [];
      const corners = cornersOf({ low: p.box.at, high: plus(p.box.at, p.box.size) }).map(eye.px);
      const [x, y] = [Math.min(...corners.map((c) => c.x)), Math.min(...corners.map((c) => c.y))];
      if (!inside({ x, y })) return [];
      const [width, height] = [Math.max(...corners.map((c) => c.x)) - x, Math.max(...corners.map((c) => c.y)) - y];
      return [{ id: p.id, text: p.name.slice(0, 32), x, y, width, height, rank: chosen ? -1 : kind?.landmark ? 1 : 2, led: true }];
    });
    const buttons = { x: size.width - 165, y: size.height - 44, width: 165, height: 44 };
    const lines = calm.runs.map((r) => courseOf(calm, r).map((p) => eye.px(p.at)));
    return placeLabels(wanted, [...(JSON.parse(rooms) as Area[]), buttons], size, lines);
  }, [calm, stock, things, eye, size, close, way, rooms, inside]);
  return (
    <g>
      <Labels labels={labels} />
      <Discs discs={discs} chosenId={findingId} onFinding={selection.takeFinding} />
    </g>
  );
}
