import { useState } from "react";
import { Button, Choice, Panel, Slider, Switch } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useStores } from "../bench/benchStores";
import { HeatShort } from "../bench/HeatShort";
import { NightChoice } from "../bench/NightChoice";
import { NightFigure } from "../bench/NightFigure";
import { type NightSlider, useNightSliders } from "../bench/nightSliders";
import { WaterChoice } from "../bench/WaterChoice";
import { dayWords, LAST_DAY, type Place, places } from "./places";
import { WeatherFile } from "./WeatherFile";

type Kind = "same" | "place" | "file";

/** Night: its weather, how the vehicle was left, and its heat. */
export function NightControls() {
  const shown = useNightSliders();
  const { setConditions } = useStores().answers;
  const [chosen, setKind] = useState<Kind | null>(null);
  if (!shown) return null;
  const { night: c, sliders } = shown;
  const weather = c.weather ?? null;
  const kind = chosen ?? (weather ? (weather.hours ? "file" : "place") : "same");
  const place = (weather?.place ?? null) as Place | null;
  const set = (change: Partial<NonNullable<typeof weather>>) =>
    setConditions({ weather: { place: place ?? "kettleFell", winter: weather?.winter ?? 1, day: weather?.day ?? 105, ...change } });
  return (
    <Panel className="flex flex-col gap-3 p-3" aria-label="Night">
      <h2 className="text-[17px] font-semibold">Night</h2>
      <NightChoice bare />
      <h3 className="font-semibold">Weather</h3>
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
            title="Night of"
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
          <Line title="Outdoors" {...sliders.outdoorC} />
          <Line title="Wind" {...sliders.windMPerS} />
          <Line title="Sky" {...sliders.cloud} />
        </>
      )}
      <h3 className="font-semibold">State</h3>
      <Line title="Inside, until the start" {...sliders.insideC} />
      {c.insideC == null ? (
        <p className="-mt-2 text-muted">As the thermostat says.</p>
      ) : (
        <Button quiet onClick={() => setConditions({ insideC: null })}>
          Use the thermostat setting
        </Button>
      )}
      <Line title="Water, at the start" {...sliders.startWaterC} />
      <div className="flex flex-wrap items-center gap-3">
        <WaterChoice value={c.water} />
        <span className="flex items-center gap-2">
          Heat <Switch label="Heat" on={c.heatOn} onChange={(heatOn) => setConditions({ heatOn })} />
        </span>
      </div>
      <HeatShort />
      <Line title="Left for" {...sliders.hours} />
    </Panel>
  );
}

function Line({ title, ...slider }: { title: string } & NightSlider) {
  return (
    <div>
      <p className="flex items-baseline justify-between gap-2">
        <span className="text-muted">{title}</span>
        <strong className="font-semibold">
          <NightFigure slider={slider} />
        </strong>
      </p>
      <Slider {...slider} />
    </div>
  );
}
