import { useState } from "react";
import type { Schema } from "../../../api/client";
import { plural, say, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { winWords } from "../Fixes";
import { useActions } from "../useActions";
import { useAsked, useJob } from "../useAsked";

/** What is asked when it is looked at: the wait for hot water, and filling. */
export function WaterSums({ rig }: { rig: Rig }) {
  return (
    <>
      <Opens name="Wait for hot water">
        <HotWait />
      </Opens>
      <Opens name="Filling and vent">
        <Filling rig={rig} />
      </Opens>
    </>
  );
}

export function Opens({ name, children }: { name: string; children: React.ReactNode }) {
  const [shown, setShown] = useState(false);
  return (
    <details className="mt-2 border-t border-rule" open={shown} onToggle={(e) => setShown(e.currentTarget.open)}>
      <summary className="h-10 cursor-pointer content-center font-semibold">{name}</summary>
      {shown && children}
    </details>
  );
}

const savingWords: Record<Schema["HotSavingKind"], string> = {
  insulation: "Insulate the hot way",
  smallerBore: "Hot way in 3/8 in",
  homeRun: "A line of its own from the heater",
};

function HotWait() {
  const hot = useAsked("hotWait").data;
  const print = usePrint();
  if (!hot) return <p className="text-muted">Calculating…</p>;
  if (hot.outlets.length === 0) return <p className="text-muted">No hot tap is joined yet.</p>;
  return (
    <div className="pb-2" data-hot-wait>
      <p>
        <strong className="font-semibold">{print(hot.wastedLADay, "volume")} wasted a day</strong>, {print(hot.shareOfUse, "share")} of the
        water used. Estimate.
      </p>
      {hot.outlets.map((o) => (
        <section key={o.partId} className="mt-2">
          <h4 className="font-medium">
            {o.name}{" "}
            <span className="font-normal text-muted">
              {plural(Math.max(1, Math.round(o.s)), "second")}, {print(o.litres, "volume")} from cold
            </span>
          </h4>
          <ul>
            {o.savings.map((s) => (
              <Saving key={s.kind} saving={s} at={o} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** One way to wait less. What it changes elsewhere is told before it is applied. */
function Saving({ saving: s, at: o }: { saving: Schema["HotSaving"]; at: Schema["HotWaitAt"] }) {
  const [tried, setTried] = useState(false);
  const print = usePrint();
  return (
    <li className="border-b border-rule py-1">
      <div className="flex items-center gap-2">
        <span className="min-w-0 grow">
          {savingWords[s.kind]}{" "}
          <span className="block text-muted">
            saves {print(s.savesLADay, "volume")} a day
            {s.kind === "smallerBore" && `; flow ${print(s.lPerMin, "flow")} instead of ${print(o.lPerMin, "flow")}`}
          </span>
        </span>
        {s.edits.length === 0 ? (
          <span className="text-muted">draw it</span>
        ) : (
          <Button quiet aria-expanded={tried} onClick={() => setTried(!tried)}>
            Try
          </Button>
        )}
      </div>
      {tried && <Tried saving={s} name={`${savingWords[s.kind]}, ${o.name}`} />}
    </li>
  );
}

function Tried({ saving, name }: { saving: Schema["HotSaving"]; name: string }) {
  const trial = useJob("trial", { edits: saving.edits as never }).data;
  const print = usePrint();
  const { commit } = useActions();
  if (!trial) return <p className="text-muted">Trying it on the whole rig…</p>;
  if (!trial.wins) return <p role="alert">It can't be done: {trial.refused}.</p>;
  const words = winWords(trial.wins, print);
  return (
    <div className="flex items-center gap-2" data-tried={saving.kind}>
      <p className="min-w-0 grow">{words.length > 0 ? words.join(" · ") : "Nothing else changes."}</p>
      <Button onClick={() => commit(name, saving.edits)}>Apply</Button>
    </div>
  );
}

function Filling({ rig }: { rig: Rig }) {
  const fill = useAsked("filling").data;
  const print = usePrint();
  if (!fill) return <p className="text-muted">Calculating…</p>;
  if (fill.tanks.length === 0) return <p className="text-muted">No fresh tank is drawn yet.</p>;
  return fill.tanks.map((t) => (
    <section key={t.partId} className="pb-2" data-filling={t.partId}>
      <h4 className="font-medium">{indexOf(rig).parts.get(t.partId)?.name}</h4>
      <p>
        {print(t.hoseS, "duration")} by hose, {print(t.canFillS, "duration")} by can ({plural(t.cans, "trip")}).
      </p>
      <p className={t.lacking ? "font-medium" : ""}>{say(t.words, print)}</p>
      {t.caution && <p className="text-muted">{t.caution}</p>}
    </section>
  ));
}

/** How a part is taken out: which valves, and what spills. */
export function TakeOut({ partId }: { partId: string }) {
  const service = useAsked("service", { partId }).data;
  const print = usePrint();
  if (!service) return null;
  return (
    <p data-service={partId}>
      <span className="text-muted">To take it out: </span>
      {say(service.words, print)}
    </p>
  );
}
