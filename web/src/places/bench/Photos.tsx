import { Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import { useDropzone } from "react-dropzone";
import { Problem, type Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { added, nameCut, removed } from "../../document/edits";
import { straightOf } from "../../drawing/photos";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { PickField, QuantityField, TextField } from "../../ui/QuantityField";
import { useTyped } from "../../ui/useTyped";
import { useDocument, useStores } from "./benchStores";

type Photo = Schema["Photo"];
type Edit = Schema["Edit"];

const atFirst: Schema["PicturePoint"][] = [
  { x: 0.25, y: 0.25 },
  { x: 0.75, y: 0.25 },
  { x: 0.75, y: 0.75 },
  { x: 0.25, y: 0.75 },
];
const cornerWords = ["upper left", "upper right", "lower right", "lower left"];

/** Sends a picture to be kept; it is checked and shrunk there. */
async function keep(file: File): Promise<Schema["KeptPicture"]> {
  const answer = await fetch("/api/pictures", { method: "POST", headers: { "content-type": file.type }, body: file });
  const said = await answer.json().catch(() => null);
  if (answer.ok) return said;
  throw new Problem(answer.status, said?.errors?.picture?.[0] ?? said?.title ?? "Couldn't save the photo.", undefined, {}, {});
}

/** Pictures of walls and floors under the drawings: chosen, straightened by four corners of something whose size is known, put in their place. */
export function Photos({ onClose }: { onClose(): void }) {
  const { document } = useStores();
  const photos = useDocument((s) => s.rig?.shell.photos ?? none);
  const { value: draft, put: setDraft, change, whole } = useTyped<Photo | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      setRefused(null);
      const { picture } = await keep(file);
      const name = nameCut(file.name.replace(/\.[^.]*$/, "")) || "wall";
      setDraft({ id: newId("photo"), name, picture, view: "side", corners: atFirst, widthM: 1, heightM: 0.6, alongM: 0, otherM: 0 });
    } catch (caught) {
      setRefused(caught instanceof Problem ? caught.message : "Couldn't save the photo.");
    }
  };
  const file = useDropzone({ noClick: true, noKeyboard: true, multiple: false, onDrop: ([f]) => void take(f) });
  const save = async () => {
    const draft = await whole();
    if (!draft) return;
    // What cannot be straightened is said here, and not left as an empty drawing.
    const straight = await fetch(straightOf(draft)).catch(() => null);
    if (!straight?.ok) {
      const said = await straight?.json().catch(() => null);
      return setRefused(said?.errors?.corners?.[0] ?? "It cannot be straightened now.");
    }
    const there = photos.some((p) => p.id === draft.id);
    const edit = there
      ? { kind: "change", thing: `shell/photos/${draft.id}`, values: { ...draft, id: undefined } }
      : added("shell/photos", draft);
    document.commit(`Photo ${draft.name}`, [edit as unknown as Edit]);
    setDraft(null);
    setRefused(null);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Photos under the drawing"
      text={
        draft ? (
          <>
            <Straighten photo={draft} onChange={change} />
            {refused && (
              <p role="alert" className="mt-2 font-semibold text-ink">
                {refused}
              </p>
            )}
          </>
        ) : (
          <div {...file.getRootProps({ className: file.isDragActive ? "bg-sunk" : "" })}>
            <p>
              A photo of a wall or the floor, faint under the side or the plan, to trace lines where they really run. JPEG or PNG, at most
              12. Its place and time are removed. It stays with the rig and is sent nowhere.
            </p>
            <ul className="mt-2 text-ink">
              {photos.map((p) => (
                <li key={p.id} className="flex min-h-14 items-center gap-3 border-b border-rule py-1">
                  <img src={`/api/pictures/${p.picture}`} alt="" className="h-12 w-16 rounded-[5px] object-cover" />
                  <span className="min-w-0 grow truncate">
                    {p.name} <span className="text-muted">{p.view === "side" ? "under the side" : "under the plan"}</span>
                  </span>
                  <Button onClick={() => setDraft(p)}>Straighten</Button>
                  <Button
                    aria-label={`Remove ${p.name}`}
                    onClick={() => document.commit(`Remove photo ${p.name}`, [removed(`shell/photos/${p.id}`)])}
                  >
                    <Trash2 size={16} />
                  </Button>
                </li>
              ))}
            </ul>
            {refused && (
              <p role="alert" className="mt-2 font-semibold text-ink">
                {refused}
              </p>
            )}
            <p className="mt-3">
              <Button onClick={file.open} disabled={photos.length >= 12}>
                Choose a picture
              </Button>
              <input {...file.getInputProps({ accept: "image/jpeg,image/png", "aria-label": "Picture file" })} />
            </p>
          </div>
        )
      }
    >
      {draft ? (
        <>
          <Button onClick={() => setDraft(null)}>Cancel</Button>
          <Button onClick={() => void save()}>Add photo</Button>
        </>
      ) : (
        <Button onClick={onClose}>Close</Button>
      )}
    </Dialog>
  );
}

