import { useCatalogue } from "../../app/catalogue";
import { called, freePorts, indexOf, portAt, portsTaken, type Rig } from "../../document/geometry";
import { nameOf, type Thing } from "../../document/things";
import { Button } from "../../ui/controls";
import { PickField, TextField } from "../../ui/QuantityField";
import { useStores } from "./benchStores";
import { Heading, PlaceFields, useChange } from "./inspectorFields";
import { madeOf, type Tie } from "./runDrawing";
import { useActions } from "./useActions";

/** A port: where it lies, and the run that begins there. */
export function PortForm({ rig, thing }: { rig: Rig; thing: Extract<Thing, { kind: "port" }> }) {
  const { parts } = indexOf(rig);
  const part = parts.get(thing.partId);
  const { selection, drawing } = useStores();
  const { catalogue, stock } = useCatalogue();
  const { commit } = useActions();
  const change = useChange();
  const port = part?.ports.find((p) => p.id === thing.portId);
  if (!part || !port) return null;
  const open = freePorts(rig)
    .filter((p) => p.part !== part.id)
    .map((p) => ({ value: `${p.part}/${p.port}`, text: p.words }));
  const here = portAt(part, thing.portId);
  const tieOf = (partId: string, portId: string): Tie | null => {
    const other = parts.get(partId);
    const at = other && portAt(other, portId);
    return at ? { kind: "port", partId, portId, at } : null;
  };
  const to = (value: string) => {
    const [partId = "", portId = ""] = value.split("/");
    const [start, end] = [tieOf(thing.partId, thing.portId), tieOf(partId, portId)];
    const made =
      start &&
      end &&
      madeOf(
        rig,
        { start, bends: [], pointer: null, over: null, view: null, service: null, asks: null },
        end,
        stock,
        catalogue?.usualRuns ?? [],
      );
    if (!made) return;
    selection.takeWhenThere(made.thing);
    commit(`Run ${made.name}`, made.edits);
  };
  return (
    <>
      <Heading kind="Port">{nameOf(rig, thing)}</Heading>
      <TextField
        label="Name"
        value={called(port)}
        onCommit={(name) =>
          change(`Name of ${nameOf(rig, thing)}`, `parts/${part.id}/ports/${thing.portId}`, { name: name === thing.portId ? null : name })
        }
      />
      <PlaceFields rig={rig} thing={thing} of="Invert of the pipe at this port; the part stays" />
      <PickField
        label="Run from here to"
        value=""
        options={[{ value: "", text: open.length > 0 ? "choose a free port" : "no free port" }, ...open]}
        onCommit={to}
      />
      <div className="flex flex-wrap gap-2">
        {here && !portsTaken(rig, part.id).has(thing.portId) && (
          <Button onClick={() => drawing.begin({ kind: "port", partId: part.id, portId: thing.portId, at: here })}>
            Draw line from here
          </Button>
        )}
        <Button onClick={() => selection.take({ kind: "part", partId: part.id })}>Select {part.name}</Button>
      </div>
    </>
  );
}
