import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "wouter";
import { api, data, type Schema } from "../../api/client";
import { clock, type Print, usePrint } from "../../app/units";
import { extentOf, type Frame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
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
  const { rig, what } = card.shelved;
  const print = usePrint();
  return (
    <li className="relative rounded-md border border-rule bg-panel hover:border-strong">
      <Link href={`/rigs/${rig.id}`} className="block rounded-md p-4">
        <h2 className="flex items-baseline gap-2">
          <span className="text-[17px] font-semibold">{rig.name}</span>
          <span className="text-muted">
            {living[rig.brief.living]}, {schools[rig.brief.school]}
          </span>
        </h2>
        <Thumbnail card={card} />
        <Verdict standing={card.standing} print={print} />
        <p className="mt-2 truncate text-[13px] text-muted">Last: {what}</p>
      </Link>
      <Remove rig={rig} />
    </li>
  );
}

function Thumbnail({ card }: { card: Schema["ShelfCard"] }) {
  const { rig, revision } = card.shelved;
  const conditions = card.standing.night;
  const [box, size] = useSize<HTMLDivElement>();
  const answer = useQuery({
    queryKey: ["thumbnail", rig.id, revision],
    queryFn: async () => data(await api.POST("/api/studies/bench", { body: { rig, conditions } })),
  });
  const extent = extentOf(rig, "side");
  const frame: Frame = {
    ...size,
    scale: Math.min((size.width - 8) / (extent.highX - extent.lowX), (size.height - 8) / (extent.highO - extent.lowO)),
    alongM: (extent.lowX + extent.highX) / 2,
    otherM: (extent.lowO + extent.highO) / 2,
  };
  return (
    <div ref={box} className="my-3 h-48 overflow-hidden rounded-[5px] bg-ground">
      {size.width > 0 && (
        <svg width={size.width} height={size.height} aria-hidden="true">
          <RigDrawing rig={rig} answer={answer.data ?? null} view="side" frame={frame} lens="drain" bare />
        </svg>
      )}
    </div>
  );
}

function Verdict({ standing: s, print }: { standing: Schema["StandingAnswer"]; print: Print }) {
  const left = s.night.water === "wet" ? "left full" : "left drained";
  const stands = s.coldestC == null ? `Fails at any frost, ${left}` : `Stands ${print(s.coldestC, "temperature")} ${left}`;
  const first =
    s.firstName && s.firstIceS != null ? `First ice at ${clock(s.night.startHour, s.firstIceS)} in ${s.firstName}` : "No ice by morning";
  return (
    <dl className="grid grid-cols-2 gap-x-4">
      <div>
        <dt className="text-muted">{print(s.night.outdoorC, "temperature")}, one night</dt>
        <dd className="font-semibold">{stands}</dd>
        <dd>{first}</dd>
      </div>
      <div>
        <dt className="text-muted">After draining</dt>
        <dd className="font-semibold">
          {print(s.staysL - s.carefulL, "volume")} stays in {s.poolCount === 1 ? "1 pool" : `${s.poolCount} pools`}
        </dd>
        {s.byHand.length > 0 && <dd>by hand: {s.byHand.join(", ")}</dd>}
      </div>
    </dl>
  );
}

function Remove({ rig }: { rig: Schema["Rig"] }) {
  const [asked, setAsked] = useState(false);
  const client = useQueryClient();
  const remove = async () => {
    await api.DELETE("/api/rigs/{id}", { params: { path: { id: rig.id } } });
    setAsked(false);
    await client.invalidateQueries({ queryKey: ["rigs"] });
  };
  return (
    <>
      <button
        type="button"
        aria-label={`Take ${rig.name} off the shelf`}
        onClick={() => setAsked(true)}
        className="absolute top-2 right-2 grid size-10 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
      >
        <Trash2 size={17} />
      </button>
      <Dialog
        open={asked}
        onClose={() => setAsked(false)}
        title={`Take ${rig.name} off the shelf?`}
        text={<p>It goes with all its revisions, and cannot be brought back from here. Save it to a file first to keep a copy.</p>}
      >
        <Button onClick={() => setAsked(false)}>Keep it</Button>
        <Button onClick={remove}>Take it off</Button>
      </Dialog>
    </>
  );
}
