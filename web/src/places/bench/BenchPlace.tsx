import { lazy, memo, Suspense, useEffect, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Group, Panel, Separator, useDefaultLayout } from "react-resizable-panels";
import { nothingHidden } from "../../document/shown";
import { useMedia } from "../../ui/useMedia";
import { BenchStores, useDrawing, useStores } from "./benchStores";
import { ColdLegend, Key } from "./Legend";
import { DrainSummary, LensChoice, Narrow } from "./Narrow";
import { Rail } from "./Rail";
import { inDrawing, keyed, RigPage } from "./RigPage";
import { Shown } from "./Shown";
import { useActions } from "./useActions";
import { useDrawRun } from "./useDrawRun";
import { hourOf, type Pane, useView } from "./viewStore";
import { CornerView } from "./views/CornerView";
import { FallStrip } from "./views/FallStrip";
import { RunBar } from "./views/RunBar";
import { Sheet } from "./views/Sheet";
import { WeatherStrip } from "./WeatherStrip";

// What opens over the bench comes when it is asked for.
const History = lazy(async () => ({ default: (await import("./History")).History }));
const Palette = lazy(async () => ({ default: (await import("./Palette")).Palette }));
const Photos = lazy(async () => ({ default: (await import("./Photos")).Photos }));
const Prices = lazy(async () => ({ default: (await import("./Prices")).Prices }));
const Tables = lazy(async () => ({ default: (await import("./Tables")).Tables }));

// A panel that is laid out anew draws its view again only when the view itself has changed.
const [SheetView, Corner, Strip, Side, Weather] = [memo(Sheet), memo(CornerView), memo(FallStrip), memo(Rail), memo(WeatherStrip)];

/** The heart: the drafting sheet, the corner view and the fall strip over one rig, the night as a control, and what follows from all of it. */
export function BenchPlace({ id }: { id: string }) {
  return (
    <BenchStores key={id} id={id}>
      <Bench id={id} />
    </BenchStores>
  );
}

/** Less room than this has one view at a time, on a page that scrolls. */
const NARROW = "(max-width: 899px), (max-height: 559px)";

function Bench({ id }: { id: string }) {
  const [finding, setFinding] = useState(false);
  const [tables, setTables] = useState(false);
  const [history, setHistory] = useState(false);
  const [photos, setPhotos] = useState(false);
  const [prices, setPrices] = useState(false);
  const narrow = useMedia(NARROW);
  // What was hidden of one rig is not hidden of the next.
  useEffect(() => () => useView.getState().hide(nothingHidden), []);
  useKeys(
    () => setFinding(true),
    () => setHistory(true),
  );
  useHour(id);
  return (
    <RigPage id={id} place="bench" full={!narrow} onFind={() => setFinding(true)}>
      {narrow ? <Narrow /> : <Wide />}
      <Suspense>
        {finding && (
          <Palette
            open
            onOpen={setFinding}
            onTables={() => setTables(true)}
            onHistory={() => setHistory(true)}
            onPhotos={() => setPhotos(true)}
            onPrices={() => setPrices(true)}
          />
        )}
        {photos && <Photos onClose={() => setPhotos(false)} />}
        {prices && <Prices onClose={() => setPrices(false)} />}
        {history && <History onClose={() => setHistory(false)} />}
        {tables && <Tables open onClose={() => setTables(false)} />}
      </Suspense>
    </RigPage>
  );
}

/** The views are coloured as the rig is at the hour that is looked at, while they tell of cold. */
function useHour(id: string) {
  const hour = useView(hourOf(id));
  const cold = useView((s) => s.lens === "cold");
  const { answers } = useStores();
  useEffect(() => answers.lookAt(cold ? hour : null), [answers, cold, hour]);
}

function useKeys(find: () => void, history: () => void) {
  const { document, selection, drawing } = useStores();
  const draw = useDrawRun();
  const setLens = useView((s) => s.setLens);
  const toggle = useView((s) => s.toggle);
  const actions = useActions();
  const drawn = () => drawing.getState().drawing !== null;
  const edits = inDrawing(drawn);
  // While a run is drawn, letters are the beginning of its words.
  const looks = { ...keyed, ignoreEventWhen: drawn };
  useHotkeys("mod+k", find, { preventDefault: true, enableOnFormTags: true });
  useHotkeys("d", () => setLens("drain"), looks);
  useHotkeys("c", () => setLens("cold"), looks);
  useHotkeys("1", () => toggle("sheet"), looks);
  useHotkeys("2", () => toggle("corner"), looks);
  useHotkeys("3", () => toggle("strip"), looks);
  useHotkeys("4", () => toggle("rail"), looks);
  useHotkeys("h", history, looks);
  useHotkeys("mod+c", () => window.getSelection()?.isCollapsed !== false && actions.carry(), keyed);
  useHotkeys("mod+v", () => void actions.paste(), keyed);
  useHotkeys("f", () => actions.evenFall(), edits);
  // The key itself is not typed into the field that it opens.
  useHotkeys("r", () => drawing.begin(null), { ...looks, preventDefault: true });
  useHotkeys("enter", () => draw.endLoose());
  useHotkeys("delete, backspace", () => actions.remove(), edits);
  useHotkeys("delete, backspace", () => drawing.back(), { ...keyed, ignoreEventWhen: () => !drawn() });
  useHotkeys(
    "escape",
    () => {
      if (drawing.getState().drawing) return drawing.end();
      // A drag first; what is in hand only when there is none.
      if (document.holds()) document.letGo();
      else selection.nothing();
    },
    keyed,
  );
}

