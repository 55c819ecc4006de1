import { type ComponentProps, useState } from "react";
import { usePrint } from "../../app/units";
import { Choice, Panel, Slider, Switch } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useAnswers, useStores } from "../bench/benchStores";
import { dayWords, type Place, places } from "./places";
import { WeatherFile } from "./WeatherFile";

const LAST_DAY = 181;
type Kind = "same" | "place" | "file";

/** What the night is made of: its weather, how the vehicle was left, and its heat. */
export function NightControls() {
  const c = useAnswers((s) => s.conditions);
  const { setConditions } = useStores().answers;
  const print = usePrint();
  const [chosen, setKind] = useState<Kind | null>(null);
  if (!c) return null;
  const weather = c.weather ?? null;
  const kind = chosen ?? (weather ? (weather.hours ? "file" : "place") : "same");
  const place = (weather?.place ?? null) as Place | null;
  const set = (change: Partial<NonNullable<typeof weather>>) =>
    setConditions({ weather: { place: place ?? "kettleFell", winter: weather?.winter ?? 1, day: weather?.day ?? 105, ...change } });
  return (
    <Panel className="flex flex-col gap-3 p-3" aria-label="What the night is made of">
      <h2 className="text-[17px] font-semibold">The weather</h2>
      <Choice<Kind>
        label="Weather"
        value={kind}
        onChange={(next) => {
          setKind(next);
          if (next === "same") setConditions({ weather: null });
          if (next === "place") set({});
        }}
        options={[
          { value: "same", text: "The same all night" },
          { value: "place", text: "A winter's night" },
          { value: "file", text: "A file" },
        ]}
      />
      {kind === "file" ? (
        <WeatherFile startHour={c.startHour} onHours={(hours) => setConditions({ weather: { hours } as NonNullable<typeof weather> })} />
      ) : kind === "place" ? (
        <>
          <PickField
            label="Place, invented"
            value={place ?? "kettleFell"}
            options={Object.entries(places).map(([value, text]) => ({ value, text }))}
            onCommit={(value) => set({ place: value as Place })}
          />
          <Line
            label="Night of"
            text={dayWords(weather?.day ?? 0)}
            value={weather?.day ?? 0}
            min={0}
            max={LAST_DAY}
            step={1}
            onChange={(day) => set({ day })}
          />
          <QuantityField
            label="Which winter, 1 to 9999"
            value={weather?.winter ?? 1}
            quantity="number"
            least={1}
            most={9999}
            onCommit={(winter) => set({ winter: Math.round(winter) })}
          />
        </>
      ) : (
        <>
          <Line
            label="Outdoors"
            text={print(c.outdoorC, "temperature")}
            value={c.outdoorC}
            min={-40}
            max={15}
            step={0.5}
            onChange={(outdoorC) => setConditions({ outdoorC })}
          />
          <Line
            label="Wind"
            text={print(c.windMPerS, "speed")}
            value={c.windMPerS}
            min={0}
            max={30}
            step={0.5}
            onChange={(windMPerS) => setConditions({ windMPerS })}
          />
          <Line
            label="Sky"
            text={(c.cloud ?? 1) >= 1 ? "covered" : (c.cloud ?? 1) <= 0 ? "clear" : `${Math.round((c.cloud ?? 1) * 100)} % covered`}
            value={c.cloud ?? 1}
            min={0}
            max={1}
            step={0.05}
            onChange={(cloud) => setConditions({ cloud })}
          />
        </>
      )}
      <h2 className="text-[17px] font-semibold">How it was left</h2>
      <Line
        label="Inside, until the start"
        text={print(c.insideC ?? 18, "temperature")}
        value={c.insideC ?? 18}
        min={-20}
        max={30}
        step={0.5}
        onChange={(insideC) => setConditions({ insideC })}
      />
      <Line
        label="Water, at the start"
        text={print(c.startWaterC, "temperature")}
        value={c.startWaterC}
        min={0}
        max={40}
        step={1}
        onChange={(startWaterC) => setConditions({ startWaterC })}
      />
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label="Water in the system"
          value={c.water}
          onChange={(water) => setConditions({ water })}
          options={[
            { value: "wet", text: "Full" },
            { value: "drained", text: "Drained" },
          ]}
        />
        <span className="flex items-center gap-2">
          Heat <Switch label="Heat" on={c.heatOn} onChange={(heatOn) => setConditions({ heatOn })} />
        </span>
      </div>
      {c.heatOn && (
        <p className="flex items-center gap-2">
          It fails in the night
          <Switch label="Heat fails" on={c.heatFailsAfterH != null} onChange={(on) => setConditions({ heatFailsAfterH: on ? 4 : null })} />
          {c.heatFailsAfterH != null && <span className="text-muted">drag it along the hours</span>}
        </p>
      )}
      <Line
        label="Left for"
        text={print(c.hours * 3600, "duration")}
        value={Math.min(72, c.hours)}
        min={1}
        max={72}
        step={1}
        onChange={(hours) => setConditions({ hours })}
      />
    </Panel>
  );
}

function Line({ label, ...slider }: ComponentProps<typeof Slider>) {
  return (
    <div>
      <p className="flex items-baseline justify-between gap-2">
        <span className="text-muted">{label}</span>
        <strong className="font-semibold">{slider.text}</strong>
      </p>
      <Slider label={label} {...slider} />
    </div>
  );
}
