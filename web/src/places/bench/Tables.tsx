import { useQuery } from "@tanstack/react-query";
import { FileSpreadsheet } from "lucide-react";
import { useId, useState } from "react";
import { useDropzone } from "react-dropzone";
import { api, data } from "../../api/client";
import { useSettings } from "../../app/settings";
import { plural, say, usePrint } from "../../app/units";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { useDocument, useStores } from "./benchStores";

const samples = {
  parts:
    "name, stock, from rear, from kerb, above floor\nfresh tank, tank, 60 mm, 80 mm, 240 mm\nkitchen mixer, mixer, 2.52 m, 1460 mm, 780 mm",
  runs: "run, carries, pipe, part, port, from rear, from kerb, above floor\ncold main, cold, pex-1/2, fresh tank, outlet\n, , , , , 940 mm, 1600 mm, 325 mm\n, , , kitchen mixer, cold",
};

/** Parts and runs in and out as tables: for a tape, a list and a spreadsheet. Good rows are taken in one step, bad ones told by line and column. */
export function Tables({ open, onClose }: { open: boolean; onClose(): void }) {
  const { document } = useStores();
  const id = useDocument((s) => s.id);
  const revision = useDocument((s) => s.revision);
  const system = useSettings((s) => s.system);
  const print = usePrint();
  const field = useId();
  const [text, setText] = useState("");
  const file = useDropzone({ noClick: true, noKeyboard: true, multiple: false, onDrop: async ([f]) => f && setText(await f.text()) });
  const read = useQuery({
    queryKey: ["table", id, revision, text, system],
    queryFn: async ({ signal }) =>
      data(await api.POST("/api/rigs/{id}/table", { params: { path: { id } }, body: { base: revision, text, system }, signal })),
    enabled: open && text.trim() !== "",
    retry: false,
  });
  const take = () => {
    if (!read.data) return;
    document.commit(say(read.data.words, print), read.data.edits);
    setText("");
    onClose();
  };
  const link = "inline-flex h-10 items-center gap-2 rounded-md border border-rule px-3 font-medium text-ink hover:border-strong";
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Parts and runs as tables"
      text={
        <div {...file.getRootProps({ className: file.isDragActive ? "bg-sunk" : "" })}>
          <p>
            Paste from a spreadsheet, or drop a file here. Parts come first, then runs: a line for each point, in the order of flow. Bare
            numbers are {system === "metric" ? "millimetres" : "inches"}; a heading such as “above floor (cm)” says otherwise.
          </p>
          <p className="mt-2 flex flex-wrap gap-2">
            <Button onClick={() => setText(samples.parts)}>Sample of parts</Button>
            <Button onClick={() => setText(samples.runs)}>Sample of runs</Button>
            <Button onClick={file.open}>Open file</Button>
            <input {...file.getInputProps({ accept: ".csv,.tsv,.txt,text/csv", "aria-label": "Table file" })} />
          </p>
          <label htmlFor={field} className="mt-3 block">
            Table
          </label>
          <textarea
            id={field}
            value={text}
            rows={8}
            spellCheck={false}
            onChange={(e) => setText(e.target.value)}
            className="w-full rounded-md border border-rule bg-panel p-2 font-mono text-ink"
          />
          {text.trim() !== "" && read.data && (
            <>
              <p className="mt-1 font-semibold text-ink" role="status">
                {say(read.data.words, print)}
                {read.data.faults.length > 0 && `; ${plural(read.data.faults.length, "row")} left out:`}
              </p>
              <ul className="mt-1 max-h-40 overflow-y-auto text-ink">
                {read.data.faults.map((f) => (
                  <li key={`${f.line}:${f.column}:${f.reason}`}>
                    Line {f.line}
                    {f.column ? `, ${f.column}` : ""}: {f.reason}
                  </li>
                ))}
              </ul>
            </>
          )}
          {read.isError && <p role="alert">{read.error.message}</p>}
          <p className="mt-3 flex flex-wrap gap-2">
            <a className={link} href={`/api/rigs/${id}/parts.csv`} download>
              <FileSpreadsheet size={16} /> Parts of this rig
            </a>
            <a className={link} href={`/api/rigs/${id}/runs.csv`} download>
              <FileSpreadsheet size={16} /> Runs of this rig
            </a>
          </p>
        </div>
      }
    >
      <Button onClick={onClose}>Close</Button>
      <Button onClick={take} disabled={!read.data || read.data.edits.length === 0 || text.trim() === ""}>
        Import valid rows
      </Button>
    </Dialog>
  );
}
