import { useSelection } from "./benchStores";
import { Legend } from "./Legend";
import { SidePanel } from "./SidePanel";
import { profileRun } from "./selectionStore";
import { Tools } from "./Tools";
import { useView } from "./viewStore";
import { CornerView } from "./views/CornerView";
import { RunBar } from "./views/RunBar";
import { RunProfile } from "./views/RunProfile";
import { Sheet } from "./views/Sheet";

/** One view at a time on a page that scrolls: a tablet held upright, a page magnified. */
export function Narrow({ onAdd }: { onAdd(): void }) {
  const large = useView((s) => s.large);
  const run = useSelection(profileRun) !== null;
  return (
    <main className="flex flex-col gap-2 p-2">
      <Tools onAdd={onAdd} choice />
      <Legend />
      <RunBar />
      <div className="h-[62vh] min-h-80 shrink-0">{large === "sheet" ? <Sheet /> : <CornerView />}</div>
      {run && (
        <div className="h-64 shrink-0">
          <RunProfile />
        </div>
      )}
      <div className="h-[70vh] min-h-96 shrink-0">
        <SidePanel />
      </div>
    </main>
  );
}
