import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { api, data, Problem, type Schema, sendFile } from "../../api/client";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";

const day = (at: string) => new Date(at).toLocaleDateString(undefined, { day: "numeric", month: "long", year: "numeric" });
const [ASK_MS, GIVE_UP_MS] = [1000, 300_000];
const rigsIn = (count: number) => (count === 1 ? "one rig" : `${count} rigs`);

const check = (file: File) => sendFile<Schema["CheckedBackup"]>("/api/backup", "application/octet-stream", file);

/** All data as one file, and back. What restoring replaces is said before it is pressed. */
export function Backup({ rigs }: { rigs: number }) {
  const client = useQueryClient();
  // The browser tells nobody when a download has ended: until the last backup is another one, it is asked for.
  const [saving, setSaving] = useState<{ before: string | null } | null>(null);
  const state = useQuery({
    queryKey: ["backup"],
    queryFn: async () => data(await api.GET("/api/backup/state")),
    refetchInterval: ({ state: now }) => (saving && (now.data?.lastAt ?? null) === saving.before ? ASK_MS : false),
  });
  const input = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<{ name: string; backup: Schema["CheckedBackup"] } | null>(null);
  const read = useMutation({
    mutationFn: check,
    onSuccess: (backup, file) => setFound({ name: file.name, backup }),
  });
  const restore = useMutation({
    mutationFn: async (id: string) => data(await api.POST("/api/backup/{id}/restore", { params: { path: { id } }, body: {} })),
    onSuccess: () => setFound(null),
    onSettled: () => client.invalidateQueries(),
  });
  const { lastAt, due } = state.data ?? {};
  const content = found?.backup.content;
  const failed = read.error ?? restore.error;
  return (
    <section aria-label="Backup" className={`mt-8 ${due ? "rounded-md border border-ink bg-panel p-3" : ""}`}>
      <h2 className="text-[15px] font-semibold">{due ? "Time for a backup" : "Backup"}</h2>
      <p className="text-muted">
        {lastAt ? `Last backup: ${day(lastAt)}.` : "No backup yet."} All rigs, their history and pictures in one file: keep it on another
        disk.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <a
          href="/api/backup"
          download
          onClick={() => {
            setSaving({ before: lastAt ?? null });
            setTimeout(() => setSaving(null), GIVE_UP_MS);
          }}
          className="inline-flex h-10 items-center gap-2 rounded-md border border-rule bg-panel px-3 font-medium"
        >
          <Download size={17} />
          Save backup
        </a>
        <input
          ref={input}
          type="file"
          accept=".backup,.db,.sqlite"
          className="sr-only"
          aria-label="Backup file"
          tabIndex={-1}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) read.mutate(file);
          }}
        />
        <Button onClick={() => input.current?.click()} disabled={read.isPending}>
          <Upload size={17} />
          {read.isPending ? "Checking…" : "Restore backup…"}
        </Button>
      </div>
      {failed && (
        <p role="alert" className="mt-2">
          Not restored{read.variables ? `, “${read.variables.name}”` : ""}:{" "}
          {failed instanceof Problem ? (failed.fields.file?.[0] ?? failed.message) : failed.message}. Nothing was changed.
        </p>
      )}
      {restore.data && (
        <p role="status" className="mt-2">
          Restored. What was here before is in the data folder as {restore.data.keptAs}.
        </p>
      )}
      <Dialog
        open={found !== null}
        onClose={() => setFound(null)}
        title="Replace all data?"
        text={
          <>
            <p>
              “{found?.name}” holds {rigsIn(content?.rigs ?? 0)}
              {content?.savedAt ? `, last saved ${day(content.savedAt)}` : ""}.
            </p>
            <p className="mt-2">
              It replaces {rigsIn(rigs)} here, with all history and pictures. What is here now is kept as a file in the data folder.
            </p>
          </>
        }
      >
        <Button onClick={() => setFound(null)}>Cancel</Button>
        <Button onClick={() => found && restore.mutate(found.backup.id)} disabled={restore.isPending}>
          {restore.isPending ? "Replacing…" : "Replace all data"}
        </Button>
      </Dialog>
    </section>
  );
}
