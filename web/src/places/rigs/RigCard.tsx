import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy, Download, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "wouter";
import { api, data, Problem, type Schema } from "../../api/client";
import { rigApi } from "../../api/rigs";
import { type Print, say, useClock, usePrint } from "../../app/units";
import { keptNight } from "../../document/answersStore";
import { useFollowLog } from "../../document/useFollowLog";
import { leftWords, stateLine } from "../../drawing/left";
import { wholeFrame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { stayWords } from "../../drawing/stays";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { useSize } from "../../ui/useSize";
import { nextWords, nightWords, VerdictChip, verdictSentence, waterWords } from "../bench/VerdictLine";

type Told = Schema["AnswersAnswer"]["answers"];

const living: Record<Schema["WayOfLiving"], string> = {
  livedIn: "lived in",
  weekends: "weekends",
  laidUp: "laid up",
};
const schools: Record<Schema["FreezeSchool"], string> = {
  drain: "self-draining",
  air: "blown out",
  antifreeze: "antifreeze",
  heat: "heated",
};

/** A rig on the shelf. */
export function RigCard({ card }: { card: Schema["ShelfCard"] }) {
  const print = usePrint();
  if (card.unreadable) return <UnreadableCard card={card} reason={card.unreadable} />;
  return (
    <li className="relative rounded-md border border-rule bg-panel hover:border-strong">
      <Link href={`/rigs/${card.id}`} className="block rounded-md p-4">
        <h2 className="flex items-baseline gap-2 pr-20">
          <span className="truncate text-[17px] font-semibold">{card.name}</span>
          <span className="shrink-0 text-muted">
            {card.living && living[card.living]}, {card.school && schools[card.school]}
          </span>
        </h2>
        <Standing card={card} print={print} />
        <p className="mt-2 truncate text-muted">
          Last: {say(card.what, print)},{" "}
          {new Date(card.savedAt).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" })}
        </p>
      </Link>
      <Duplicate card={card} />
      <Remove card={card} />
    </li>
  );
}

/** A rig that cannot be read: why, and the file as it is stored, for somebody who can mend it. */
function UnreadableCard({ card, reason }: { card: Schema["ShelfCard"]; reason: string }) {
  return (
    <li className="relative rounded-md border border-dashed border-strong bg-panel p-4" data-unreadable={card.id}>
      <h2 className="truncate pr-10 text-[17px] font-semibold">{card.name}</h2>
      <p className="mt-2">This rig cannot be read.</p>
      <p className="mt-1 text-muted">{reason}</p>
      <p className="mt-1 text-muted">Nothing was changed in it. A newer version of the program may open it.</p>
      <a
        href={`/api/rigs/${card.id}/file`}
        download
        className="mt-3 inline-flex h-10 items-center gap-2 rounded-md border border-rule px-3 font-medium hover:border-strong"
      >
        <Download size={17} />
        Save raw file
      </a>
      <Remove card={card} />
    </li>
  );
}

/** The verdict of a card: asked by id and revision, so that each is worked out once. */
export function standingOf({ id, revision, unreadable }: Schema["ShelfCard"]) {
  const night = keptNight(id);
  return {
    queryKey: ["standing", id, revision, night],
    queryFn: async ({ signal }: { signal: AbortSignal }) =>
      data(
        await api.POST("/api/answers", {
          body: { id, base: revision, wanted: ["standing", "drainDown", "left", "outlook"], ...(night && { conditions: night }) },
          signal,
        }),
      ).answers,
    staleTime: Number.POSITIVE_INFINITY,
    enabled: !unreadable,
  };
}

/** The drawing and the verdict. */
function Standing({ card, print }: { card: Schema["ShelfCard"]; print: Print }) {
  const { id, revision } = card;
  const rig = useQuery({
    queryKey: ["rig", id, revision],
    queryFn: async ({ signal }) => data(await api.GET("/api/rigs/{id}", { params: { path: { id } }, signal })).rig,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const asked = useQuery(standingOf(card));
  const [box, size] = useSize<HTMLDivElement>();
  const frame = rig.data && wholeFrame(rig.data, "side", size, 4);
  return (
    <>
      <div ref={box} className="my-3 h-48 overflow-hidden rounded-[5px] bg-ground">
        {rig.data && frame && size.width > 0 && (
          <svg width={size.width} height={size.height} aria-hidden="true">
            <RigDrawing rig={rig.data} about={rig.data} answers={asked.data ?? null} view="side" frame={frame} lens="drain" bare />
          </svg>
        )}
      </div>
      {asked.data && <Verdict answers={asked.data} id={id} print={print} />}
      {asked.isPending && <p className="h-16 text-muted">Calculating…</p>}
      {asked.isError && <p className="h-16 text-muted">No verdict: {asked.error.message}</p>}
    </>
  );
}

function Verdict({ answers, id, print }: { answers: Told; id: string; print: Print }) {
  const clock = useClock();
  const { outlook, standing: s, left: state } = answers;
  if (!outlook || !s) return null;
  const next = nextWords(outlook, s.night, clock);
  const { name, words } = nightWords(s.night, keptNight(id) !== null, print);
  const coldest = s.limit.standsAllTried ? s.limit.triedC : s.limit.coldestC;
  const stays = stayWords(s.stays, print);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1" data-outlook={outlook.state}>
        <VerdictChip state={outlook.state} />
        <span className="text-muted">
          <strong className="font-semibold text-ink">{name}</strong> {words} · {waterWords(outlook, state ?? null, print)}
        </span>
      </div>
      <p className="mt-1.5 line-clamp-2 min-h-10 leading-5">
        {verdictSentence(outlook, s.night, clock, print)} {next && <span className="text-muted">Next: {next}</span>}
      </p>
      <dl className="mt-1.5 grid grid-cols-2 gap-x-4">
        <div>
          <dt className="text-muted">Cold limit, {leftWords[s.night.water]}</dt>
          <dd className="font-semibold">
            {coldest == null
              ? "breaks at any frost"
              : `safe to ${print(coldest, "temperature")}${s.limit.standsAllTried ? ", the coldest tested" : ""}`}
          </dd>
          {state && (state.at || state.filled) && <dd data-left>{stateLine(state, print)}</dd>}
        </div>
        <div>
          <dt className="text-muted">After draining</dt>
          <dd className="font-semibold" data-stays>
            {stays.sum}
            {stays.where && `: ${stays.where}`}
          </dd>
          {stays.apart && <dd>{stays.apart}</dd>}
          {s.byHand.length > 0 && <dd>by hand: {s.byHand.join(", ")}</dd>}
        </div>
      </dl>
      <DueLine id={id} />
    </>
  );
}

/** What is due, where something is: it leads to the logbook. */
function DueLine({ id }: { id: string }) {
  const { data: due } = useQuery({
    queryKey: ["log", id, "due"],
    queryFn: async () => data(await api.GET("/api/rigs/{id}/due", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  useFollowLog(id, ["log", id]);
  const now = due?.filter((d) => d.isDue) ?? [];
  if (now.length === 0) return null;
  return (
    <p className="mt-1.5" data-due={now.length}>
      <span className="text-muted">Due:</span>{" "}
      <a href={`/rigs/${id}/log`} className="underline underline-offset-4">
        {now.map((d) => d.name).join(", ")}
      </a>
    </p>
  );
}

/** Another rig that begins as this one is now, photos and all. */
function Duplicate({ card }: { card: Schema["ShelfCard"] }) {
  const client = useQueryClient();
  const copy = useMutation({
    mutationFn: () => rigApi.copy(card.id, card.revision),
    onSettled: () => client.invalidateQueries({ queryKey: ["rigs"] }),
  });
  return (
    <>
      <button
        type="button"
        aria-label={`Duplicate ${card.name}`}
        title="Duplicate"
        disabled={copy.isPending}
        onClick={() => copy.mutate()}
        className="absolute top-2 right-12 grid size-10 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
      >
        <Copy size={17} />
      </button>
      {copy.isError && (
        <p role="alert" className="px-4 pb-3">
          Couldn't duplicate it: {copy.error.message}
        </p>
      )}
    </>
  );
}

function Remove({ card }: { card: Schema["ShelfCard"] }) {
  const [asked, setAsked] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const client = useQueryClient();
  const remove = async () => {
    try {
      await api.DELETE("/api/rigs/{id}", { params: { path: { id: card.id }, query: { revision: card.revision } } });
      setAsked(false);
    } catch (problem) {
      setRefused(
        problem instanceof Problem && problem.status === 409 ? "It has changed since. Open it again first." : (problem as Error).message,
      );
    }
    await client.invalidateQueries({ queryKey: ["rigs"] });
  };
  return (
    <>
      <button
        type="button"
        aria-label={`Delete ${card.name}`}
        onClick={() => setAsked(true)}
        className="absolute top-2 right-2 grid size-10 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
      >
        <Trash2 size={17} />
      </button>
      <Dialog
        open={asked}
        onClose={() => setAsked(false)}
        title={`Delete ${card.name}?`}
        text={refused ? <p role="alert">{refused}</p> : <p>You can restore it, with all its revisions, for 30 days.</p>}
      >
        <Button onClick={() => setAsked(false)}>Cancel</Button>
        <Button onClick={remove}>Delete</Button>
      </Dialog>
    </>
  );
}
