import type { ReactNode } from "react";
import { usePrint } from "../../app/units";
import { Choice, Panel, Slider, Switch } from "../../ui/controls";
import { useBench } from "./benchStore";
import { SpiritLevel } from "./SpiritLevel";

const spans = [2, 4, 6, 8, 10, 12, 18, 24, 48, 72, 120];

/** The night, as a control: every drawing answers while it is dragged. */
export function WeatherStrip() {
  const { conditions: c, setConditions } = useBench();
  const print = usePrint();
  if (!c) return null;
  const outdoor = print(c.outdoorC, "temperature");
  const wind = print(c.windMPerS, "speed");
  const start = print(c.startWaterC, "temperature");
  return (
    <Panel aria-label="The night" className="flex items-stretch divide-x divide-rule overflow-x-auto">
      <Field title="Outdoors" value={outdoor} className="w-36 grow-2">
        <Slider
          label="Outdoor temperature"
          value={c.outdoorC}
          min={-30}
          max={15}
          step={0.5}
          text={outdoor}
          onChange={(outdoorC) => setConditions({ outdoorC })}
        />
      </Field>
      <Field title="Wind" value={wind} className="w-28 grow">
        <Slider
          label="Wind"
          value={c.windMPerS}
          min={0}
          max={20}
          step={0.5}
          text={wind}
          onChange={(windMPerS) => setConditions({ windMPerS })}
        />
      </Field>
      <Field title="Heat" value={c.heatOn ? "on" : "off"}>
        <Switch label="Heat" on={c.heatOn} onChange={(heatOn) => setConditions({ heatOn })} />
      </Field>
      <Field title="Water at start" value={start} className="w-40 grow">
        <Slider
          label="Water temperature at the start"
          value={c.startWaterC}
          min={0}
          max={40}
          step={1}
          text={start}
          onChange={(startWaterC) => setConditions({ startWaterC })}
        />
      </Field>
      <Field title="Left for" value={print(c.hours * 3600, "duration")} className="w-32 grow">
        <Slider
          label="How long it is left"
          value={Math.max(
            0,
            spans.findLastIndex((h) => h <= c.hours),
          )}
          min={0}
          max={spans.length - 1}
          step={1}
          text={print(c.hours * 3600, "duration")}
          onChange={(i) => setConditions({ hours: spans[i] ?? 8 })}
        />
      </Field>
      <Field title="Water system" value="">
        <Choice
          label="Water in the system"
          value={c.water}
          onChange={(water) => setConditions({ water })}
          options={[
            { value: "wet", text: "Full" },
            { value: "drained", text: "Drained" },
          ]}
        />
      </Field>
      <SpiritLevel parked={c.parked} onChange={(parked) => setConditions({ parked })} />
    </Panel>
  );
}

function Field(props: { title: string; value: string; className?: string; children: ReactNode }) {
  return (
    <div className={`flex min-w-0 shrink-0 flex-col justify-center px-3 py-1.5 ${props.className ?? ""}`}>
      <p className="flex items-baseline justify-between gap-2 whitespace-nowrap">
        <span className="text-muted">{props.title}</span>
        <strong className="text-[15px] font-semibold">{props.value}</strong>
      </p>
      {props.children}
    </div>
  );
}
