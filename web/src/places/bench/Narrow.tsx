import { useState } from "react";
import { usePrint } from "../../app/units";
import { stayWords } from "../../drawing/stays";
import { Choice } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useAnswers } from "./benchStores";
import { ColdLegend, Key } from "./Legend";
import { Rail } from "./Rail";
import { Shown } from "./Shown";
import { type Lens, useView } from "./viewStore";
import { CornerView } from "./views/CornerView";
import { FallStrip } from "./views/FallStrip";
import { RunBar } from "./views/RunBar";
import { Sheet } from "./views/Sheet";
import { WeatherStrip } from "./WeatherStrip";

export function LensChoice() {
  const lens = useView((s) => s.lens);
  const setLens = useView((s) => s.setLens);
  return (
    <Choice<Lens>
      label="Lens"
      value={lens}
      onChange={setLens}
      options={[
        { value: "drain", text: "Drain", title: "Falls, pools and drains (D)" },
        { value: "cold", text: "Cold", title: "Temperatures and ice (C)" },
      ]}
    />
  );
}

/** One view at a time on a page that scrolls: a tablet held upright, a page magnified. */
export function Narrow() {
  const lens = useView((s) => s.lens);
  const [view, setView] = useState<"sheet" | "corner" | "strip">("sheet");
  return (
    <main className="flex flex-col gap-2 p-2">
      <div className="flex flex-wrap items-center gap-2">
        <LensChoice />
        <Choice<"sheet" | "corner" | "strip">
          label="View"
          value={view}
          onChange={setView}
          options={[
            { value: "sheet", text: "Side and plan" },
            { value: "corner", text: "Corner" },
            { value: "strip", text: "Fall strip" },
          ]}
        />
        <Shown />
        <Key />
      </div>
      {lens === "drain" ? <DrainSummary /> : <ColdLegend />}
      <RunBar />
      <div className="h-[62vh] min-h-80 shrink-0">{view === "sheet" ? <Sheet /> : view === "corner" ? <CornerView /> : <FallStrip />}</div>
      <div className="h-[70vh] min-h-96 shrink-0">
        <Rail />
      </div>
      <WeatherStrip />
    </main>
  );
}

export function DrainSummary() {
  const drain = useAnswers((s) => s.answers?.drainDown);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!drain) return null;
  const { sum, where, apart } = stayWords(drain.stays, print);
  return (
    <Stale as="p" stale={stale} className="min-w-0 line-clamp-2 leading-5 max-[899px]:line-clamp-none" data-summary>
      <span className="text-muted">After draining </span>
      <strong className="text-[17px] font-semibold">{sum}</strong>
      <span className="text-muted">
        {where && `: ${where}`}
        {apart && `; ${apart}`}
      </span>
    </Stale>
  );
}
