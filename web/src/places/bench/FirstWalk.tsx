import { Check } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "wouter";
import { Button } from "../../ui/controls";
import type { Place } from "./BenchHeader";
import { useDocument, useSelection, useStores } from "./benchStores";
import { useView } from "./viewStore";
import { useWalk } from "./walkStore";

interface Step {
  words: string;
  place: Place;
  /** What shows that it was done; steps to read have none. */
  done?(now: { place: Place; finding: boolean; changed: boolean }): boolean;
}

const steps: Step[] = [
  {
    place: "bench",
    words: "Read the line at the top. It says whether this van survives the night, what goes first, when, and what to do next.",
  },
  {
    place: "bench",
    words:
      "Find what stays. Press the first fault in the list: the worst comes first. The drawing shows that line with its whole way, and its profile opens below.",
    done: (now) => now.finding,
  },
  {
    place: "bench",
    words: "See why. The blue in the profile is water that can't run out: that bend lies lower than its way to the drain.",
  },
  {
    place: "bench",
    words: "Fix it. Press Apply on the first fix, or drag the bend up yourself. Everything answers at once; undo takes it back.",
    done: (now) => now.changed,
  },
  {
    place: "drain",
    words: "Drain it. Open Drain: the steps in order, tagged on the drawing. Move the slider to see the water go.",
    done: (now) => now.place === "drain",
  },
  {
    place: "night",
    words: "Let the night come. Open Night: what freezes when. Drag the outdoor temperature and watch the verdict.",
    done: (now) => now.place === "night",
  },
];

/** The first walk: six steps on one rig, one line under the verdict. */
export function FirstWalk({ id, place }: { id: string; place: Place }) {
  const { walk, go, stop } = useWalk();
  const { selection } = useStores();
  const index = walk?.rigId === id ? walk.step : null;
  const step = index === null ? undefined : steps[index];
  if (index === null || !step) return null;
  const last = index === steps.length - 1;
  const next = () => {
    if (last) return stop();
    // The second step is a press on the first fault, about what stays: it is seen where nothing was selected before, under the drain lens.
    if (index === 0) {
      selection.nothing();
      useView.getState().setLens("drain");
    }
    go(index + 1);
  };
  return (
    <section
      aria-label="First walk"
      className="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-sunk px-3 py-1.5"
      data-walk={index + 1}
    >
      <strong className="font-semibold whitespace-nowrap">
        Step {index + 1} of {steps.length}
      </strong>
      <Words key={index} step={step} place={place} />
      {step.place !== place && (
        <Link
          href={step.place === "bench" ? `/rigs/${id}` : `/rigs/${id}/${step.place}`}
          className="inline-flex h-10 items-center rounded-md border border-rule bg-panel px-3 font-medium hover:border-strong"
        >
          {`Open ${step.place === "bench" ? "Bench" : step.place === "drain" ? "Drain" : "Night"}`}
        </Link>
      )}
      {index > 0 && <Button onClick={() => go(index - 1)}>Back</Button>}
      <Button onClick={next}>{last ? "Finish" : "Next step"}</Button>
      {!last && (
        <Button quiet onClick={stop}>
          Stop
        </Button>
      )}
    </section>
  );
}

/** What is to be done, and whether it was since the step began. */
function Words({ step, place }: { step: Step; place: Place }) {
  const finding = useSelection((s) => s.findingId !== null);
  const rig = useDocument((s) => s.rig);
  const [began] = useState(rig);
  const [done, setDone] = useState(false);
  const isDone = step.done?.({ place, finding, changed: rig !== began }) ?? false;
  useEffect(() => {
    if (isDone) setDone(true);
  }, [isDone]);
  return (
    <p className="min-w-0 grow basis-80" role="status">
      {step.words}
      {done && <Check size={17} strokeWidth={3} className="ml-2 inline align-[-3px]" aria-label="Done" />}
    </p>
  );
}
