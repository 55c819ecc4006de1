import { useCatalogue } from "../../app/catalogue";
import { usePrint } from "../../app/units";
import { courseOf, indexOf, lengthOf, type Rig } from "../../document/geometry";
import { moverOf, nameOf, type Thing } from "../../document/things";
import { fixings, services } from "../../drawing/services";
import { Button } from "../../ui/controls";
import { PickField, QuantityField, TextField } from "../../ui/QuantityField";
import { useStores } from "./benchStores";
import { bendAfter, teeAfter } from "./drawingTools";
import { Heading, PlaceFields, SleeveFields, useChange } from "./inspectorFields";
import { FloorFields, TraceAlong, TraceFields } from "./inspectorHeat";
import { useActions } from "./useActions";

export function RunForm({ rig, id }: { rig: Rig; id: string }) {
  const run = indexOf(rig).runs.get(id);
  const { catalogue } = useCatalogue();
  const { selection } = useStores();
  const print = usePrint();
  const change = useChange();
  const { remove, evenFall } = useActions();
  if (!run) return null;
  const path = `runs/${id}`;
  return (
    <>
      <Heading kind={`Run, ${print(lengthOf(courseOf(rig, run)), "length")} long`}>{run.name}</Heading>
      <TextField label="Name" value={run.name} onCommit={(name) => change(`Name of ${run.name}`, path, { name })} />
      <div className="grid grid-cols-2 gap-2">
        <PickField
          label="Carries"
          value={run.service}
          options={Object.entries(services).map(([value, text]) => ({ value, text }))}
          onCommit={(service) => change(`${run.name} carries ${service}`, path, { service })}
        />
        <PickField
          label="Pipe"
          value={run.pipe}
          options={(catalogue?.pipes ?? []).map((p) => ({ value: p.id, text: p.name }))}
          onCommit={(pipe) => change(`Pipe of ${run.name}`, path, { pipe })}
        />
        <SleeveFields
          label="Insulation from its start"
          none="none"
          sleeve={run.insulation}
          onCommit={(insulation) => change(`Insulation of ${run.name}`, path, { insulation })}
        />
        <QuantityField
          label="Clips every"
          value={run.clipSpacingM}
          quantity="length"
          limit="run.clipSpacingM"
          onCommit={(clipSpacingM) => change(`Clips of ${run.name}`, path, { clipSpacingM })}
        />
        <QuantityField
          label="Extra length"
          value={run.slackM}
          quantity="length"
          limit="run.slackM"
          onCommit={(slackM) => change(`Extra length of ${run.name}`, path, { slackM })}
        />
      </div>
      <TraceFields rig={rig} run={run} />
      <FloorFields run={run} />
      <TraceAlong rig={rig} run={run} />
      <div className="flex flex-wrap gap-2">
        <Button disabled={run.bends.length === 0} title="Every bend on one even fall between the ends (F)" onClick={() => evenFall()}>
          Set even fall
        </Button>
        <Button onClick={remove}>Delete</Button>
      </div>
      <section>
        <h4 className="text-muted">Points, in the order of flow: height above the floor</h4>
        <ol>
          {courseOf(rig, run).map((p) => (
            <li key={p.id}>
              <button
                type="button"
                className="flex h-10 w-full items-center justify-between gap-2 rounded-md px-2 text-left hover:bg-sunk"
                onClick={() => selection.take({ kind: "point", runId: id, pointId: p.id })}
              >
                <span className="min-w-0 truncate">
                  {nameOf(rig, { kind: "point", runId: id, pointId: p.id }).slice(run.name.length + 2)}
                </span>
                <span className="shrink-0 font-semibold">{print(p.at.zM, "length")}</span>
              </button>
            </li>
          ))}
        </ol>
      </section>
    </>
  );
}

export function PointForm({ rig, thing }: { rig: Rig; thing: Extract<Thing, { kind: "point" }> }) {
  const run = indexOf(rig).runs.get(thing.runId);
  const { selection } = useStores();
  const actions = useActions();
  const change = useChange();
  if (!run) return null;
  const mover = moverOf(rig, thing, actions.fixed);
  const isEnd = thing.pointId === "from" || thing.pointId === "to";
  const bend = run.bends.find((b) => b.id === thing.pointId);
  const put = (what: string, made: ReturnType<typeof bendAfter>) => {
    selection.takeWhenThere(made.thing);
    actions.commit(`${what} in ${run.name}`, made.edits);
  };
  return (
    <>
      <Heading kind={`Point of a ${services[run.service]} run`}>{nameOf(rig, thing)}</Heading>
      <PlaceFields rig={rig} thing={thing} of="Invert of the bore: its lowest line" />
      {isEnd && mover?.kind === "part" && (
        <p className="text-muted">It moves with {nameOf(rig, mover)}, and so does every run that meets there.</p>
      )}
      {!mover && <p className="text-muted">It stays: its tank is fixed.</p>}
      {bend && (
        <div className="grid grid-cols-2 gap-2">
          <SleeveFields
            label="Insulation from here on"
            none="as before it"
            sleeve={bend.insulation}
            onCommit={(insulation) => change(`Insulation of ${run.name}`, `runs/${run.id}/bends/${bend.id}`, { insulation })}
          />
          <PickField
            label="Fixed here by"
            value={bend.fixing ?? ""}
            options={[{ value: "", text: "nothing" }, ...Object.entries(fixings).map(([value, text]) => ({ value, text }))]}
            onCommit={(fixing) =>
              change(`${fixing ? `A ${fixing} in` : "Nothing holds"} ${run.name}`, `runs/${run.id}/bends/${bend.id}`, {
                fixing: fixing || null,
              })
            }
          />
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => put("Bend", bendAfter(rig, run, thing.pointId))}>
          Add a bend {thing.pointId === "to" ? "before" : "after"}
        </Button>
        <Button onClick={() => put("Tee", teeAfter(rig, run, thing.pointId))}>Add a tee</Button>
        <Button onClick={() => put("Clip", bendAfter(rig, run, thing.pointId, "clip"))}>
          Add a clip {thing.pointId === "to" ? "before" : "after"}
        </Button>
        {!isEnd && <Button onClick={actions.remove}>Delete</Button>}
        <Button onClick={() => selection.take({ kind: "run", runId: run.id })}>Select the run</Button>
      </div>
      <p className="flex items-center gap-2">
        <Button aria-label="Point before" onClick={() => actions.walk(-1)}>
          Before
        </Button>
        <Button aria-label="Next point" onClick={() => actions.walk(1)}>
          Next
        </Button>
      </p>
    </>
  );
}
