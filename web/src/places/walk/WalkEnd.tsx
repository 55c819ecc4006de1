import { Link } from "wouter";
import type { Schema } from "../../api/client";
import { plural, useClock, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { whenWords } from "../../drawing/left";
import { Button, Panel } from "../../ui/controls";
import { useStores } from "../bench/benchStores";
import { useAsked } from "../bench/useAsked";
import { Ends } from "../layup/Ends";

const words: Record<Schema["EndWord"], string> = {
  drained: "Drained",
  protected: "Protected by antifreeze",
  doubtful: "Doubtful",
  wet: "Not drained",
};

interface Props {
  rig: Rig;
  view: Schema["WalkView"];
  waiting: number;
  onEnd(): void;
  onStep(at: number): void;
}

/** How it ends: drained, doubtful or not, in millilitres, and on which night that matters. */
export function WalkEnd({ rig, view, waiting, onEnd, onStep }: Props) {
  const { setConditions } = useStores().answers;
  const open = view.steps.findIndex((s) => s.stand === "open");
  const skipped = view.steps.filter((s) => s.stand === "skipped").length;
  // What the night starts from is what was done here.
  const end = () => {
    onEnd();
    if (drains) setConditions({ water: "asLeft" });
  };
  const drains = view.procedure.steps.some((s) => s.marks.some((m) => m.kind !== "filled"));
  return (
    <Panel className="p-4" aria-label="The end">
      <p className="text-muted">
        {view.endedAt ? `Ended ${whenWords(view.endedAt)}` : "The last step is behind you"}
        {skipped > 0 && `, ${skipped} skipped`}
      </p>
      {drains && waiting === 0 ? (
        <How conditions={view.conditions} />
      ) : (
        <p className="mt-1 text-[21px] font-semibold">{view.procedure.name}</p>
      )}
      {open >= 0 && !view.endedAt && (
        <p className="mt-2">
          {plural(view.steps.filter((s) => s.stand === "open").length, "step")} still to do.{" "}
          <button type="button" className="h-10 underline" onClick={() => onStep(open)}>
            Go to step {open + 1}
          </button>
        </p>
      )}
      <div className="mt-3">
        <Ends made={view.procedure} rig={rig} />
      </div>
      {view.endedAt ? (
        <div className="mt-3 flex flex-wrap gap-4">
          <Link href={`/rigs/${view.rigId}/log`} className="inline-flex h-12 items-center underline">
            Open the logbook
          </Link>
          <Link href={`/rigs/${view.rigId}/night`} className="inline-flex h-12 items-center underline">
            Look at tonight
          </Link>
        </div>
      ) : (
        <Button primary className="mt-3 h-20 w-full text-[21px]" data-end onClick={end}>
          {open >= 0 ? "End it here" : "End and log it"}
        </Button>
      )}
    </Panel>
  );
}

/** Of the night and the parking that it was begun for, as the logbook tells it. */
function How({ conditions }: { conditions: Schema["Conditions"] }) {
  const print = usePrint();
  const clock = useClock();
  const { data } = useAsked("walkEnd", undefined, conditions);
  // The brief's own night is told once.
  const [chosen, briefs] = data?.nights ?? [];
  const same = chosen && briefs && chosen.outdoorC === briefs.outdoorC && chosen.firstName === briefs.firstName;
  const nights = (same ? [briefs] : [chosen, briefs]).filter((n) => n !== undefined);
  if (!data) return <p className="mt-1 text-[21px] font-semibold">Working out what is left…</p>;
  return (
    <div data-end-word={data.word}>
      <p className="mt-1 text-[26px] leading-tight font-semibold">{words[data.word]}</p>
      <p className="mt-1">
        {print(data.staysL, "volume")} of water in it
        {data.harmsL > 0 && `, ${print(data.harmsL, "volume")} of that where ice does harm`}
        {data.protectedC != null && `; antifreeze stands to ${print(data.protectedC, "temperature")}`}. An estimate.
      </p>
      {data.cameShort.length > 0 && <p>Less came than should have at {data.cameShort.join(", ")}: that counts as still full.</p>}
      <ul className="mt-1">
        {nights.map((n) => (
          <li key={String(n.isTheBriefs)} data-end-night={n.firstName ?? ""}>
            {n.isTheBriefs ? "On your coldest night" : "On the night it was begun for"}, {print(n.outdoorC, "temperature")}:{" "}
            <strong className="font-semibold">
              {n.firstName
                ? `ice breaks ${n.firstName}${n.firstS != null ? ` at ${clock(conditions.startHour, n.firstS)}` : ""}`
                : "nothing breaks"}
            </strong>
          </li>
        ))}
      </ul>
    </div>
  );
}
