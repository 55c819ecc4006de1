import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { lasting, say, usePrint } from "../../app/units";
import { Caution } from "../../ui/controls";

/** What a step says: its number, what to do, what can hurt, and what to expect. */
export function StepWords({
  step,
  number,
  of,
  children,
}: {
  step: Schema["ProcedureStep"];
  number: number;
  of: number;
  children?: ReactNode;
}) {
  const print = usePrint();
  const times = step.shortestS != null ? [step.shortestS, step.longestS ?? step.shortestS] : null;
  return (
    <>
      <p className="text-muted">
        Step {number} of {of}
        {children}
      </p>
      <p className="mt-1 text-[21px] leading-snug font-semibold" data-step={step.id}>
        {say(step.words, print)}
      </p>
      {step.caution && (
        <div className="mt-2">
          <Caution>{step.caution}</Caution>
        </div>
      )}
      <dl className="mt-2 grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-1">
        <Fact
          name="Comes out"
          value={step.outL != null && `${print(step.outL, "volume")}, give or take ${print(step.giveOrTakeL, "volume")}`}
        />
        <Fact name="Goes in" value={step.inL != null ? print(step.inL, "volume") : null} />
        <Fact
          name={step.waits ? "Wait" : "Time"}
          value={times && (times[0] === times[1] ? lasting(times[0] ?? 0, print) : times.map((t) => lasting(t ?? 0, print)).join(" to "))}
        />
        <Fact name="Reached" value={step.reach} />
        <Fact name="Look out" value={step.wrong ? say(step.wrong, print) : null} />
      </dl>
    </>
  );
}

const Fact = ({ name, value }: { name: string; value: string | null | undefined | false }) =>
  value ? (
    <>
      <dt className="text-muted">{name}</dt>
      <dd>{value}</dd>
    </>
  ) : null;
