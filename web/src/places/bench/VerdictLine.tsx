import { Check, ChevronDown, CircleHelp, Snowflake, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "wouter";
import type { Schema } from "../../api/client";
import { type Print, useClock, usePrint } from "../../app/units";
import { stateWord } from "../../drawing/left";
import { Stale } from "../../ui/Stale";
import { isTonight, weatherWords } from "../night/places";
import type { Place } from "./BenchHeader";
import { useAnswers, useDocument, useStores } from "./benchStores";
import { useView } from "./viewStore";

type Outlook = Schema["OutlookAnswer"];
type State = Outlook["state"];

const states: Record<State, { word: string; Sign: typeof Check; look: string }> = {
  safe: { word: "Safe", Sign: Check, look: "bg-verdict-safe text-verdict-on" },
  atRisk: { word: "At risk", Sign: TriangleAlert, look: "bg-verdict-risk text-verdict-on" },
  freezeDamage: { word: "Freeze damage", Sign: Snowflake, look: "bg-verdict-damage text-verdict-on" },
  unknown: { word: "Not known yet", Sign: CircleHelp, look: "bg-sunk text-ink shadow-[inset_0_0_0_1.5px_var(--strong)]" },
};

/** The verdict as a filled chip: its own mark, word and colour, which nothing else has. */
export function VerdictChip({ state }: { state: State }) {
  const { word, Sign, look } = states[state];
  return (
    <span
      className={`inline-flex h-8 shrink-0 items-center gap-1.5 rounded-md px-2.5 font-semibold whitespace-nowrap ${look}`}
      data-verdict={state}
    >
      <Sign size={16} aria-hidden="true" /> {word}
    </span>
  );
}

/** How the water system is taken to be, in a word or two. */
export function waterWords(outlook: Pick<Outlook, "water" | "left">, left: Schema["LeftAnswer"] | null, print: Print): string {
  if (outlook.water === "wet") return "full";
  if (outlook.water === "drained") return "drained";
  return left ? `as left: ${stateWord(left, print).toLowerCase()}` : outlook.left === "wet" ? "as left: wet" : `as left: ${outlook.left}`;
}

/** What happens first, in one sentence; the same on every screen. */
export function verdictSentence(
  o: Outlook,
  night: Schema["Conditions"],
  clock: (startHour: number, s: number) => string,
  print: Print,
): ReactNode {
  const kept = o.staysL != null && o.staysL >= 0.0005 && <> {print(o.staysL, "volume")} left in it.</>;
  const first = o.firstName && o.firstS != null && (
    <>
      <strong className="font-semibold">{o.firstName}</strong> {o.state === "freezeDamage" ? "breaks" : "freezes"} about{" "}
      <strong className="font-semibold whitespace-nowrap">{clock(night.startHour, o.firstS)}</strong>
      {o.state === "atRisk" && "; nothing breaks"}.
    </>
  );
  if (o.state === "unknown") return "Too little of the rig is drawn to tell.";
  return (
    <>
      {first || "Nothing freezes by morning."}
      {kept}
    </>
  );
}

/** What to do next, in words. */
export function nextWords(o: Outlook, night: Schema["Conditions"], clock: (startHour: number, s: number) => string): string | null {
  const { next } = o;
  if (!next) return null;
  const words = next.kind === "finding" ? `fix ${next.words}` : `${next.words.slice(0, 1).toLowerCase()}${next.words.slice(1)}`;
  if (next.beforeS == null) return words;
  return next.beforeS <= 0 ? `${words} now` : `${words} before ${clock(night.startHour, next.beforeS)}`;
}

/** The night in a few words, by the name it has: the brief's, tonight, or the reader's own. */
export function nightWords(c: Schema["Conditions"], own: boolean, print: Print): { name: string; words: string } {
  const weather = c.weather ? weatherWords(c.weather) : `${print(c.outdoorC, "temperature")} · ${print(c.windMPerS, "speed")}`;
  return {
    name: !own ? "Brief's night" : isTonight(c.weather) ? "Tonight" : "Your night",
    words: `${weather} · heat ${c.heatOn ? "on" : "off"}${c.heatOn && (c.modeId || c.heatSettings) ? ", another mode" : ""}`,
  };
}

/** The verdict for this night and this state, what happens first, and what to do next: at the top of every screen of a rig. */
export function VerdictLine({ place }: { place: Place }) {
  const id = useDocument((s) => s.id);
  const outlook = useAnswers((s) => s.answers?.outlook);
  const night = useAnswers((s) => s.night);
  const stale = useAnswers((s) => s.stale);
  const clock = useClock();
  const print = usePrint();
  return (
    <section
      aria-label="Verdict"
      className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-panel px-3 py-0.5"
    >
      {outlook && night ? (
        <Stale stale={stale} className="flex min-w-0 grow basis-80 items-center gap-3 max-[899px]:basis-full" data-outlook={outlook.state}>
          <VerdictChip state={outlook.state} />
          <p className="min-w-0 leading-5 min-[900px]:line-clamp-2">
            {verdictSentence(outlook, night, clock, print)} <Next id={id} outlook={outlook} night={night} />
          </p>
        </Stale>
      ) : (
        <p className="grow text-muted">Working out what freezes…</p>
      )}
      <NightChip opens={place !== "night" && place !== "shell"} />
    </section>
  );
}

function Next({ id, outlook, night }: { id: string; outlook: Outlook; night: Schema["Conditions"] }) {
  const { selection } = useStores();
  const findings = useAnswers((s) => s.answers?.advice?.findings);
  const setTab = useView((s) => s.setTab);
  const clock = useClock();
  const words = nextWords(outlook, night, clock);
  const { next } = outlook;
  if (!words || !next) return null;
  const told = `Next: ${words}`;
  const look = "text-muted underline decoration-rule underline-offset-4 hover:text-ink";
  const finding = findings?.find((f) => f.id === next.findingId);
  if (finding)
    return (
      <button
        type="button"
        className={look}
        onClick={() => {
          setTab("findings");
          selection.takeFinding(finding);
        }}
      >
        {told}
      </button>
    );
  const to = { finding: "", drain: "/drain", describeRoom: "/shell", draw: "", keepHeat: null, supply: null }[next.kind];
  return to === null ? (
    <span className="text-muted">{told}</span>
  ) : (
    <Link href={`/rigs/${id}${to}`} className={look}>
      {told}
    </Link>
  );
}

/** The night that is asked about, by name; on the bench a press opens it. */
function NightChip({ opens }: { opens: boolean }) {
  const conditions = useAnswers((s) => s.conditions);
  const outlook = useAnswers((s) => s.answers?.outlook);
  const left = useAnswers((s) => s.answers?.left ?? null);
  const own = useAnswers((s) => s.own);
  const open = useView((s) => s.shown.weather);
  const toggle = useView((s) => s.toggle);
  const print = usePrint();
  if (!conditions) return null;
  const { name, words } = nightWords(conditions, own, print);
  const water = waterWords({ water: conditions.water, left: outlook?.left ?? null }, left, print);
  const told = (
    <>
      <strong className="shrink-0 font-semibold">{name}</strong>
      <span className="min-w-0 truncate text-muted">
        {words} · {water}
      </span>
    </>
  );
  return (
    <span className="flex max-w-full shrink-0 items-center gap-2">
      {opens ? (
        <button
          type="button"
          aria-expanded={open}
          onClick={() => toggle("weather")}
          title="Change the night (N)"
          className="inline-flex h-10 max-w-full items-center gap-2 rounded-md border border-rule px-3 hover:border-strong"
        >
          {told}
          <ChevronDown size={16} className={open ? "shrink-0 rotate-180" : "shrink-0"} aria-hidden="true" />
        </button>
      ) : (
        <span className="inline-flex max-w-full items-center gap-2">{told}</span>
      )}
    </span>
  );
}
