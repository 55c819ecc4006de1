import { Popover } from "radix-ui";
import { useId, useMemo } from "react";
import type { Rig } from "../../document/geometry";
import { nothingHidden, shownOf } from "../../document/shown";
import { services } from "../../drawing/services";
import { Button } from "../../ui/controls";
import { PickField } from "../../ui/QuantityField";
import { useDocument } from "./benchStores";
import { useView } from "./viewStore";

/** The rig as the drawings show it: without what the reader has hidden. */
export function useShownRig(rig: Rig): Rig {
  const hidden = useView((s) => s.hidden);
  return useMemo(() => shownOf(rig, hidden), [rig, hidden]);
}

/** Which services, and which room, the drawings show. */
export function Shown() {
  const rig = useDocument((s) => s.rig);
  const hidden = useView((s) => s.hidden);
  const hide = useView((s) => s.hide);
  const title = useId();
  const used = (Object.keys(services) as (keyof typeof services)[]).filter((s) => rig?.runs.some((r) => r.service === s));
  const part = hidden.services.length > 0 || (hidden.zoneId !== null && rig?.shell.zones.some((z) => z.id === hidden.zoneId));
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`h-10 shrink-0 rounded-md border px-3 font-medium hover:border-strong ${part ? "border-ink" : "border-rule"}`}
      >
        {part ? "Layers: some" : "Layers"}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          aria-labelledby={title}
          className="z-40 w-64 rounded-md border border-strong bg-panel p-4 shadow-xl"
        >
          <h2 id={title} className="font-semibold">
            Layers
          </h2>
          <p className="text-muted">Results are always for the whole rig.</p>
          <ul className="mt-2">
            {used.map((s) => (
              <li key={s}>
                <label className="flex h-10 items-center gap-3">
                  <input
                    type="checkbox"
                    className="size-5 accent-[var(--ink)]"
                    checked={!hidden.services.includes(s)}
                    onChange={(e) =>
                      hide({ ...hidden, services: e.target.checked ? hidden.services.filter((x) => x !== s) : [...hidden.services, s] })
                    }
                  />
                  {services[s]}
                </label>
              </li>
            ))}
          </ul>
          <div className="mt-2">
            <PickField
              label="Room"
              value={hidden.zoneId ?? ""}
              options={[{ value: "", text: "all rooms" }, ...(rig?.shell.zones ?? []).map((z) => ({ value: z.id, text: z.name }))]}
              onCommit={(v) => hide({ ...hidden, zoneId: v || null })}
            />
          </div>
          <div className="mt-3">
            <Button disabled={!part} onClick={() => hide(nothingHidden)}>
              Show all
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
