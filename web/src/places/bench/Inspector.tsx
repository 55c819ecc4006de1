import { Fragment } from "react";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { measured } from "../../document/arrange";
import type { Rig } from "../../document/geometry";
import { keyOf, nameOf, type Thing } from "../../document/things";
import { Button } from "../../ui/controls";
import { TextField } from "../../ui/QuantityField";
import { useAnswers, useDocument, useSelection, useStores } from "./benchStores";
import { Heading, useChange } from "./inspectorFields";
import { PartForm } from "./inspectorPart";
import { PortForm } from "./inspectorPort";
import { PointForm, RunForm } from "./inspectorRun";
import { stepsOf } from "./moving";
import { useActions } from "./useActions";

/** What is in hand, with everything about it that can be typed. */
export function Inspector() {
  const rig = useDocument((s) => s.rig) as Rig;
  const things = useSelection((s) => s.things);
  const { selection } = useStores();
  const steps = stepsOf(useSettings((s) => s.system));
  const last = things.at(-1);
  if (!last) {
    return (
      <div className="p-3 text-muted">
        <p>Nothing selected</p>
        <p className="mt-2">
          Tap a part, a run, a point or a room in any view, or press Ctrl K to search. Shift-tap selects several; drag with Shift to select
          all inside a rectangle.
        </p>
        <p className="mt-2">
          Arrow keys move the selection by {steps.words}, with Shift by {steps.fineWords}. Comma and full stop step from point to point.
        </p>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-3 p-3" data-inspector={keyOf(last)}>
      {things.length > 1 && (
        <div>
          <p className="font-semibold">{things.length} selected; the last one:</p>
          <ul className="mt-1 flex flex-wrap gap-1">
            {things.map((t) => (
              <li key={keyOf(t)}>
                <button
                  type="button"
                  className="h-10 max-w-60 truncate rounded-md border border-rule px-2"
                  onClick={() => selection.take(t)}
                >
                  {nameOf(rig, t)}
                </button>
              </li>
            ))}
          </ul>
          <Several rig={rig} things={things} />
        </div>
      )}
      {/* A form is of one thing: what is typed in it last goes to that, however soon another is taken. */}
      <Fragment key={keyOf(last)}>
        {last.kind === "part" && <PartForm rig={rig} id={last.partId} />}
        {last.kind === "run" && <RunForm rig={rig} id={last.runId} />}
        {last.kind === "point" && <PointForm rig={rig} thing={last} />}
        {last.kind === "port" && <PortForm rig={rig} thing={last} />}
        {last.kind === "zone" && <ZoneForm rig={rig} id={last.zoneId} />}
      </Fragment>
    </div>
  );
}

/** What can be done with several, and how far two of them are apart. */
function Several({ rig, things }: { rig: Rig; things: Thing[] }) {
  const actions = useActions();
  const print = usePrint();
  const [a, b] = things;
  const far = things.length === 2 && a && b ? measured(rig, a, b) : null;
  return (
    <>
      {far && (
        <p className="mt-2" data-measured>
          {print(Math.abs(far.along), "length")} along, {print(Math.abs(far.across), "length")} across, {print(Math.abs(far.up), "length")}{" "}
          {far.up < 0 ? "lower" : "higher"}; <strong>{print(far.straight, "length")}</strong> straight
          {far.fall !== null && `, a fall of ${print(Math.abs(far.fall), "fall")}`}.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => actions.level()}>Same height</Button>
        <Button disabled={things.length < 3} title="Between the first and the last (F)" onClick={() => actions.evenFall()}>
          Even fall
        </Button>
        <Button onClick={() => actions.mirrorAcross()}>Move to other side</Button>
        <Button onClick={() => actions.carry()}>Copy</Button>
        <Button onClick={() => actions.remove()}>Delete all</Button>
      </div>
    </>
  );
}

function ZoneForm({ rig, id }: { rig: Rig; id: string }) {
  const zone = rig.shell.zones.find((z) => z.id === id);
  const air = useAnswers((s) => s.answers?.freezeLadder.zones.find((z) => z.zoneId === id)?.airC);
  const print = usePrint();
  const change = useChange();
  if (!zone) return null;
  return (
    <>
      <Heading kind="Zone">{zone.name}</Heading>
      <TextField label="Name" value={zone.name} onCommit={(name) => change(`Name of ${zone.name}`, `shell/zones/${id}`, { name })} />
      <p>
        <span className="text-muted">Air tonight </span>
        <strong className="font-semibold">{print(air, "temperature")}</strong>
        <span className="text-muted">, in the morning. Estimate.</span>
      </p>
      <p className="text-muted">
        {print(zone.box.size.xM, "length")} × {print(zone.box.size.yM, "length")} × {print(zone.box.size.zM, "length")}, {zone.faces.length}{" "}
        faces
      </p>
    </>
  );
}
