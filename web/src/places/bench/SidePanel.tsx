import { Tabs } from "radix-ui";
import { lazy, Suspense, useEffect } from "react";
import { useAnswers, useSelection } from "./benchStores";
import { Findings } from "./Findings";
import { Inspector } from "./Inspector";
import { Ladder } from "./Ladder";
import { type RailTab, useView } from "./viewStore";
import { WaterPanel } from "./water/WaterPanel";
import { useWaterStore } from "./water/waterStore";

const HeatPanel = lazy(async () => ({ default: (await import("./heat/HeatPanel")).HeatPanel }));
const AirPanel = lazy(async () => ({ default: (await import("./AirPanel")).AirPanel }));

/** Findings, the ladder and what is in hand share one rail. */
export function SidePanel() {
  const tab = useView((s) => s.tab);
  const setTab = useView((s) => s.setTab);
  const things = useSelection((s) => s.things);
  const findingId = useSelection((s) => s.findingId);
  const count = useAnswers((s) => s.answers?.advice.count);
  const lens = useView((s) => s.lens);
  const water = lens === "water";
  // A tap that is opened shows what comes out of it.
  const used = useWaterStore((s) => s.turned);
  useEffect(() => {
    if (water && Object.keys(used).length > 0) setTab("ladder");
  }, [water, used, setTab]);
  // What is taken in a drawing opens its properties; a finding stays open.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is newly taken counts
  useEffect(() => {
    if (things.length > 0 && findingId === null && tab === "findings") setTab("properties");
  }, [things]);
  const trigger =
    "h-10 grow rounded-md px-2 font-medium text-muted hover:text-ink data-[state=active]:bg-sunk data-[state=active]:text-ink data-[state=active]:shadow-[inset_0_0_0_1.5px_var(--ink)]";
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(v) => setTab(v as RailTab)}
      className="flex h-full min-h-0 flex-col rounded-md border border-rule bg-panel"
      aria-label="Side panel"
    >
      <Tabs.List className="flex shrink-0 gap-1 border-b border-rule p-1" aria-label="Side panel">
        <Tabs.Trigger value="findings" className={trigger}>
          Issues{count ? ` ${count}` : ""}
        </Tabs.Trigger>
        <Tabs.Trigger value="ladder" className={trigger}>
          {water ? "Water" : lens === "air" ? "Air" : lens === "heat" ? "Heat" : "Freezes"}
        </Tabs.Trigger>
        <Tabs.Trigger value="properties" className={trigger}>
          Selected
        </Tabs.Trigger>
      </Tabs.List>
      <Tabs.Content value="findings" className="flex min-h-0 grow flex-col outline-none data-[state=inactive]:hidden">
        <Findings />
      </Tabs.Content>
      <Tabs.Content value="ladder" className="flex min-h-0 grow flex-col outline-none data-[state=inactive]:hidden">
        {water ? (
          <WaterPanel />
        ) : lens === "air" || lens === "heat" ? (
          <Suspense fallback={<p className="p-4 text-muted">Loading…</p>}>{lens === "air" ? <AirPanel /> : <HeatPanel />}</Suspense>
        ) : (
          <Ladder />
        )}
      </Tabs.Content>
      <Tabs.Content value="properties" className="min-h-0 grow overflow-y-auto outline-none data-[state=inactive]:hidden">
        <Inspector />
      </Tabs.Content>
    </Tabs.Root>
  );
}
