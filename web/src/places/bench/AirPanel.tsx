import { useCallback } from "react";
import type { Rig } from "../../document/geometry";
import { BlowOutPanel } from "../layup/BlowOutPanel";
import { useLayUp } from "../layup/layUpStore";
import type { Shown } from "../layup/StepDrawing";
import { useDocument } from "./benchStores";

/** The air of each outlet beside the drawing: what is chosen here is what the lens shows. */
export function AirPanel() {
  const rig = useDocument((s) => s.rig) as Rig;
  const show = useCallback((shown: Shown) => useLayUp.getState().set({ outletId: shown.stepId }), []);
  return (
    <div className="min-h-0 grow overflow-y-auto p-2">
      <BlowOutPanel rig={rig} onShow={show} />
    </div>
  );
}