const none: Photo[] = [];

/** Four corners pulled onto something whose size is known, and where that is. */
function Straighten({ photo, onChange }: { photo: Photo; onChange(values: Partial<Photo>): void }) {
  const box = useRef<HTMLDivElement>(null);
  const put = (i: number, x: number, y: number) => {
    const held = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 10_000) / 10_000;
    onChange({ corners: photo.corners.with(i, { x: held(x), y: held(y) }) });
  };
  const side = photo.view === "side";
  return (
    <div className="text-ink">
      <p className="text-muted">Pull the four corners onto something upright whose size you know: a door, a board, a window.</p>
      <div ref={box} className="relative mt-2 touch-none select-none">
        <img src={`/api/pictures/${photo.picture}`} alt="" className="block max-h-[32vh] w-full object-fill" draggable={false} />
        <svg viewBox="0 0 1 1" preserveAspectRatio="none" className="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
          <polygon
            points={photo.corners.map((c) => `${c.x},${c.y}`).join(" ")}
            fill="none"
            stroke="white"
            strokeWidth={5}
            vectorEffect="non-scaling-stroke"
          />
          <polygon
            points={photo.corners.map((c) => `${c.x},${c.y}`).join(" ")}
            fill="none"
            stroke="black"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
          />
        </svg>
        {photo.corners.map((c, i) => (
          <button
            key={cornerWords[i]}
            type="button"
            aria-label={`Corner, ${cornerWords[i]}`}
            className="absolute grid size-10 -translate-1/2 cursor-move place-items-center rounded-full"
            style={{ left: `${c.x * 100}%`, top: `${c.y * 100}%` }}
            onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
            onPointerMove={(e) => {
              const r = box.current?.getBoundingClientRect();
              if (r && e.buttons === 1) put(i, (e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height);
            }}
            onKeyDown={(e) => {
              const step = e.shiftKey ? 0.001 : 0.005;
              const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
              if (!by) return;
              e.preventDefault();
              put(i, c.x + (by[0] as number), c.y + (by[1] as number));
            }}
          >
            <span className="size-4 rounded-full border-2 border-black bg-white" />
          </button>
        ))}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-2">
        <TextField label="Name" value={photo.name} onCommit={(name) => onChange({ name })} />
        <PickField
          label="Under"
          value={photo.view}
          options={[
            { value: "side", text: "the side" },
            { value: "plan", text: "the plan" },
          ]}
          onCommit={(view) => onChange({ view: view as Photo["view"] })}
        />
        <QuantityField
          label="Its width"
          value={photo.widthM}
          quantity="length"
          least={0.01}
          most={30}
          onCommit={(widthM) => onChange({ widthM })}
        />
        <QuantityField
          label={side ? "Its height" : "Its depth"}
          value={photo.heightM}
          quantity="length"
          least={0.01}
          most={30}
          onCommit={(heightM) => onChange({ heightM })}
        />
        <QuantityField
          label="Left edge from the rear"
          value={photo.alongM}
          quantity="length"
          least={-30}
          most={30}
          onCommit={(alongM) => onChange({ alongM })}
        />
        <QuantityField
          label={side ? "Lower edge above floor" : "Lower edge from the kerb"}
          value={photo.otherM}
          quantity="length"
          least={-30}
          most={30}
          onCommit={(otherM) => onChange({ otherM })}
        />
      </div>
    </div>
  );
}
