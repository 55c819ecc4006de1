import { useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { plural, usePrint } from "../../app/units";
import { Button, Panel } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import { type Entry, type Kind, kindName, kindNames, matches, standing } from "./entries";

const FIRST = 40;

/** All entries that stand, the newest first; searched and filtered. */
export function Entries({ log, onCorrect }: { log: Schema["LogAnswer"]; onCorrect(entry: Entry): void }) {
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState<Kind | null>(null);
  const [most, setMost] = useState(FIRST);
  const all = useMemo(() => standing(log.entries), [log.entries]);
  const found = all.filter(({ entry }) => (!kind || entry.kind === kind) && matches(entry, search.trim()));
  const kinds = (Object.keys(kindNames) as Kind[]).filter((k) => all.some(({ entry }) => entry.kind === k));
  return (
    <Panel className="p-3" aria-label="Entries">
      <div className="flex flex-wrap items-center gap-2">
        <input
          type="search"
          aria-label="Search the logbook"
          placeholder="Search"
          className={`${fieldClass} max-w-52 border-rule`}
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        {kinds.length > 1 &&
          kinds.map((k) => (
            <Button key={k} quiet aria-pressed={kind === k} className="aria-pressed:bg-sunk" onClick={() => setKind(kind === k ? null : k)}>
              {kindNames[k]}
            </Button>
          ))}
        <span className="grow text-right text-muted" data-found={found.length}>
          {found.length === all.length
            ? plural(all.length, "entry", "entries")
            : `${found.length} of ${plural(all.length, "entry", "entries")}`}
        </span>
      </div>
      {all.length === 0 && (
        <p className="mt-2 text-muted">
          Nothing is written yet. Walk a procedure under Lay-up, or write down a reading, a leak or a note: next winter you will want to
          know.
        </p>
      )}
      {all.length > 0 && found.length === 0 && <p className="mt-2 text-muted">No entry has these words.</p>}
      <ol className="mt-1">
        {found.slice(0, most).map(({ entry, before }) => (
          <Row key={entry.id} entry={entry} before={before} onCorrect={() => onCorrect(entry)} />
        ))}
      </ol>
      {found.length > most && <Button onClick={() => setMost(most + 200)}>Show more</Button>}
    </Panel>
  );
}

function Row({ entry, before, onCorrect }: { entry: Entry; before: Entry[]; onCorrect(): void }) {
  const print = usePrint();
  const when = new Date(entry.at).toLocaleString(undefined, {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });
  return (
    <li className="flex gap-3 border-b border-rule py-2" data-entry={entry.id} data-kind={entry.kind}>
      <div className="w-40 shrink-0 text-muted max-[560px]:w-24">
        {when}
        <span className="block">
          {[entry.outdoorC != null && print(entry.outdoorC, "temperature"), entry.who].filter(Boolean).join(" · ")}
        </span>
      </div>
      <div className="min-w-0 grow">
        <p className="whitespace-pre-wrap break-words">
          <span className="text-muted">{kindName[entry.kind]}</span>
          {entry.thingName && <span className="text-muted">, {entry.thingName}</span>}
          {(entry.words || entry.collectedL != null) && <span className="text-muted">: </span>}
          {entry.words}
          {entry.collectedL != null && (
            <strong className="font-semibold">
              {entry.words && " "}
              {print(entry.collectedL, "volume")}
              {entry.expectedL != null && <span className="font-normal text-muted"> of {print(entry.expectedL, "volume")}</span>}
            </strong>
          )}
        </p>
        {(entry.pictures?.length ?? 0) > 0 && (
          <div className="mt-1 flex flex-wrap gap-2">
            {entry.pictures?.map((p) => (
              <a key={p} href={`/api/pictures/${p}`} target="_blank" rel="noreferrer">
                <img src={`/api/pictures/${p}`} alt={entry.words || "Photo"} loading="lazy" className="h-24 rounded-[5px]" />
              </a>
            ))}
          </div>
        )}
        {before.length > 0 && (
          <details className="text-muted">
            <summary className="cursor-pointer">Corrected</summary>
            {before.map((b) => (
              <p key={b.id} className="line-through">
                {b.words} {b.collectedL != null && print(b.collectedL, "volume")}
              </p>
            ))}
          </details>
        )}
      </div>
      <Button quiet className="self-start" onClick={onCorrect} aria-label={`Correct: ${entry.words || kindName[entry.kind]}`}>
        Correct
      </Button>
    </li>
  );
}
