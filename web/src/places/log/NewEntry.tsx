import type { UseMutationResult } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { type Problem, type Schema, sendFile } from "../../api/client";
import { useSettings } from "../../app/settings";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { PickFile } from "../../ui/PickFile";
import { fieldClass, QuantityField } from "../../ui/QuantityField";
import { useTyped } from "../../ui/useTyped";
import { type Entry, type Kind, kindName } from "./entries";

interface Props {
  rig: Rig;
  correcting: Entry | null;
  write: UseMutationResult<unknown, Problem, Omit<Entry, "id" | "revision">>;
  reminders: Schema["Reminder"][];
  onDone(): void;
}

/** A time, as a field of date and time has it. */
const localField = (when: Date) => new Date(+when - when.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
const nowField = () => localField(new Date());
const kinds: Kind[] = ["note", "reading", "litres", "leak", "repair", "care"];

interface Draft {
  kind: Kind;
  words: string;
  at: string;
  outdoorC: number | null;
  thing: string;
  expectedL: number | null;
  collectedL: number | null;
  care: string;
  pictures: string[];
}

const blank = (kind: Kind = "note"): Draft => ({
  kind,
  words: "",
  at: nowField(),
  outdoorC: null,
  thing: "",
  expectedL: null,
  collectedL: null,
  care: "",
  pictures: [],
});

/** What stands in an entry, to be put right. */
const draftOf = (entry: Entry): Draft => ({
  kind: entry.kind,
  words: entry.words,
  at: localField(new Date(entry.at)),
  outdoorC: entry.outdoorC ?? null,
  thing: entry.thing ?? "",
  expectedL: entry.expectedL ?? null,
  collectedL: entry.collectedL ?? null,
  care: entry.care ?? "",
  pictures: entry.pictures ?? [],
});

/** The entry that a draft is, without what it has not. */
function entryOf(draft: Draft, correcting: Entry | null): Omit<Entry, "id" | "revision"> {
  const { kind, outdoorC, thing, expectedL, collectedL, care, pictures } = draft;
  return {
    kind,
    at: new Date(draft.at).toISOString(),
    words: draft.words.trim(),
    ...(outdoorC !== null && { outdoorC }),
    ...(thing && { thing }),
    ...(expectedL !== null && kind === "litres" && { expectedL }),
    ...(collectedL !== null && kind === "litres" && { collectedL }),
    ...(care && (kind === "care" || kind === "walk") && { care }),
    ...(pictures.length > 0 && { pictures }),
    ...(correcting && { corrects: correcting.id, ...(correcting.walkId && { walkId: correcting.walkId }) }),
  };
}

/** A new entry, or one that stands in the place of an older one. */
export function NewEntry({ rig, correcting, write, reminders, onDone }: Props) {
  const { who, setWho } = useSettings();
  const { value: draft, put, change, whole } = useTyped<Draft>(blank());
  const { kind, words, at, outdoorC, thing, expectedL, collectedL, care, pictures } = draft;
  const [trouble, setTrouble] = useState<string | null>(null);
  const text = useRef<HTMLTextAreaElement>(null);
  const putNow = useRef(put);
  putNow.current = put;
  useEffect(() => {
    if (!correcting) return;
    putNow.current(draftOf(correcting));
    text.current?.focus();
  }, [correcting]);
  const clear = () => {
    put(blank(correcting ? "note" : kind));
    setTrouble(null);
  };
  // Fields that are still being read count.
  const send = async () =>
    write.mutate(entryOf(await whole(), correcting), {
      onSuccess: () => {
        clear();
        onDone();
      },
    });
  async function attach(picked: File) {
    setTrouble(null);
    try {
      const kept = await sendFile<Schema["KeptPicture"]>("/api/pictures", picked.type, picked);
      const { pictures: now } = await whole();
      change({ pictures: [...now.filter((p) => p !== kept.picture), kept.picture] });
    } catch (problem) {
      setTrouble((problem as Problem).message);
    }
  }
  const empty = !words.trim() && outdoorC === null && collectedL === null && pictures.length === 0;
  return (
    <Panel className="p-3" aria-label="New entry">
      <h2 className="text-[17px] font-semibold">{correcting ? "Correct an entry" : "New entry"}</h2>
      {correcting && <p className="text-muted">What was written stays, and is shown under this.</p>}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <select
          aria-label="Kind"
          className={`${fieldClass} border-rule`}
          value={kind}
          onChange={(e) => change({ kind: e.target.value as Kind })}
        >
          {(correcting?.kind === "walk" ? (["walk"] as Kind[]) : kinds).map((k) => (
            <option key={k} value={k}>
              {kindName[k]}
            </option>
          ))}
        </select>
        <input
          type="datetime-local"
          aria-label="When"
          className={`${fieldClass} border-rule`}
          value={at}
          onChange={(e) => e.target.value && change({ at: e.target.value })}
        />
        <textarea
          ref={text}
          aria-label="What was done or seen"
          placeholder="What was done or seen"
          maxLength={2000}
          rows={3}
          className={`${fieldClass} col-span-2 h-auto border-rule py-2`}
          value={words}
          onChange={(e) => change({ words: e.target.value })}
        />
        {kind === "care" && (
          <select
            aria-label="Which care"
            className={`${fieldClass} col-span-2 border-rule`}
            value={care}
            onChange={(e) => change({ care: e.target.value })}
          >
            <option value="">Answers no reminder</option>
            {reminders.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        )}
        <select
          aria-label="About"
          className={`${fieldClass} border-rule`}
          value={thing}
          onChange={(e) => change({ thing: e.target.value })}
        >
          <option value="">About the whole rig</option>
          {rig.parts.map((p) => (
            <option key={p.id} value={`parts/${p.id}`}>
              {p.name}
            </option>
          ))}
          {rig.runs.map((r) => (
            <option key={r.id} value={`runs/${r.id}`}>
              {r.name}
            </option>
          ))}
        </select>
        <input
          aria-label="Your name"
          placeholder="Your name"
          maxLength={60}
          className={`${fieldClass} border-rule`}
          value={who}
          onChange={(e) => setWho(e.target.value)}
        />
        <QuantityField
          label="Outdoors"
          value={outdoorC}
          quantity="temperature"
          limit="log.outdoorC"
          onCommit={(to) => change({ outdoorC: to })}
          placeholder="not known"
        />
        {kind === "litres" && (
          <>
            <QuantityField
              label="Came out"
              value={collectedL}
              quantity="volume"
              limit="left.outL"
              onCommit={(to) => change({ collectedL: to })}
            />
            <QuantityField
              label="Should have come"
              value={expectedL}
              quantity="volume"
              limit="left.outL"
              onCommit={(to) => change({ expectedL: to })}
            />
          </>
        )}
      </div>
      {pictures.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-2">
          {pictures.map((p) => (
            <li key={p}>
              <button type="button" title="Remove the photo" onClick={() => change({ pictures: pictures.filter((q) => q !== p) })}>
                <img src={`/api/pictures/${p}`} alt="Attached" className="h-16 rounded-[5px]" />
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button primary disabled={empty || write.isPending} onClick={() => void send()}>
          {correcting ? "Write the correction" : "Write it down"}
        </Button>
        <PickFile label="Photo" accept="image/jpeg,image/png" onPick={(picked) => void attach(picked)}>
          Add a photo
        </PickFile>
        {correcting && (
          <Button
            quiet
            onClick={() => {
              clear();
              onDone();
            }}
          >
            Leave it as it is
          </Button>
        )}
      </div>
      {(write.error ?? trouble) && (
        <p role="alert" className="mt-1">
          {write.error?.message ?? trouble}
        </p>
      )}
    </Panel>
  );
}
