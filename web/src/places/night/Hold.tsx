import { useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { say, usePrint } from "../../app/units";
import { Button, Choice, Panel } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { Working } from "../../ui/Working";
import { useAnswers, useDocument, useStores } from "../bench/benchStores";
import { PricesButton } from "../bench/PricesButton";
import { useJob } from "../bench/useAsked";
import { useLook } from "../bench/useLook";

type By = Schema["HoldBy"];
type Input = NonNullable<Schema["StudyInputs"]["hold"]>;

const spared: { value: By; text: string }[] = [
  { value: "effort", text: "Work" },
  { value: "money", text: "Money" },
  { value: "energy", text: "Heat" },
];

/** The cheapest set of measures that holds all water above a temperature on one night, looked for when it is asked for. */
export function Hold() {
  const brief = useDocument((s) => s.rig?.brief);
  const hours = useAnswers((s) => s.conditions?.hours) ?? 8;
  const { numbers } = useCatalogue();
  const [input, setInput] = useState<Input>({ holdC: numbers.holdC, quick: false });
  const [wanted, setWanted] = useState(false);
  if (!brief) return null;
  const change = (value: Partial<Input>) => setInput({ ...input, ...value });
  const field = (label: string, quantity: Schema["Quantity"], limit: string, value: number, to: (v: number) => Partial<Input>, per = 1) => (
    <div className="w-32">
      <QuantityField label={label} quantity={quantity} limit={limit} per={per} value={value * per} onCommit={(v) => change(to(v / per))} />
    </div>
  );
  return (
    <Panel className="p-3" aria-label="Hold it">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="grow text-[17px] font-semibold">Hold it</h2>
        {wanted ? (
          <>
            <PricesButton />
            <span className="text-muted">Spare</span>
            <Choice<By> label="Spare" value={input.by ?? "effort"} onChange={(by) => change({ by })} options={spared} />
          </>
        ) : (
          <Button onClick={() => setWanted(true)}>Find the cheapest set</Button>
        )}
      </div>
      <p className="text-muted">
        The cheapest set of measures that keeps everything with water in it above a temperature, with the heat on.
      </p>
      {wanted && (
        <div className="mt-2 flex flex-wrap items-end gap-3">
          {field("Hold at least", "temperature", "hold.holdC", input.holdC, (holdC) => ({ holdC }))}
          {field("Outdoors", "temperature", "night.outdoorC", input.outdoorC ?? brief.lowestC, (outdoorC) => ({ outdoorC }))}
          {field("Wind", "speed", "night.windMPerS", input.windMPerS ?? brief.windMPerS, (windMPerS) => ({ windMPerS }))}
          {field("For", "duration", "night.hours", input.hours ?? hours, (h) => ({ hours: h }), 3600)}
          <Button quiet onClick={() => setWanted(false)}>
            Stop looking
          </Button>
        </div>
      )}
      {wanted && <Found input={input} />}
    </Panel>
  );
}

/** A first answer soon, then the one that was looked for at length. */
function Found({ input }: { input: Input }) {
  const first = useJob("hold", { ...input, quick: true });
  const whole = useJob("hold", first.data ? input : null);
  const data = whole.data ?? first.data;
  const { document } = useStores();
  const { shows } = useLook();
  const previewing = useDocument((s) => s.previewEdits.length > 0);
  const print = usePrint();
  if (!data) return <Working className="mt-2" words="Trying measures on the night…" asked={first} />;
  const cost = (v: number) =>
    input.by === "money" ? v.toFixed(2) : print(input.by === "energy" ? v : v * 3600, input.by === "energy" ? "energy" : "duration");
  return (
    <div className="mt-2" data-hold={data.holds ? "holds" : "short"} data-whole={!!whole.data}>
      <p className="font-medium">{say(data.words, print)}</p>
      {!whole.data && <Working words="Looking for a cheaper one…" asked={whole} />}
      <ul className="mt-1">
        {data.pieces.map((p) => (
          <li key={say(p.words, print)} className="border-t border-rule py-1" data-hold-piece>
            {say(p.words, print)}
            <span className="block text-muted">
              {say(p.why, print)} {print(p.effortH * 3600, "duration")} of work{p.money != null && `, ${p.money.toFixed(2)} of money`}.
            </span>
          </li>
        ))}
      </ul>
      {data.pieces.length > 0 && (
        <p className="mt-1">
          {input.by === "energy" ? "The night then takes " : "Together: "}
          {cost(data.cost)}
          {input.by === "money" ? " of money" : input.by === "energy" ? " of heat" : " of work"}
          {data.bound != null && `; no set of these measures takes less than ${cost(data.bound)}`}. Heat of the night:{" "}
          {print(data.heatBeforeWh, "energy")} now, {print(data.heatAfterWh, "energy")} then.
        </p>
      )}
      {data.left.length > 0 && (
        <ul className="mt-1 list-disc pl-4">
          {data.left.map((l) => (
            <li key={say(l, print)}>{say(l, print)}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 text-muted">{say(data.band, print)} Estimates; work is guessed by what is done.</p>
      {data.edits.length > 0 && (
        <Button
          className="mt-1"
          disabled={previewing}
          {...shows({ id: "hold", effect: data.effect })}
          onClick={() => document.commit("What holds all water", data.edits)}
        >
          {data.pieces.length === 1 ? "Apply" : `Apply all ${data.pieces.length}`}
        </Button>
      )}
      <p className="mt-1 text-muted">Fuse every pad and heater. Mains is work for a licensed electrician, by local codes.</p>
    </div>
  );
}
