import { useState } from "react";
import { ofLayUp } from "../../document/answersStore";
import type { Rig } from "../../document/geometry";
import { Choice } from "../../ui/controls";
import { RigPlace } from "../bench/RigPlace";
import { AntifreezePanel } from "./AntifreezePanel";
import { BlowOutPanel } from "./BlowOutPanel";
import { useLayUp } from "./layUpStore";
import { Procedure } from "./Procedure";
import { type Shown, StepDrawing } from "./StepDrawing";

/** Out with it: procedures made from this rig, what air sweeps, how much antifreeze. */
export function LayUpPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="layup" wanted={ofLayUp}>
      {(rig) => <LayUp rig={rig} />}
    </RigPlace>
  );
}

const nothing: Shown = { partIds: [], number: null, title: "", air: null, stepId: null };

function LayUp({ rig }: { rig: Rig }) {
  const { tab, set } = useLayUp();
  const [shown, setShown] = useState<Shown>(nothing);
  const panel = { rig, onShow: setShown };
  return (
    <main className="mx-auto grid w-full max-w-[96rem] grid-cols-[minmax(0,1fr)] items-start gap-3 p-3 min-[1000px]:grid-cols-[28rem_minmax(0,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <Choice
          label="Lay-up"
          value={tab}
          options={[
            { value: "steps", text: "Steps" },
            { value: "air", text: "Blow out" },
            { value: "antifreeze", text: "Antifreeze" },
          ]}
          onChange={(to) => {
            setShown(nothing);
            set({ tab: to });
          }}
        />
        {tab === "steps" ? <Procedure {...panel} /> : tab === "air" ? <BlowOutPanel {...panel} /> : <AntifreezePanel {...panel} />}
      </div>
      <StepDrawing rig={rig} shown={shown} />
    </main>
  );
}
