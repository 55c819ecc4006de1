import type { ComponentProps, ReactNode } from "react";
import { usePrint } from "../../app/units";
import { Choice, Panel, Slider, Switch } from "../../ui/controls";
import { useAnswers, useStores } from "./benchStores";
import { SpiritLevel } from "./SpiritLevel";

const spans = [0.5, 1, 2, 4, 6, 8, 10, 12, 18, 24, 48, 72, 120, 168, 240];

/** The night, as a control: every drawing answers while it is dragged. */
export function WeatherStrip() {
  const c = useAnswers((s) => s.conditions);
  const { setConditions } = useStores().answers;
  const print = usePrint();
  if (!c) return null;
  return (
    <Panel aria-label="The night" className="flex shrink-0 items-stretch divide-x divide-rule overflow-x-auto">
      <SliderField
        title="Outdoors"
        label="Outdoor temperature"
        className="w-36 grow-2 max-[1180px]:w-30"
        text={print(c.outdoorC, "temperature")}
        value={c.outdoorC}
        min={-60}
        max={50}
        step={0.5}
        onChange={(outdoorC) => setConditions({ outdoorC })}
      />
      <SliderField
        title="Wind"
        label="Wind"
        className="w-28 grow max-[1180px]:w-22"
        text={print(c.windMPerS, "speed")}
        value={c.windMPerS}
        min={0}
        max={60}
        step={0.5}
        onChange={(windMPerS) => setConditions({ windMPerS })}
      />
      <Field title="Heat" value={c.heatOn ? "on" : "off"}>
        <Switch label="Heat" on={c.heatOn} onChange={(heatOn) => setConditions({ heatOn })} />
      </Field>
      <SliderField
        title="Water at start"
        label="Water temperature at the start"
        className="w-40 grow max-[1180px]:w-34"
        text={print(c.startWaterC, "temperature")}
        value={c.startWaterC}
        min={0}
        max={95}
        step={1}
        onChange={(startWaterC) => setConditions({ startWaterC })}
      />
      <SliderField
        title="Left for"
        label="How long it is left"
        className="w-32 grow max-[1180px]:w-24"
        text={print(c.hours * 3600, "duration")}
        value={Math.max(
          0,
          spans.findLastIndex((h) => h <= c.hours),
        )}
        min={0}
        max={spans.length - 1}
        step={1}
        onChange={(i) => setConditions({ hours: spans[i] ?? 8 })}
      />
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

function SliderField({ title, className, ...slider }: { title: string; className: string } & ComponentProps<typeof Slider>) {
  return (
    <Field title={title} value={slider.text} className={className}>
      <Slider {...slider} />
    </Field>
  );
}

function Field(props: { title: string; value: string; className?: string; children: ReactNode }) {
  return (
    <div className={`flex min-w-0 shrink-0 flex-col px-3 py-1.5 max-[1180px]:px-2 ${props.className ?? ""}`}>
      <p className="flex items-baseline justify-between gap-2 whitespace-nowrap">
        <span className="text-muted">{props.title}</span>
        <strong className="text-[15px] font-semibold">{props.value}</strong>
      </p>
      <div className="flex grow flex-col justify-center">{props.children}</div>
    </div>
  );
}
