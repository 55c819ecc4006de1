import { useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen, Plus } from "lucide-react";
import { useEffect, useState } from "react";
import { useDropzone } from "react-dropzone";
import { Link, useLocation } from "wouter";
import { api, data, type Problem, type Schema, sendFile } from "../../api/client";
import { AppBar } from "../../app/AppBar";
import { pathWords } from "../../app/pathWords";
import { type ShelfOrder, useSettings } from "../../app/settings";
import { listenChanges } from "../../document/changes";
import { Patterns } from "../../drawing/patterns";
import { Button, Choice } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { Drawn } from "../../ui/Drawn";
import { useWalk } from "../bench/walkStore";
import { Backup } from "./Backup";
import { Opening } from "./Opening";
import { RigCard, standingOf } from "./RigCard";
import { Share } from "./Share";

const openFile = (file: File) => sendFile<Schema["OpenRig"]>("/api/rigs", "application/json", file);

/** The shelf: every rig as a small side drawing with its verdict. */
export function RigsPlace() {
  const shelf = useQuery({
    queryKey: ["rigs"],
    queryFn: async () => data(await api.GET("/api/rigs")),
    refetchOnMount: "always",
  });
  const client = useQueryClient();
  const { openingHidden, hideOpening } = useWalk();
  const [, go] = useLocation();
  const [refused, setRefused] = useState<{ file: string; problem: Problem } | null>(null);
  const open = useMutation({
    mutationFn: openFile,
    onSuccess: async (shelved) => {
      await client.invalidateQueries({ queryKey: ["rigs"] });
      go(`/rigs/${shelved.id}`);
    },
    onError: (problem: Problem, file) => setRefused({ file: file.name, problem }),
  });
  useEffect(() => listenChanges(() => void client.invalidateQueries({ queryKey: ["rigs"] })), [client]);
  // A file may also be let fall anywhere on the shelf. What is not a rig is refused by the server, with its reasons.
  const files = useDropzone({
    onDrop: ([file]) => file && open.mutate(file),
    multiple: false,
    noClick: true,
    noKeyboard: true,
  });

  return (
    <div
      {...files.getRootProps({
        className: `flex h-full flex-col ${files.isDragActive ? "bg-sunk shadow-[inset_0_0_0_3px_var(--ink)]" : ""}`,
      })}
    >
      <Patterns />
      <AppBar>
        <h1 className="text-[17px] font-semibold">Rigs</h1>
        <span className="grow" />
        <input {...files.getInputProps({ accept: ".json,application/json", "aria-label": "Rig file" })} />
        <Link
          href="/new"
          className="inline-flex h-10 shrink-0 items-center gap-2 rounded-md border border-ink bg-ink px-3 font-medium text-panel"
        >
          <Plus size={17} />
          New rig
        </Link>
        <Share />
        <Button onClick={files.open} disabled={open.isPending}>
          <FolderOpen size={17} />
          {open.isPending ? "Opening…" : "Open from file"}
        </Button>
      </AppBar>
      <main className="relative min-h-0 grow overflow-y-auto p-5">
        {shelf.isPending && <Drawn picture="loading" role="status" title="Loading rigs…" />}
        {shelf.isError && (
          <Drawn picture="offline" role="alert" title="Couldn't load the rigs">
            <p className="mt-1 text-muted">{shelf.error.message} Nothing is lost: your rigs are in the data folder.</p>
            <Button className="mt-3" onClick={() => shelf.refetch()}>
              Try again
            </Button>
          </Drawn>
        )}
        {shelf.data && (!openingHidden || shelf.data.rigs.length === 0) && (
          <Opening
            walkOn={shelf.data.rigs.find((r) => r.id === "sparrow" && !r.unreadable)?.id ?? null}
            {...(shelf.data.rigs.length > 0 && { onHide: hideOpening })}
          />
        )}
        {shelf.data?.rigs.length === 0 && (
          <Drawn picture="empty" title="No rigs yet">
            <p className="mt-1 text-muted">
              Start with a body like your vehicle, or with an empty box and your tape. You can also open a rig file, or drop it anywhere on
              this page.
            </p>
            <Link href="/new" className="mt-3 inline-flex h-10 items-center underline">
              New rig
            </Link>
          </Drawn>
        )}
        {shelf.data && shelf.data.rigs.length > 0 && <Cards cards={shelf.data.rigs} />}
        {shelf.data && shelf.data.removed.length > 0 && <TakenOff removed={shelf.data.removed} />}
        {shelf.data && <Backup rigs={shelf.data.rigs.length} />}
      </main>
      <Dialog
        open={refused !== null}
        onClose={() => setRefused(null)}
        title={`“${refused?.file}” was not opened`}
        text={
          <>
            <p>{refused?.problem.title}</p>
            <ul className="mt-2 space-y-1">
              {Object.entries(refused?.problem.fields ?? {}).map(([field, reasons]) => (
                <li key={field}>
                  <strong className="text-ink">{pathWords(field)}</strong>: {reasons.join("; ")}
                </li>
              ))}
            </ul>
          </>
        }
      >
        <Button onClick={() => setRefused(null)}>Close</Button>
      </Dialog>
    </div>
  );
}

