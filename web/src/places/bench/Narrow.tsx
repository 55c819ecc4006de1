import { Plus, Spline } from "lucide-react";
import type { Lens } from "../../drawing/lens";
import { Button, Choice } from "../../ui/controls";
import { useDrawing, useSelection, useStores } from "./benchStores";
import { Legend } from "./Legend";
import { Rail } from "./Rail";
import { Shown } from "./Shown";
import { profileRun } from "./selectionStore";
import { type Large, useView } from "./viewStore";
import { CornerView } from "./views/CornerView";
import { FallStrip } from "./views/FallStrip";
import { RunBar } from "./views/RunBar";
import { Sheet } from "./views/Sheet";
import { viewWords } from "./views/SmallViews";

export function LensChoice() {
  const lens = useView((s) => s.lens);
  const setLens = useView((s) => s.setLens);
  return (
    <Choice<Lens>
      label="Lens"
      value={lens}
      onChange={setLens}
      options={[
        { value: "lines", text: "Lines", title: "What each line carries (L)" },
        { value: "drain", text: "Drain", title: "Water that stays after draining (D)" },
        { value: "cold", text: "Cold", title: "Temperatures and ice (C)" },
      ]}
    />
  );
}

/** One view at a time on a page that scrolls: a tablet held upright, a page magnified. */
export function Narrow({ onAdd }: { onAdd(): void }) {
  const { drawing } = useStores();
  const large = useView((s) => s.large);
  const setLarge = useView((s) => s.setLarge);
  const drawingRun = useDrawing((d) => d !== null);
  const run = useSelection(profileRun) !== null;
  return (
    <main className="flex flex-col gap-2 p-2">
      <div className="flex flex-wrap items-center gap-2">
        <LensChoice />
        <Choice<Large>
          label="Large view"
          value={large}
          onChange={setLarge}
          options={[
            { value: "sheet", text: viewWords.sheet },
            { value: "corner", text: viewWords.corner },
          ]}
        />
        <Button onClick={onAdd}>
          <Plus size={17} aria-hidden="true" /> Add part
        </Button>
        <Button
          aria-pressed={drawingRun}
          onClick={() => {
            if (!drawingRun) setLarge("sheet");
            if (drawingRun) drawing.end();
            else drawing.begin(null);
          }}
        >
          <Spline size={17} aria-hidden="true" /> Draw line
        </Button>
        <Shown />
      </div>
      <Legend />
      <RunBar />
      <div className="h-[62vh] min-h-80 shrink-0">{large === "sheet" ? <Sheet /> : <CornerView />}</div>
      {run && (
        <div className="h-64 shrink-0">
          <FallStrip />
        </div>
      )}
      <div className="h-[70vh] min-h-96 shrink-0">
        <Rail />
      </div>
    </main>
  );
}
