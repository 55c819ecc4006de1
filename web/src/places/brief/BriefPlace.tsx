import { TriangleAlert } from "lucide-react";
import { useEffect, useId, useState } from "react";
import { Link } from "wouter";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { say, usePrint } from "../../app/units";
import { ofBrief } from "../../document/answersStore";
import { changed } from "../../document/edits";
import { Caution, Choice, Panel } from "../../ui/controls";
import { fieldClass, QuantityField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAnswers, useDocument, useStores } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";

type Brief = Schema["Brief"];

/** One sheet: what the rig shall do, and beside each answer what follows from it. */
export function BriefPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="brief" wanted={ofBrief}>
      {({ brief }) => (
        <main className="mx-auto grid w-full max-w-[84rem] gap-4 p-4 min-[1000px]:grid-cols-[minmax(0,1fr)_22rem]">
          <div className="flex min-w-0 flex-col gap-4">
            <Numbers brief={brief} />
            <SchoolRows brief={brief} />
          </div>
          <div className="flex min-w-0 flex-col gap-4 max-[1000px]:contents">
            <Unmet />
            <MeasureNext id={id} />
            <Panel className="h-fit px-4 pb-4" aria-label="Local rules">
              <LocalRules brief={brief} />
            </Panel>
          </div>
        </main>
      )}
    </RigPlace>
  );
}

/** A field of the brief by name, `choices/` before those of the choices. */
function useBrief(brief: Brief) {
  const { document } = useStores();
  const usual = useAnswers((s) => s.answers?.supply);
  const choices = brief.choices ?? usual?.choices;
  // Fields of what may be left out as a whole: as it usually is, until one of them is typed.
  const groups: Record<string, object | undefined> = { choices, town: brief.town ?? usual?.town };
  return {
    choices,
    answerTo(field: string): unknown {
      const [group = "", own] = field.split("/");
      return own ? groups[group]?.[own as never] : brief[field as keyof Brief];
    },
    set(field: string, what: string, value: unknown) {
      const [group = "", own] = field.split("/");
      if (own && !groups[group]) return;
      const values = own ? { [group]: { ...groups[group], [own]: value } } : { [field]: value };
      document.commit(what, [changed("brief", values)]);
    },
  };
}

interface NumberField {
  field: string;
  label: string;
  quantity: Schema["Quantity"];
  /** Pascal to its bar. */
  per?: number;
  /** What is taken where nothing is said. */
  usual?: string;
}

const BAR = 1e5;

const groups: { name: string; fields: NumberField[] }[] = [
  {
    name: "Water",
    fields: [
      { field: "people", label: "People", quantity: "number" },
      { field: "litresPerPersonDay", label: "Water a person and day", quantity: "volume" },
      { field: "daysBetweenFills", label: "Days between fills", quantity: "number" },
      { field: "choices/canL", label: "Jerrycan size", quantity: "volume" },
    ],
  },
  {
    name: "Coldest night",
    fields: [
      { field: "lowestC", label: "Lowest temperature", quantity: "temperature" },
      { field: "windMPerS", label: "Wind on that night", quantity: "speed" },
      { field: "hoursWithoutHeat", label: "Hours without heat", quantity: "number" },
    ],
  },
  {
    name: "Energy",
    fields: [
      { field: "choices/fuelL", label: "Fuel a night", quantity: "volume" },
      { field: "choices/batteryWh", label: "Battery energy a night", quantity: "energy" },
      { field: "choices/coolantGlycol", label: "Glycol in heating circuits", quantity: "share", usual: "half" },
    ],
  },
  {
    name: "Town water",
    fields: [
      { field: "town/pressureBar", label: "Pressure", quantity: "pressure", per: BAR },
      { field: "town/regulatorBar", label: "Regulator on the hose", quantity: "pressure", per: BAR },
    ],
  },
  { name: "Lines", fields: [{ field: "leastFall", label: "Least fall", quantity: "fall" }] },
];

const timesPer = (value: number | null | undefined, per = 1) => (value == null ? value : value * per);

function Numbers({ brief }: { brief: Brief }) {
  const { answerTo, set } = useBrief(brief);
  return (
    <Panel className="p-4" aria-label="Requirements">
      <h2 className="text-[17px] font-semibold">Requirements</h2>
      <p className="text-muted">Under each group you see what follows from it. Estimates, for the rig as drawn.</p>
      <div className="grid gap-x-6 min-[640px]:grid-cols-2">
        {groups.map((g) => (
          <section
            key={g.name}
            aria-label={g.name}
            className={`mt-3 border-t border-rule pt-2.5 ${g.fields.length > 2 ? "min-[640px]:col-span-2" : ""}`}
          >
            <h3 className="font-semibold">{g.name}</h3>
            <div className={`mt-1 grid grid-cols-2 gap-x-3 gap-y-1 ${g.fields.length > 2 ? "min-[640px]:grid-cols-4" : ""}`}>
              {g.fields.map((n) => (
                <div key={n.field} data-field={n.field}>
                  <QuantityField
                    label={n.label}
                    value={timesPer(answerTo(n.field) as number | null | undefined, n.per)}
                    quantity={n.quantity}
                    limit={`brief.${n.field.replace("/", ".")}`}
                    placeholder={n.usual}
                    per={n.per}
                    onCommit={(value) => set(n.field, n.label, n.field === "people" ? Math.round(value) : value / (n.per ?? 1))}
                  />
                </div>
              ))}
            </div>
            {g.fields.map((n) => (
              <Follows key={n.field} field={n.field} />
            ))}
          </section>
        ))}
      </div>
    </Panel>
  );
}

