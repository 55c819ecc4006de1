import { X } from "lucide-react";
import { lazy, memo, Suspense, useEffect, useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Group, Panel, Separator, useDefaultLayout } from "react-resizable-panels";
import { nothingHidden } from "../../document/shown";
import { useMedia } from "../../ui/useMedia";
import { useReturnFocus } from "../../ui/useReturnFocus";
import { BenchStores, useDocument, useDrawing, useSelection, useStores } from "./benchStores";
import { Invite } from "./Invite";
import { Legend } from "./Legend";
import { Narrow } from "./Narrow";
import { inDrawing, keyed, RigPage } from "./RigPage";
import { SearchSoon } from "./SearchSoon";
import { SidePanel } from "./SidePanel";
import { profileRun } from "./selectionStore";
import { Tools } from "./Tools";
import { useActions } from "./useActions";
import { useDrawRun } from "./useDrawRun";
import { hourOf, useView } from "./viewStore";
import { CornerView } from "./views/CornerView";
import { RunBar } from "./views/RunBar";
import { RunProfile } from "./views/RunProfile";
import { Sheet } from "./views/Sheet";
import { SmallView } from "./views/SmallViews";
import { toolClass } from "./views/ViewFrame";

// What opens over the bench comes when it is asked for.
const History = lazy(async () => ({ default: (await import("./History")).History }));
const Palette = lazy(async () => ({ default: (await import("./Palette")).Palette }));
const Photos = lazy(async () => ({ default: (await import("./Photos")).Photos }));
const Prices = lazy(async () => ({ default: (await import("./Prices")).Prices }));
const Tables = lazy(async () => ({ default: (await import("./Tables")).Tables }));

// A panel that is laid out anew draws its view again only when the view itself has changed.
const [SheetView, Corner, Strip, Side] = [memo(Sheet), memo(CornerView), memo(RunProfile), memo(SidePanel)];

/** The heart: the drafting sheet, the 3D view and the run profile over one rig, the night as a control, and what follows from all of it. */
export function BenchPlace({ id }: { id: string }) {
  return (
    <BenchStores key={id} id={id}>
      <Bench id={id} />
    </BenchStores>
  );
}

/** With so much room there are other views and the legend beside the drawing; with less there are words for them over it. */
const ROOMY = "(min-width: 1181px)";
/** Less room than this has one view at a time, on a page that scrolls. */
const NARROW = "(max-width: 899px), (max-height: 559px)";

