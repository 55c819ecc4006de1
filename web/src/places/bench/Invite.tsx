import { Plus } from "lucide-react";
import { Link } from "wouter";
import { Button } from "../../ui/controls";
import { useDocument } from "./benchStores";

/** Nothing is drawn yet: what to begin with. */
export function Invite({ onAdd }: { onAdd(): void }) {
  const id = useDocument((s) => s.id);
  return (
    <section
      aria-label="Start"
      className="absolute top-1/2 left-1/2 z-10 w-96 max-w-[90%] -translate-x-1/2 -translate-y-1/2 rounded-md border border-strong bg-panel p-5 text-center shadow-xl"
    >
      <h2 className="text-[17px] font-semibold">Start with a tank</h2>
      <p className="mt-1 text-muted">
        Add a tank, a pump and a tap, then draw lines between their ports. What stays and what freezes shows as you draw.
      </p>
      <p className="mt-3 flex flex-wrap justify-center gap-2">
        <Button onClick={onAdd}>
          <Plus size={17} aria-hidden="true" /> Add part
        </Button>
        <Link
          href={`/rigs/${id}/brief`}
          className="inline-flex h-10 items-center rounded-md border border-rule px-3 font-medium hover:border-strong"
        >
          Fill in the brief
        </Link>
      </p>
    </section>
  );
}
