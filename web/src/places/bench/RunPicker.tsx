import { Check, ChevronsUpDown } from "lucide-react";
import { Select } from "radix-ui";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { usePrint } from "../../app/units";
import { useAnswers, useStores } from "./benchStores";

/** Every run by name, with what it holds: the keys' way to a run. */
export function RunPicker({ runs, runId }: { runs: Schema["Run"][]; runId: string }) {
  const { selection } = useStores();
  const drains = useAnswers((s) => s.answers?.drainDown.runs);
  const { numbers } = useCatalogue();
  const print = usePrint();
  // Hundreds of runs are listed only while the list is open.
  const [open, setOpen] = useState(false);
  return (
    <Select.Root open={open} onOpenChange={setOpen} value={runId} onValueChange={(runId) => selection.take({ kind: "run", runId })}>
      <Select.Trigger
        aria-label="Run"
        className="inline-flex h-10 max-w-72 shrink-0 items-center gap-2 truncate rounded-md border border-rule px-3 font-medium text-ink hover:border-strong"
      >
        <Select.Value>{runs.find((r) => r.id === runId)?.name}</Select.Value>
        <ChevronsUpDown size={15} className="text-muted" />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          side="top"
          className="z-50 max-h-80 min-w-72 overflow-hidden rounded-md border border-strong bg-panel shadow-xl"
        >
          <Select.Viewport className="p-1">
            {(open ? runs : []).map((run) => {
              const retained = drains?.find((r) => r.runId === run.id)?.staysL ?? 0;
              return (
                <Select.Item
                  key={run.id}
                  value={run.id}
                  className="flex h-10 items-center gap-3 rounded-[5px] px-3 outline-none data-highlighted:bg-sunk"
                >
                  <Select.ItemText>{run.name}</Select.ItemText>
                  <span className="ml-auto text-muted">{retained > numbers.dryRunL ? print(retained, "volume") : ""}</span>
                  <Select.ItemIndicator>
                    <Check size={15} />
                  </Select.ItemIndicator>
                </Select.Item>
              );
            })}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
