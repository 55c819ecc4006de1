import type { ReactNode } from "react";
import { Link } from "wouter";
import { useClock } from "../../app/units";
import { Button, Panel, Slider, Switch } from "../../ui/controls";
import { weatherWords } from "../night/places";
import { eventWords } from "../night/plan";
import { useAnswers, useDocument, useStores } from "./benchStores";
import { HeatShort } from "./HeatShort";
import { NightChoice } from "./NightChoice";
import { NightFigure } from "./NightFigure";
import { type NightSlider, useNightSliders } from "./nightSliders";
import { SpiritLevel } from "./SpiritLevel";
import { WaterChoice } from "./WaterChoice";

/** The night, as a control: every drawing answers while it is dragged. */
export function WeatherStrip() {
  const shown = useNightSliders();
  const id = useDocument((s) => s.id);
  const { setConditions } = useStores().answers;
  const clock = useClock();
  const planId = useAnswers((s) => s.conditions?.planId);
  const events = useDocument((s) => s.rig?.plans?.find((p) => p.id === planId)?.events) ?? [];
  if (!shown) return null;
  const { night: c, sliders } = shown;
  const [first] = [...events].sort((a, b) => a.atH - b.atH);
  const comes = first && `, ${eventWords[first.kind]} ${clock(c.startHour, first.atH * 3600).replace(" next day", "")}`;
  return (
    <Panel aria-label="Night" className="shrink-0">
      {/* Above the controls, so that none of them is pushed aside. */}
      <HeatShort brief />
      <div className="border-b border-rule px-2 py-1">
        <NightChoice />
      </div>
      <div className="flex flex-wrap items-stretch gap-y-1">
        {c.weather ? (
          <Field title="Weather" value={weatherWords(c.weather)} className="w-64 grow-3">
            <p className="flex items-center gap-2 whitespace-nowrap">
              <Link href={`/rigs/${id}/night`} className="underline">
                Hour by hour
              </Link>
              <Button quiet onClick={() => setConditions({ weather: null })}>
                Use a steady night
              </Button>
            </p>
          </Field>
        ) : (
          <>
            <SliderField title="Outdoors" className="w-42 grow-2 max-[1180px]:w-38" {...sliders.outdoorC} />
            <SliderField title="Wind" className="w-32 grow max-[1180px]:w-30" {...sliders.windMPerS} />
          </>
        )}
        <Field title="Heat" value={`${c.heatOn ? "on" : "off"}${comes ?? ""}`}>
          <Switch label="Heat" on={c.heatOn} onChange={(heatOn) => setConditions({ heatOn })} />
        </Field>
        <SliderField title="Water at start" className="w-44 grow" {...sliders.startWaterC} />
        <SliderField title="Left for" className="w-32 grow max-[1180px]:w-28" {...sliders.hours} />
        <Field title="Water system" value="">
          <WaterChoice value={c.water} />
        </Field>
        <SpiritLevel parked={c.parked} onChange={(parked) => setConditions({ parked })} />
      </div>
    </Panel>
  );
}

function SliderField({ title, className, ...slider }: { title: string; className: string } & NightSlider) {
  return (
    <Field title={title} value={<NightFigure slider={slider} />} className={className}>
      <Slider {...slider} />
    </Field>
  );
}

function Field(props: { title: string; value: ReactNode; className?: string; children: ReactNode }) {
  return (
    <div className={`flex min-w-0 shrink-0 flex-col border-r border-rule px-3 py-1.5 max-[1180px]:px-2 ${props.className ?? ""}`}>
      <p className="flex items-baseline justify-between gap-2 whitespace-nowrap">
        <span className="text-muted">{props.title}</span>
        <strong className="text-[15px] font-semibold">{props.value}</strong>
      </p>
      <div className="flex grow flex-col justify-center">{props.children}</div>
    </div>
  );
}