function Bench({ id }: { id: string }) {
  const [finding, setFinding] = useState(false);
  const [adding, setAdding] = useState(false);
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
    () => setAdding(true),
  );
  useHour(id);
  useSheetToDraw();
  const [typed, setTyped] = useState("");
  useReturnFocus(finding || adding);
  const close = () => {
    setTyped("");
    setFinding(false);
    setAdding(false);
  };
  return (
    <RigPage id={id} place="bench" full={!narrow} onFind={() => setFinding(true)}>
      {narrow ? <Narrow onAdd={() => setAdding(true)} /> : <Wide onAdd={() => setAdding(true)} />}
      <Suspense fallback={(finding || adding) && <SearchSoon typed={typed} onType={setTyped} onClose={close} />}>
        {(finding || adding) && (
          <Palette
            open
            parts={adding}
            begun={typed}
            onOpen={(open) => !open && close()}
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

/** Lines are drawn from the side and from above, however one begins. */
function useSheetToDraw() {
  const drawn = useDrawing((d) => d !== null);
  const setLarge = useView((s) => s.setLarge);
  useEffect(() => {
    if (drawn) setLarge("sheet");
  }, [drawn, setLarge]);
}

/** The views are coloured as the rig is at the hour that is looked at, while they tell of cold. */
function useHour(id: string) {
  const hour = useView(hourOf(id));
  const cold = useView((s) => s.lens === "cold" || s.lens === "heat");
  const { answers } = useStores();
  useEffect(() => answers.lookAt(cold ? hour : null), [answers, cold, hour]);
}

function useKeys(find: () => void, history: () => void, add: () => void) {
  const { document, selection, drawing } = useStores();
  const draw = useDrawRun();
  const setLens = useView((s) => s.setLens);
  const setLarge = useView((s) => s.setLarge);
  const toggle = useView((s) => s.toggle);
  const actions = useActions();
  const drawn = () => drawing.getState().drawing !== null;
  const edits = inDrawing(drawn);
  // While a run is drawn, letters are the beginning of its words.
  const looks = { ...keyed, ignoreEventWhen: drawn };
  useHotkeys("mod+k", find, { preventDefault: true, enableOnFormTags: true });
  useHotkeys("d", () => setLens("drain"), looks);
  useHotkeys("c", () => setLens("cold"), looks);
  useHotkeys("w", () => setLens("water"), looks);
  useHotkeys("x", () => setLens("air"), looks);
  useHotkeys("g", () => setLens("heat"), looks);
  useHotkeys("1", () => setLarge("sheet"), looks);
  useHotkeys("2", () => setLarge("corner"), looks);
  useHotkeys("4", () => toggle("rail"), looks);
  useHotkeys("n", () => toggle("weather"), looks);
  useHotkeys("a", add, { ...looks, preventDefault: true });
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
    // What is open over the bench is closed by it first.
    { ...keyed, ignoreEventWhen: (e) => e.defaultPrevented },
  );
}

/** The drawing, nearly all of the screen; the profile of the run that is selected under it, what follows from it beside it. */
function Wide({ onAdd }: { onAdd(): void }) {
  const large = useView((s) => s.large);
  const rail = useView((s) => s.shown.rail);
  const roomy = useMedia(ROOMY);
  const empty = useDocument((s) => s.rig?.parts.length === 0);
  const run = useSelection(profileRun) !== null;
  const stored = { storage: localStorage };
  const columns = useDefaultLayout({ id: "bench-columns", ...stored });
  const rows = useDefaultLayout({ id: "bench-profile", ...stored });
  const drawingRun = useDrawing((d) => d !== null);
  const { selection } = useStores();
  const beside = useMemo(
    () =>
      roomy && (
        <>
          <SmallView of={large === "sheet" ? "corner" : "sheet"} />
          <Legend />
        </>
      ),
    [large, roomy],
  );
  return (
    <main className="flex min-h-0 grow flex-col">
      <Group
        orientation="horizontal"
        className="min-h-0 grow"
        id="bench-columns"
        defaultLayout={columns.defaultLayout}
        onLayoutChanged={columns.onLayoutChanged}
      >
        <Panel id="work" minSize="40%" className="flex flex-col gap-1.5 p-1.5">
          <Tools onAdd={onAdd} choice={!roomy} panel />
          {!roomy && <Legend />}
          <div className="relative min-h-0 grow">
            <Group orientation="vertical" id="bench-profile" defaultLayout={rows.defaultLayout} onLayoutChanged={rows.onLayoutChanged}>
              <Panel id="drawing" minSize="40%">
                {large === "sheet" ? <SheetView beside={beside} /> : <Corner beside={beside} />}
              </Panel>
              {run && <Grip />}
              {run && (
                <Panel id="profile" defaultSize="186px" minSize="160px">
                  <Strip onClose={closeProfile(() => selection.nothing())} />
                </Panel>
              )}
            </Group>
            {empty && !drawingRun && <Invite onAdd={onAdd} />}
            {/* The bar lies over the drawing: one that moved when a run begins would move under the finger. */}
            {drawingRun && (
              <div className="absolute inset-x-0 bottom-0 z-10">
                <RunBar />
              </div>
            )}
          </div>
        </Panel>
        {rail && <Grip upright />}
        {rail && (
          <Panel id="rail" defaultSize="24%" minSize="18%" className="py-1.5 pr-1.5">
            <Side />
          </Panel>
        )}
      </Group>
    </main>
  );
}

const closeProfile = (close: () => void) => (
  <button type="button" className={toolClass} aria-label="Close the run profile" title="Close (Esc)" onClick={close}>
    <X size={17} />
  </button>
);

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
