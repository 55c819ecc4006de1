import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, Problem } from "../../api/client";
import { say, usePrint } from "../../app/units";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { useDocument, useStores } from "./benchStores";

/** All that was done to the rig, newest first, in words; any state of it can be gone back to. */
export function History({ onClose }: { onClose(): void }) {
  const { document } = useStores();
  const id = useDocument((s) => s.id);
  const revision = useDocument((s) => s.revision);
  const print = usePrint();
  const [refused, setRefused] = useState<string | null>(null);
  const asked = useQuery({
    queryKey: ["revisions", id, revision],
    queryFn: async ({ signal }) => data(await api.GET("/api/rigs/{id}/revisions", { params: { path: { id } }, signal })),
    placeholderData: (old) => old,
  });
  const goBack = async (number: number) => {
    try {
      await document.flush();
      const base = document.getState().revision;
      data(await api.POST("/api/rigs/{id}/revisions/{number}/go-back", { params: { path: { id, number } }, body: { base } }));
      await document.follow();
      onClose();
    } catch (caught) {
      setRefused(caught instanceof Problem ? caught.message : String(caught));
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="History"
      text={
        <>
          <p>Going back is a step too: nothing is lost, and you can undo it.</p>
          {refused && <p role="alert">{refused}</p>}
          {asked.isError && <p role="alert">{asked.error.message}</p>}
          {asked.isPending && <p>Loading…</p>}
          <ol className="mt-2 text-ink">
            {asked.data?.map((r) => (
              <li key={r.number} className="flex min-h-11 items-center gap-3 border-b border-rule py-1">
                <span className="min-w-0 grow break-words">{say(r.what, print)}</span>
                <time className="shrink-0 text-muted" dateTime={r.savedAt}>
                  {new Date(r.savedAt).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}
                </time>
                {r.number === revision ? (
                  <span className="w-24 shrink-0 text-center text-muted">now</span>
                ) : (
                  <span className="w-24 shrink-0">
                    <Button onClick={() => void goBack(r.number)}>Go back</Button>
                  </span>
                )}
              </li>
            ))}
          </ol>
        </>
      }
    >
      <Button onClick={onClose}>Close</Button>
    </Dialog>
  );
}
