import { PanelRight, Plus, Spline } from "lucide-react";
import type { Lens } from "../../drawing/lens";
import { Choice } from "../../ui/controls";
import { useDrawing, useStores } from "./benchStores";
import { Shown } from "./Shown";
import { type Large, useView } from "./viewStore";
import { viewWords } from "./views/SmallViews";

const larges: { value: Large; text: string; title: string }[] = [
  { value: "sheet", text: viewWords.sheet, title: "Side and plan on one scale (1)" },
  { value: "corner", text: viewWords.corner, title: "Turned and tipped (2)" },
];

const lenses: { value: Lens; text: string; title: string }[] = [
  { value: "water", text: "Water", title: "Where the water goes: open taps, turn valves (W)" },
  { value: "drain", text: "Drain", title: "Water that stays after draining (D)" },
  { value: "cold", text: "Cold", title: "Temperatures and ice (C)" },
  { value: "heat", text: "Heat", title: "Circuits and pads: where their heat goes (G)" },
  { value: "air", text: "Air", title: "What blowing out sweeps (X)" },
];

interface Props {
  onAdd(): void;
  /** With a choice of the large view: where no other view stands beside it. */
  choice?: boolean;
  /** With a side panel to show or hide. */
  panel?: boolean;
}

/** Over the drawing: what its colours mean, what can be put into it, and what it leaves out. */
export function Tools({ onAdd, choice = false, panel = false }: Props) {
  const { drawing } = useStores();
  const { lens, setLens, large, setLarge, shown, toggle } = useView();
  const drawingRun = useDrawing((d) => d !== null);
  const look =
    "inline-flex h-10 shrink-0 items-center gap-1.5 rounded-md border border-rule bg-panel px-3 font-medium hover:border-strong aria-pressed:border-ink aria-pressed:bg-sunk";
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-1.5">
      <Choice<Lens> label="Lens" value={lens} onChange={setLens} options={lenses} />
      <button type="button" className={look} onClick={onAdd} title="Add a part from stock (A)">
        <Plus size={17} aria-hidden="true" /> Add part
      </button>
      <button
        type="button"
        className={look}
        title="Draw a line from port to port (R)"
        aria-pressed={drawingRun}
        onClick={() => (drawingRun ? drawing.end() : drawing.begin(null))}
      >
        <Spline size={17} aria-hidden="true" /> Draw line
      </button>
      <Shown />
      <span className="min-w-0 grow" />
      {choice && <Choice<Large> label="Large view" value={large} onChange={setLarge} options={larges} />}
      {panel && (
        <button
          type="button"
          className={look}
          aria-pressed={shown.rail}
          title={`${shown.rail ? "Hide" : "Show"} the side panel (4)`}
          aria-label="Side panel"
          onClick={() => toggle("rail")}
        >
          <PanelRight size={17} aria-hidden="true" />
        </button>
      )}
    </div>
  );
}