const harm: Record<Schema["OutlookState"], number> = { freezeDamage: 0, atRisk: 1, unknown: 2, safe: 3 };
const orderWords: { value: ShelfOrder; text: string }[] = [
  { value: "recent", text: "Last changed" },
  { value: "name", text: "Name" },
  { value: "worst", text: "Worst first" },
];

/** The rigs in the order that the reader chose. */
function Cards({ cards }: { cards: Schema["ShelfCard"][] }) {
  const { shelfOrder, sortShelf } = useSettings();
  // The cards ask the same: each verdict comes once.
  const told = useQueries({ queries: cards.map(standingOf) });
  const states = new Map(cards.map((c, i) => [c.id, told[i]?.data?.outlook?.state]));
  const rank = (c: Schema["ShelfCard"]) => harm[states.get(c.id) ?? "unknown"];
  const sorted = [...cards].sort((a, b) =>
    shelfOrder === "name"
      ? a.name.localeCompare(b.name)
      : (shelfOrder === "worst" ? rank(a) - rank(b) : 0) || Date.parse(b.savedAt) - Date.parse(a.savedAt),
  );
  return (
    <>
      {cards.length > 1 && (
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <span className="text-muted">Sort by</span>
          <Choice label="Sort by" value={shelfOrder} options={orderWords} onChange={sortShelf} />
        </div>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(24rem,100%),1fr))] gap-4">
        {sorted.map((card) => (
          <RigCard key={card.id} card={card} />
        ))}
      </ul>
    </>
  );
}

/** Rigs that were taken off and can still be brought back. */
function TakenOff({ removed }: { removed: Schema["RemovedRig"][] }) {
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: async (id: string) => data(await api.POST("/api/rigs/{id}/bring-back", { params: { path: { id } }, body: {} })),
    onSettled: () => client.invalidateQueries({ queryKey: ["rigs"] }),
  });
  return (
    <section aria-label="Deleted" className="mt-8">
      <h2 className="text-[15px] font-semibold">Deleted</h2>
      <p className="text-muted">Kept for 30 days.</p>
      <ul className="mt-2 flex flex-wrap gap-2">
        {removed.map((r) => (
          <li key={r.id} className="flex items-center gap-3 rounded-md border border-rule bg-panel py-1 pr-1 pl-3">
            <span>
              {r.name}
              <span className="ml-2 text-muted">
                {new Date(r.removedAt).toLocaleDateString(undefined, { day: "numeric", month: "short" })}
              </span>
            </span>
            <Button quiet onClick={() => back.mutate(r.id)} disabled={back.isPending}>
              Restore
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
