import { useState } from "react";
import { ofDrain } from "../../document/answersStore";
import { useAnswers } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";
import { AllHeights } from "./AllHeights";
import { Holds } from "./Holds";
import { OrderList } from "./OrderList";
import { Parking } from "./Parking";
import { WaterAfter } from "./WaterAfter";

/** Draining the rig: in which order, what comes out and what stays, and how it may stand. */
export function DrainPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="drain" wanted={ofDrain}>
      {(rig) => <Drain rig={rig} />}
    </RigPlace>
  );
}

function Drain({ rig }: { rig: Parameters<typeof WaterAfter>[0]["rig"] }) {
  const steps = useAnswers((s) => s.answers?.drainOrder?.steps.length ?? 0);
  const [chosen, setChosen] = useState<number | null>(null);
  // All of it until a step is chosen.
  const count = Math.min(chosen ?? steps, steps);
  return (
    <main className="mx-auto grid w-full max-w-[96rem] grid-cols-[minmax(0,1fr)] gap-3 p-3 min-[1000px]:grid-cols-[25rem_minmax(0,1fr)]">
      <div className="flex min-w-0 flex-col gap-3 max-[1000px]:contents">
        <OrderList rig={rig} count={count} onCount={setChosen} />
        <Holds />
      </div>
      <div className="flex min-w-0 flex-col gap-3 max-[1000px]:contents">
        <div className="max-[1000px]:-order-1">
          <WaterAfter rig={rig} count={count} steps={steps} onCount={setChosen} />
        </div>
        <Parking rig={rig} />
        <AllHeights rig={rig} />
      </div>
    </main>
  );
}