const panes: { pane: Pane; text: string; key: string }[] = [
  { pane: "sheet", text: "Side and plan", key: "1" },
  { pane: "corner", text: "Corner", key: "2" },
  { pane: "strip", text: "Fall strip", key: "3" },
  { pane: "rail", text: "Rail", key: "4" },
];

function Wide() {
  const lens = useView((s) => s.lens);
  const shown = useView((s) => s.shown);
  const toggle = useView((s) => s.toggle);
  const stored = { storage: localStorage };
  const rails = useDefaultLayout({ id: "bench-rail", ...stored });
  const rows = useDefaultLayout({ id: "bench-rows", ...stored });
  const views = useDefaultLayout({ id: "bench-views", ...stored });
  const drawings = shown.sheet || shown.corner;
  const drawingRun = useDrawing((d) => d !== null);
  return (
    <main className="flex min-h-0 grow flex-col gap-2 p-2">
      <div className="flex shrink-0 items-center gap-3">
        <LensChoice />
        <div className="min-w-0 grow">{lens === "drain" ? <DrainSummary /> : <ColdLegend />}</div>
        <Shown />
        <Key />
        <fieldset className="flex shrink-0 gap-1">
          <legend className="sr-only">Views</legend>
          {panes.map((p) => (
            <button
              key={p.pane}
              type="button"
              aria-pressed={shown[p.pane]}
              title={`${shown[p.pane] ? "Hide" : "Show"} (${p.key})`}
              onClick={() => toggle(p.pane)}
              className="h-10 rounded-md px-2.5 text-muted hover:bg-sunk aria-pressed:font-semibold aria-pressed:text-ink aria-pressed:underline aria-pressed:decoration-2 aria-pressed:underline-offset-4"
            >
              {p.text}
            </button>
          ))}
        </fieldset>
      </div>
      <Group
        orientation="horizontal"
        className="min-h-0 grow"
        id="bench-rail"
        defaultLayout={rails.defaultLayout}
        onLayoutChanged={rails.onLayoutChanged}
      >
        <Panel id="work" minSize="40%">
          <Group orientation="vertical" id="bench-rows" defaultLayout={rows.defaultLayout} onLayoutChanged={rows.onLayoutChanged}>
            {drawings && (
              <Panel id="drawings" minSize="30%">
                <Group
                  orientation="horizontal"
                  id="bench-views"
                  defaultLayout={views.defaultLayout}
                  onLayoutChanged={views.onLayoutChanged}
                >
                  {shown.sheet && (
                    <Panel id="sheet" minSize="25%">
                      <SheetView />
                    </Panel>
                  )}
                  {shown.sheet && shown.corner && <Grip upright />}
                  {shown.corner && (
                    <Panel id="corner" minSize="20%">
                      <Corner />
                    </Panel>
                  )}
                </Group>
              </Panel>
            )}
            {drawings && shown.strip && <Grip />}
            {shown.strip && (
              <Panel id="strip" defaultSize="31%" minSize="20%">
                <Strip />
              </Panel>
            )}
          </Group>
        </Panel>
        {shown.rail && <Grip upright />}
        {shown.rail && (
          <Panel id="rail" defaultSize="26%" minSize="18%">
            <Side />
          </Panel>
        )}
      </Group>
      {/* The bar lies over the strip: a drawing that moved when a run begins would move under the finger. */}
      <div className="relative shrink-0">
        <div className={drawingRun ? "invisible" : ""}>
          <Weather />
        </div>
        {drawingRun && (
          <div className="absolute inset-x-0 bottom-0 z-10">
            <RunBar />
          </div>
        )}
      </div>
    </main>
  );
}

/** Between two panels: pulled, or moved with arrow keys. */
function Grip({ upright }: { upright?: boolean }) {
  return (
    <Separator
      className={`group relative flex items-center justify-center outline-none ${upright ? "w-2 cursor-col-resize" : "h-2 cursor-row-resize"} before:absolute ${upright ? "before:-inset-x-1.5 before:inset-y-0" : "before:inset-x-0 before:-inset-y-1.5"}`}
    >
      <span
        className={`rounded bg-strong opacity-60 group-hover:opacity-100 group-focus-visible:bg-ink ${upright ? "h-8 w-1" : "h-1 w-8"}`}
      />
    </Separator>
  );
}