/** What of the brief the rig as drawn does not do, each with a way to its field. */
function Unmet() {
  const all = useAnswers((s) => s.answers?.supply?.consequences);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  if (!all) return null;
  const unmet = all.filter((c) => c.lacking);
  return (
    <Panel className="h-fit p-4" aria-label="Not met yet">
      <h2 className="text-[17px] font-semibold">{unmet.length === 0 ? "All requirements met" : "Not met yet"}</h2>
      <Stale as="ul" stale={stale} className="mt-1 divide-y divide-rule">
        {unmet.map((c) => (
          <li key={c.id}>
            <button type="button" className="flex min-h-10 w-full items-start gap-2 py-2 text-left" onClick={() => toField(c.field)}>
              <TriangleAlert size={16} className="mt-0.5 shrink-0" aria-hidden="true" />
              <span>{say(c.words, print)}</span>
            </button>
          </li>
        ))}
      </Stale>
      {unmet.length === 0 && <p className="text-muted">The rig as drawn does what this brief asks. Estimates.</p>}
    </Panel>
  );
}

function toField(field: string) {
  const at = document.querySelector(`[data-field="${field}"]`);
  at?.scrollIntoView({ block: "center" });
  at?.querySelector<HTMLElement>("input, [role=radio][aria-checked=true], [role=radio]")?.focus();
}

/** What follows from an answer. */
function Follows({ field }: { field: string }) {
  const all = useAnswers((s) => s.answers?.supply?.consequences);
  const stale = useAnswers((s) => s.stale);
  const print = usePrint();
  const here = all?.filter((c) => c.field === field) ?? [];
  return (
    <Stale stale={stale}>
      {here.map((c) => (
        <div key={c.id} data-follows={c.id} className="mt-1">
          <p className={c.lacking ? "font-semibold" : ""}>
            {c.lacking && <TriangleAlert size={16} className="mr-1.5 inline align-[-2px]" aria-label="Not met" />}
            {say(c.words, print)}
          </p>
          {c.caution && <Caution>{c.caution}</Caution>}
        </div>
      ))}
    </Stale>
  );
}

function LocalRules({ brief }: { brief: Brief }) {
  const { answerTo, set } = useBrief(brief);
  const kept = (answerTo("choices/localRules") as string | undefined) ?? "";
  const [text, setText] = useState(kept);
  const id = useId();
  useEffect(() => setText(kept), [kept]);
  return (
    <div className="pt-3">
      <label htmlFor={id} className="block text-muted">
        Local rules to check
      </label>
      <textarea
        id={id}
        value={text}
        maxLength={1000}
        rows={2}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text !== kept && set("choices/localRules", "Local rules", text)}
        className={`${fieldClass} h-auto border-rule py-2`}
      />
    </div>
  );
}

/** The quarrels of the trade: each side says what it is good for. */
function SchoolRows({ brief }: { brief: Brief }) {
  const { catalogue } = useCatalogue();
  const { answerTo, set } = useBrief(brief);
  return (
    <Panel className="p-4" aria-label="Build preferences">
      <h2 className="text-[17px] font-semibold">Build preferences</h2>
      <p className="text-muted">There is no single right way. Your rig is checked by the rules of what you choose here.</p>
      <div className="mt-3 grid gap-x-6 min-[720px]:grid-cols-2">
        {catalogue?.schools.map((school) => {
          const value = answerTo(school.field) as string | undefined;
          const way = school.ways.find((w) => w.id === value);
          return (
            <div key={school.field} className="border-t border-rule py-2" data-field={school.field}>
              <h3 className="font-semibold">{school.name}</h3>
              <div className="mt-1">
                <Choice
                  label={school.name}
                  value={value ?? ""}
                  options={school.ways.map((w) => ({ value: w.id, text: w.name, title: w.goodFor }))}
                  onChange={(v) => set(school.field, school.name, v)}
                />
              </div>
              {way && (
                <p className="mt-1.5">
                  {way.goodFor} <span className="text-muted">{way.checks}</span>
                </p>
              )}
              <Follows field={school.field} />
            </div>
          );
        })}
      </div>
    </Panel>
  );
}

/** What a tape would tell next, by what not knowing it costs. */
function MeasureNext({ id }: { id: string }) {
  const next = useAnswers((s) => s.answers?.measureNext);
  const stale = useAnswers((s) => s.stale);
  const zones = useDocument((s) => s.rig?.shell.zones);
  const print = usePrint();
  const zone = zones?.find((z) => z.id === next?.zoneId);
  return (
    <Panel className="h-fit p-4" aria-label="Measure next">
      <h2 className="text-[17px] font-semibold">Measure next</h2>
      {next && zone && (
        <p className="text-muted">
          With the heat on, the coldest room is {zone.name}: {print(next.airC, "temperature")} on the brief's night. What moves it most
          leads.
        </p>
      )}
      <Stale as="ol" stale={stale} className="mt-3 space-y-3">
        {next?.items.slice(0, 5).map((item, i) => (
          <li key={item.id} className="flex gap-2.5">
            <span className="grid size-6 shrink-0 place-items-center rounded-full border-[1.5px] border-ink font-bold">{i + 1}</span>
            <div>
              <h3 className="font-semibold">{item.name}</h3>
              <p>{item.how}</p>
              <p className="text-muted">{say(item.worth, print)}</p>
            </div>
          </li>
        ))}
      </Stale>
      <Link
        href={`/rigs/${id}`}
        className="mt-4 inline-flex h-10 items-center rounded-md border border-ink bg-ink px-4 font-medium text-panel"
      >
        Open the bench
      </Link>
    </Panel>
  );
}
