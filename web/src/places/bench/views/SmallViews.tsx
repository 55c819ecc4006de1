import { type ReactNode, useLayoutEffect, useMemo, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { useCatalogue } from "../../../app/catalogue";
import type { Rig } from "../../../document/geometry";
import { showPaths } from "../../../drawing/brushes";
import { eyeOf } from "../../../drawing/corner";
import { CornerPicture } from "../../../drawing/cornerPaint";
import { RigDrawing } from "../../../drawing/RigDrawing";
import { useRested } from "../../../ui/useRested";
import { useSize } from "../../../ui/useSize";
import { useAnswers, useDocument } from "../benchStores";
import { useShownRig } from "../Shown";
import { type Large, useView, whole } from "../viewStore";
import { cameraOf, useScene, useWaters, useWay } from "./cornerParts";
import { layOut } from "./sheetLayout";

export const viewWords: Record<Large, string> = { sheet: "Side and plan", corner: "3D" };

/** The view that is not large, small beside it: a press makes it large. */
export function SmallView({ of }: { of: Large }) {
  const setLarge = useView((s) => s.setLarge);
  return (
    <button
      type="button"
      onClick={() => setLarge(of)}
      aria-label={`Make ${viewWords[of]} large`}
      title={`Make ${viewWords[of]} large (${of === "sheet" ? 1 : 2})`}
      className="block w-full shrink-0 overflow-hidden rounded-md border border-rule text-left hover:border-strong"
    >
      <span className="block px-2 pt-1 text-muted">{viewWords[of]}</span>
      {of === "sheet" ? <SmallSheet /> : <SmallCorner />}
    </button>
  );
}

/** Longer than from nudge to nudge: dividing the 3D scene anew would fall into the next one. */
const RESTS_MS = 1000;

/** A small view follows once the hand rests: the large one has all the time there is. */
function useDrawn() {
  const rigNow = useShownRig(useDocument((s) => s.rig) as Rig);
  const told = useAnswers(useShallow((s) => ({ answers: s.shown, about: s.about })));
  return useRested(
    useMemo(() => ({ rig: rigNow, ...told }), [rigNow, told]),
    RESTS_MS,
  );
}

function Box({ children }: { children(size: { width: number; height: number }): ReactNode }) {
  const [box, size] = useSize<HTMLSpanElement>();
  return (
    <span ref={box} className="block h-34 overflow-hidden" aria-hidden="true">
      {size.width > 0 && children(size)}
    </span>
  );
}

function SmallSheet() {
  const { rig, answers, about } = useDrawn();
  const lens = useView((s) => s.lens);
  const way = useWay(rig, answers);
  return (
    <Box>
      {(size) => {
        const layout = layOut(rig, whole, size);
        return (
          <svg width={size.width} height={size.height} className="block" aria-hidden="true">
            {(["side", "plan"] as const).map((view) => (
              <svg key={view} y={view === "plan" ? layout.planTop : 0} width={size.width} height={layout[view].height} aria-hidden="true">
                <RigDrawing rig={rig} about={about} answers={answers} view={view} frame={layout[view]} lens={lens} way={way} bare />
              </svg>
            ))}
          </svg>
        );
      }}
    </Box>
  );
}

function SmallCorner() {
  return <Box>{(size) => <CornerPaths size={size} />}</Box>;
}

const noThings: [] = [];

function CornerPaths({ size }: { size: { width: number; height: number } }) {
  const { rig, answers, about } = useDrawn();
  const { stock } = useCatalogue();
  const lens = useView((s) => s.lens);
  const corner = useView((s) => s.corner);
  const layer = useRef<SVGGElement>(null);
  const waters = useWaters(rig, answers, about, lens, noThings, useWay(rig, answers));
  const scene = useScene(rig, stock);
  const picture = useMemo(
    () => new CornerPicture(eyeOf(cameraOf(rig, { ...corner, factor: 1 }, size, [])), false, waters.numbers),
    [rig, corner, size, waters.numbers],
  );
  useLayoutEffect(() => {
    if (layer.current && scene) showPaths(layer.current, picture.paint(rig, scene, [], waters).paths);
  }, [picture, rig, scene, waters]);
  return (
    <svg width={size.width} height={size.height} className="block" aria-hidden="true">
      <g ref={layer} />
    </svg>
  );
}
