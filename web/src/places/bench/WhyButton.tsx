import { useQuery } from "@tanstack/react-query";
import { CircleHelp } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import { api, data, type Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { useBench } from "./benchStore";

/** How a number came about: the formula in words and its inputs, guesses marked. */
export function WhyButton({ why, of, onOpen }: { why: Schema["Why"] | null; of: string; onOpen?: (open: boolean) => void }) {
  const print = usePrint();
  return (
    <Popover.Root {...(onOpen ? { onOpenChange: onOpen } : {})}>
      <Popover.Trigger
        aria-label={`Why: ${of}`}
        className="grid size-10 shrink-0 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
      >
        <CircleHelp size={17} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="left" collisionPadding={12} className="z-50 w-80 rounded-md border border-strong bg-panel p-4 shadow-xl">
          <h3 className="font-semibold">{of}</h3>
          <p className="mt-1 text-muted">{why?.formula ?? "Working it out…"}</p>
          <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
            {why?.inputs.map((i) => (
              <div key={i.name} className="contents">
                <dt>
                  {i.name}
                  {i.estimate && <span className="ml-1.5 rounded bg-sunk px-1 text-[12px] text-muted">estimate</span>}
                </dt>
                <dd className="text-right font-semibold">{print(i.value.value, i.value.quantity)}</dd>
              </div>
            ))}
          </dl>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The same for a rung of the ladder, asked for when it is opened: the ladder itself goes without, so that a drag is answered sooner. */
export function RungWhy({ id, of }: { id: string; of: string }) {
  const [open, setOpen] = useState(false);
  const { id: rigId, revision, waiting, conditions } = useBench();
  const edits = waiting.flatMap((w) => w.edits);
  const answer = useQuery({
    queryKey: ["why", rigId, revision, edits, conditions, id],
    enabled: open,
    queryFn: async ({ signal }) => {
      const body = { id: rigId, base: revision, edits, conditions, wanted: ["rungWhy"], about: id };
      return data(await api.POST("/api/answers", { body, signal })).answers.rungWhy;
    },
  });
  return <WhyButton why={answer.data?.why ?? null} of={of} onOpen={setOpen} />;
}
