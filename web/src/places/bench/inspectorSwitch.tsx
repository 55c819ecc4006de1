import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useClock } from "../../app/units";
import type { Part, Rig } from "../../document/geometry";
import { Button } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { isSwitchable } from "../night/plan";
import { useChange } from "./inspectorFields";

type PumpSwitch = Schema["PumpSwitch"];

const HALF = 0.5;
const MOST_TIMES = 6;

const ways: { value: PumpSwitch["kind"] | ""; text: string }[] = [
  { value: "", text: "all the time, while the heat is on" },
  { value: "timer", text: "by a timer" },
  { value: "button", text: "by a button" },
];

/** What switches the pump of a loop: nothing, a timer or a button. */
export function SwitchFields({ rig, part }: { rig: Rig; part: Part }) {
  const { stock, catalogue } = useCatalogue();
  const change = useChange();
  if (!isSwitchable(stock.get(part.stock)) || !catalogue) return null;
  const by = part.heat?.switch;
  const presses = (rig.plans ?? []).flatMap((p) => p.events).filter((e) => e.kind === "pumpPressed" && e.partId === part.id).length;
  const hot = part.stock === "return-pump";
  const put = (words: string, next: PumpSwitch | null) => change(words, `parts/${part.id}`, { heat: { ...part.heat, switch: next } });
  const set = (values: Partial<PumpSwitch>) =>
    by && put(`${by.kind === "timer" ? "Timer" : "Button"} of ${part.name}`, { ...by, ...values });
  return (
    <fieldset data-switch={by?.kind ?? ""}>
      <legend className="text-muted">Timer or button</legend>
      <PickField
        label="Runs"
        value={by?.kind ?? ""}
        options={hot ? [{ value: "", text: "as you switch it" }, ...ways.slice(1)] : ways}
        onCommit={(kind) =>
          put(
            `${part.name} runs ${kind ? `by a ${kind}` : "all the time"}`,
            kind === "timer" ? catalogue.usualTimer : kind ? catalogue.usualButton : null,
          )
        }
      />
      {by?.kind === "timer" && <Timer by={by} set={set} />}
      {by?.kind === "button" && (
        <div className="mt-1 grid grid-cols-2 gap-2">
          <QuantityField label="Runs for" value={by.forS} quantity="duration" limit="pump.forS" onCommit={(forS) => set({ forS })} />
        </div>
      )}
      {by && !hot && (
        <p className="mt-1 text-muted">
          {by.kind === "timer"
            ? "Between its times nothing flows: what is outside cools, and is warmed up again at each start."
            : "It rests until it is pressed. Plan presses in the night's events, or in the Heat lens."}
          {presses > 0 &&
            ` Without its button, the ${presses === 1 ? "press that is" : `${presses} presses that are`} planned for it ${presses === 1 ? "goes" : "go"}.`}
        </p>
      )}
    </fieldset>
  );
}

function Timer({ by, set }: { by: PumpSwitch; set(values: Partial<PumpSwitch>): void }) {
  const { catalogue, limits } = useCatalogue();
  const usual = catalogue?.usualTimer;
  const leastS = limits["pump.everyS"]?.least ?? 0;
  const times = by.times ?? [];
  const put = (next: Schema["DailyTime"][]) => set({ times: next.length > 0 ? next : null });
  return (
    <div className="mt-1">
      <PickField
        label="In its times"
        value={by.everyS == null ? "" : "again"}
        options={[
          { value: "", text: "all through" },
          { value: "again", text: "a while, again and again" },
        ]}
        onCommit={(v) => set(v ? { forS: usual?.forS ?? null, everyS: usual?.everyS ?? null } : { forS: null, everyS: null })}
      />
      {by.everyS != null && by.forS != null && (
        <div className="mt-1 grid grid-cols-2 gap-2">
          <QuantityField
            label="Runs for"
            value={by.forS}
            quantity="duration"
            limit="pump.forS"
            most={by.everyS - 1}
            onCommit={(forS) => set({ forS })}
          />
          <QuantityField
            label="in every"
            value={by.everyS}
            quantity="duration"
            limit="pump.everyS"
            least={Math.max(leastS, by.forS + 1)}
            onCommit={(everyS) => set({ everyS })}
          />
        </div>
      )}
      {times.length === 0 && <p className="mt-1 text-muted">Day and night.</p>}
      {times.map((time, i) => (
        <div key={i} className="mt-1 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <HourField
            label="From"
            hour={time.fromHour}
            onCommit={(fromHour) => put(times.map((t, n) => (n === i ? { ...t, fromHour } : t)))}
          />
          <HourField
            label="Until"
            hour={time.untilHour}
            onCommit={(untilHour) => put(times.map((t, n) => (n === i ? { ...t, untilHour } : t)))}
          />
          <Button onClick={() => put(times.filter((_, n) => n !== i))}>Remove</Button>
        </div>
      ))}
      {times.length < MOST_TIMES && (
        <Button
          className="mt-2"
          onClick={() => put([...times, times.length === 0 ? { fromHour: 22, untilHour: 7 } : { fromHour: 17, untilHour: 22 }])}
        >
          {times.length === 0 ? "Set times of the day" : "Add a time"}
        </Button>
      )}
    </div>
  );
}

/** An hour of the day, to half an hour; one that is between them stays on offer. */
function HourField({ label, hour, onCommit }: { label: string; hour: number; onCommit(hour: number): void }) {
  const clock = useClock();
  const hours = Array.from({ length: 24 / HALF }, (_, i) => i * HALF);
  const all = hours.includes(hour % 24) ? hours : [...hours, hour].sort((a, b) => a - b);
  return (
    <PickField
      label={label}
      value={`${hour % 24}`}
      options={all.map((h) => ({ value: `${h}`, text: clock(h, 0) }))}
      onCommit={(value) => onCommit(Number(value))}
    />
  );
}
