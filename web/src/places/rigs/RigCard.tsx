import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "wouter";
import { api, data, Problem, type Schema } from "../../api/client";
import { clock, type Print, say, usePrint } from "../../app/units";
import { leftWords, stateLine } from "../../drawing/left";
import { extentOf, type Frame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { stayWords } from "../../drawing/stays";
import { verdictWords } from "../../drawing/temperature";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { useSize } from "../../ui/useSize";

const living: Record<Schema["WayOfLiving"], string> = {
  livedIn: "lived in",
  weekends: "weekends",
  laidUp: "laid up",
};
const schools: Record<Schema["FreezeSchool"], string> = {
  drain: "drains itself",
  air: "blown out",
  antifreeze: "antifreeze",
  heat: "kept warm",
};

/** A rig on the shelf. */
export function RigCard({ card }: { card: Schema["ShelfCard"] }) {
  const print = usePrint();
  if (card.unreadable) return <UnreadableCard card={card} reason={card.unreadable} />;
  return (
    <li className="relative rounded-md border border-rule bg-panel hover:border-strong">
      <Link href={`/rigs/${card.id}`} className="block rounded-md p-4">
        <h2 className="flex items-baseline gap-2 pr-10">
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
      <p className="mt-1 text-muted">
        Nothing was changed in it. A newer version of the program may read it, or somebody who knows the file.
      </p>
      <a
        href={`/api/rigs/${card.id}/file`}
        download
        className="mt-3 inline-flex h-10 items-center gap-2 rounded-md border border-rule px-3 font-medium hover:border-strong"
      >
        <Download size={17} />
        Save the raw file
      </a>
      <Remove card={card} />
    </li>
  );
}

/** The drawing and the verdict: asked by id and revision, so that each is worked out once. */
function Standing({ card, print }: { card: Schema["ShelfCard"]; print: Print }) {
  const { id, revision } = card;
  const rig = useQuery({
    queryKey: ["rig", id, revision],
    queryFn: async ({ signal }) => data(await api.GET("/api/rigs/{id}", { params: { path: { id } }, signal })).rig,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const asked = useQuery({
    queryKey: ["standing", id, revision],
    queryFn: async ({ signal }) =>
      data(await api.POST("/api/answers", { body: { id, base: revision, wanted: ["standing", "drainDown", "left"] }, signal })).answers,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [box, size] = useSize<HTMLDivElement>();
  const extent = rig.data && extentOf(rig.data, "side");
  const frame: Frame | undefined = extent && {
    ...size,
    scale: Math.min((size.width - 8) / (extent.highX - extent.lowX), (size.height - 8) / (extent.highO - extent.lowO)),
    alongM: (extent.lowX + extent.highX) / 2,
    otherM: (extent.lowO + extent.highO) / 2,
  };
  return (
    <>
      <div ref={box} className="my-3 h-48 overflow-hidden rounded-[5px] bg-ground">
        {rig.data && frame && size.width > 0 && (
          <svg width={size.width} height={size.height} aria-hidden="true">
            <RigDrawing rig={rig.data} about={rig.data} answers={asked.data ?? null} view="side" frame={frame} lens="drain" bare />
          </svg>
        )}
      </div>
      {asked.data?.standing && <Verdict standing={asked.data.standing} state={asked.data.left ?? null} print={print} />}
      {asked.isPending && <p className="h-16 text-muted">Working out what stays and what freezes…</p>}
      {asked.isError && <p className="h-16 text-muted">No verdict: {asked.error.message}</p>}
    </>
  );
}

function Verdict({ standing: s, state, print }: { standing: Schema["StandingAnswer"]; state: Schema["LeftAnswer"] | null; print: Print }) {
  const left = leftWords[s.night.water];
  const stands = s.limit.standsAllTried
    ? `Safe to ${print(s.limit.triedC, "temperature")}, the coldest tested, ${left}`
    : s.limit.coldestC == null
      ? `Fails at any frost, ${left}`
      : `Safe to ${print(s.limit.coldestC, "temperature")}, ${left}`;
  const first =
    s.firstName && s.firstS != null
      ? `${s.verdict === "fails" ? "Breaks first" : "First ice"} at ${clock(s.night.startHour, s.firstS)}: ${s.firstName}`
      : "No ice by morning";
  const stays = stayWords(s.stays, print);
  return (
    <dl className="grid grid-cols-2 gap-x-4">
      <div>
        <dt className="text-muted">
          {print(s.night.outdoorC, "temperature")}, one night: <span data-verdict={s.verdict}>{verdictWords[s.verdict].toLowerCase()}</span>
        </dt>
        <dd className="font-semibold">{stands}</dd>
        <dd>{first}</dd>
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
        problem instanceof Problem && problem.status === 409
          ? "It was changed meanwhile. Look at it again first."
          : (problem as Error).message,
      );
    }
    await client.invalidateQueries({ queryKey: ["rigs"] });
  };
  return (
    <>
      <button
        type="button"
        aria-label={`Take ${card.name} off the shelf`}
        onClick={() => setAsked(true)}
        className="absolute top-2 right-2 grid size-10 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
      >
        <Trash2 size={17} />
      </button>
      <Dialog
        open={asked}
        onClose={() => setAsked(false)}
        title={`Take ${card.name} off the shelf?`}
        text={refused ? <p role="alert">{refused}</p> : <p>It can be brought back, with all its revisions, for 30 days.</p>}
      >
        <Button onClick={() => setAsked(false)}>Keep it</Button>
        <Button onClick={remove}>Take it off</Button>
      </Dialog>
    </>
  );
}
