import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen } from "lucide-react";
import { type DragEvent, useRef, useState } from "react";
import { useLocation } from "wouter";
import { api, data, Problem, problemOf, type Schema } from "../../api/client";
import { AppBar } from "../../app/AppBar";
import { Patterns } from "../../drawing/patterns";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { RigCard } from "./RigCard";

async function openFile(file: File): Promise<Schema["ShelvedRig"]> {
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
      go(`/rigs/${shelved.rig.id}`);
    },
    onError: (problem: Problem, file) => setRefused({ file: file.name, problem }),
  });
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
        {shelf.data?.length === 0 && (
          <div className="max-w-md">
            <h2 className="text-[15px] font-semibold">The shelf is empty</h2>
            <p className="mt-1 text-muted">
              Open a rig file, or let one fall anywhere on this page. The file of the demo rig lies in the folder “demo”.
            </p>
          </div>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(26rem,1fr))] gap-4">
          {shelf.data?.map((card) => (
            <RigCard key={card.shelved.rig.id} card={card} />
          ))}
        </ul>
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
