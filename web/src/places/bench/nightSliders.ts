import type { ComponentProps } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { usePrint } from "../../app/units";
import type { Slider } from "../../ui/controls";
import type { TypedFigure } from "../../ui/QuantityField";
import { useAnswers, useStores } from "./benchStores";

type Night = Schema["Conditions"];
type Named = "outdoorC" | "windMPerS" | "cloud" | "insideC" | "startWaterC" | "hours";
export interface NightSlider extends ComponentProps<typeof Slider> {
  /** The figure as it is typed; none where it is a word. */
  typed?: Omit<ComponentProps<typeof TypedFigure>, "label">;
}
type Sliders = Record<Named, NightSlider>;

const spans = [0.5, 1, 2, 4, 6, 8, 10, 12, 18, 24, 48, 72, 120, 168, 240];

/** What of a night is set by a slider: the same wherever it is shown, as far as its field reaches. Null until there is a night. */
export function useNightSliders(): { night: Night; sliders: Sliders } | null {
  const night = useAnswers((s) => s.conditions);
  const kept = useAnswers((s) => s.answers?.night?.keptC);
  const { setConditions } = useStores().answers;
  const print = usePrint();
  const { limits } = useCatalogue();
  if (!night) return null;
  const of = (name: Named, label: string, value: number, step: number) => ({
    label,
    value,
    min: limits[`night.${name}`]?.least ?? value,
    max: limits[`night.${name}`]?.most ?? value,
    step,
    onChange: (to: number) => setConditions({ [name]: to }),
  });
  const figure = (name: Named, label: string, value: number, step: number, quantity: Schema["Quantity"]) => ({
    ...of(name, label, value, step),
    text: print(value, quantity),
    typed: { value, quantity, limit: `night.${name}`, onCommit: (to: number) => setConditions({ [name]: to }) },
  });
  const { outdoorC, windMPerS, cloud, startWaterC, hours } = night;
  const insideC = night.insideC ?? kept ?? 18;
  const sky = cloud >= 1 ? "covered" : cloud <= 0 ? "clear" : `${Math.round(cloud * 100)} % covered`;
  const span = Math.max(
    0,
    spans.findLastIndex((h) => h <= hours),
  );
  return {
    night,
    sliders: {
      outdoorC: figure("outdoorC", "Outdoor temperature", outdoorC, 0.5, "temperature"),
      windMPerS: figure("windMPerS", "Wind", windMPerS, 0.5, "speed"),
      cloud: { ...of("cloud", "Cloud", cloud, 0.05), text: sky },
      insideC: figure("insideC", "Inside, until the start", insideC, 0.5, "temperature"),
      startWaterC: figure("startWaterC", "Water temperature at the start", startWaterC, 1, "temperature"),
      hours: {
        ...of("hours", "How long it is left", span, 1),
        min: 0,
        max: spans.length - 1,
        text: print(hours * 3600, "duration"),
        onChange: (i) => setConditions({ hours: spans[i] ?? 8 }),
        typed: {
          value: hours * 3600,
          quantity: "duration",
          limit: "night.hours",
          per: 3600,
          onCommit: (s) => setConditions({ hours: s / 3600 }),
        },
      },
    },
  };
}
