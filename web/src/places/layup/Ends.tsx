import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { indexOf, type Rig } from "../../document/geometry";
import { Panel } from "../../ui/controls";

/** How everything stands once it is done. */
export function Ends({ made, rig }: { made: Schema["ProcedureAnswer"]; rig: Rig }) {
  const { stock } = useCatalogue();
  const { parts } = indexOf(rig);
  if (made.ends.length === 0) return null;
  return (
    <Panel className="p-3" aria-label="At the end">
      <h2 className="font-semibold">At the end</h2>
      <ul className="mt-1 grid grid-cols-1 gap-x-4 min-[560px]:grid-cols-2">
        {made.ends.map((e) => {
          const part = parts.get(e.id);
          const position = part && stock.get(part.stock)?.positions.find((p) => p.id === e.position);
          const use = part && e.inUse ? stock.get(part.stock)?.positions.find((p) => p.id === e.inUse) : null;
          return part && position ? (
            <li key={e.id} className="flex gap-2 border-b border-rule py-1">
              <span className="min-w-0 grow truncate" title={part.name}>
                {part.name}
              </span>
              <span className="shrink-0 text-right">
                <strong className="font-semibold">{position.name}</strong>
                {use && <span className="block text-muted">in use: {use.name}</span>}
              </span>
            </li>
          ) : null;
        })}
      </ul>
    </Panel>
  );
}
