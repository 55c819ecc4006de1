import type { ComponentProps } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { usePrint } from "../../app/units";
import type { Slider } from "../../ui/controls";
import { useAnswers, useStores } from "./benchStores";

type Night = Schema["Conditions"];
type Named = "outdoorC" | "windMPerS" | "cloud" | "insideC" | "startWaterC" | "hours";
type Sliders = Record<Named, ComponentProps<typeof Slider>>;

const spans = [0.5, 1, 2, 4, 6, 8, 10, 12, 18, 24, 48, 72, 120, 168, 240];

/** What of a night is set by a slider: the same wherever it is shown, as far as its field reaches. Null until there is a night. */
export function useNightSliders(): { night: Night; sliders: Sliders } | null {
  const night = useAnswers((s) => s.conditions);
  const kept = useAnswers((s) => s.answers?.night?.keptC);
  const { setConditions } = useStores().answers;
  const print = usePrint();
  const { limits } = useCatalogue();
  if (!night) return null;
  const of = (name: Named, label: string, text: string, value: number, step: number) => ({
    label,
    text,
    value,
    min: limits[`night.${name}`]?.least ?? value,
    max: limits[`night.${name}`]?.most ?? value,
    step,
    onChange: (to: number) => setConditions({ [name]: to }),
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
      outdoorC: of("outdoorC", "Outdoor temperature", print(outdoorC, "temperature"), outdoorC, 0.5),
      windMPerS: of("windMPerS", "Wind", print(windMPerS, "speed"), windMPerS, 0.5),
      cloud: of("cloud", "Cloud", sky, cloud, 0.05),
      insideC: of("insideC", "Inside, until the start", print(insideC, "temperature"), insideC, 0.5),
      startWaterC: of("startWaterC", "Water temperature at the start", print(startWaterC, "temperature"), startWaterC, 1),
      hours: {
        ...of("hours", "How long it is left", print(hours * 3600, "duration"), span, 1),
        min: 0,
        max: spans.length - 1,
        onChange: (i) => setConditions({ hours: spans[i] ?? 8 }),
      },
    },
  };
}
