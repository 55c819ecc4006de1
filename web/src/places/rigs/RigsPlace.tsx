import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen } from "lucide-react";
import { type DragEvent, useEffect, useRef, useState } from "react";
import { useLocation } from "wouter";
import { api, data, Problem, problemOf, type Schema } from "../../api/client";
import { AppBar } from "../../app/AppBar";
import { listenChanges } from "../../document/changes";
import { Patterns } from "../../drawing/patterns";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { RigCard } from "./RigCard";

async function openFile(file: File): Promise<Schema["OpenRig"]> {
  const answer = await fetch("/api/rigs", {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: file,
  }).catch(() => {
    throw new Problem(0, "The program on this machine does not answer.", undefined, {}, {});
  });
  if (!answer.ok) throw await problemOf(answer);
  return answer.json();
}

/** The shelf: every rig as a small side drawing with its verdict. */
export function RigsPlace() {
  const shelf = useQuery({
    queryKey: ["rigs"],
    queryFn: async () => data(await api.GET("/api/rigs")),
    refetchOnMount: "always",
  });
  const client = useQueryClient();
  const [, go] = useLocation();
  const input = useRef<HTMLInputElement>(null);
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
  const drop = (event: DragEvent) => {
    event.preventDefault();
    const file = event.dataTransfer.files[0];
    if (file) open.mutate(file);
  };

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a file may also be let fall anywhere on the shelf
    <div className="flex h-full flex-col" onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <Patterns />
      <AppBar>
        <h1 className="text-[17px] font-semibold">Rigs</h1>
        <span className="grow" />
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          className="hidden"
          aria-label="Rig file"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) open.mutate(file);
            e.target.value = "";
          }}
        />
        <Button onClick={() => input.current?.click()} disabled={open.isPending}>
          <FolderOpen size={17} />
          {open.isPending ? "Opening…" : "Open from file"}
        </Button>
      </AppBar>
      <main className="min-h-0 grow overflow-y-auto p-5">
        {shelf.isPending && <p className="text-muted">Fetching the shelf…</p>}
        {shelf.isError && (
          <div role="alert" className="max-w-md">
            <h2 className="text-[15px] font-semibold">The shelf could not be fetched</h2>
            <p className="mt-1 text-muted">{shelf.error.message} Nothing is lost; it is in the data folder.</p>
            <Button className="mt-3" onClick={() => shelf.refetch()}>
              Try again
            </Button>
          </div>
        )}
        {shelf.data?.rigs.length === 0 && (
          <div className="max-w-md">
            <h2 className="text-[15px] font-semibold">The shelf is empty</h2>
            <p className="mt-1 text-muted">
              Open a rig file, or let one fall anywhere on this page. The file of the demo rig lies in the folder “demo”.
            </p>
          </div>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(26rem,1fr))] gap-4">
          {shelf.data?.rigs.map((card) => (
            <RigCard key={card.id} card={card} />
          ))}
        </ul>
        {shelf.data && shelf.data.removed.length > 0 && <TakenOff removed={shelf.data.removed} />}
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
                  <strong className="text-ink">{field}</strong> {reasons.join("; ")}
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

/** Rigs that were taken off and can still be brought back. */
function TakenOff({ removed }: { removed: Schema["RemovedRig"][] }) {
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: async (id: string) => data(await api.POST("/api/rigs/{id}/bring-back", { params: { path: { id } }, body: {} })),
    onSettled: () => client.invalidateQueries({ queryKey: ["rigs"] }),
  });
  return (
    <section aria-label="Taken off the shelf" className="mt-8">
      <h2 className="text-[15px] font-semibold">Taken off the shelf</h2>
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
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
