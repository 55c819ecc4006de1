import { type FormEvent, useEffect, useState } from "react";
import { api, data, type Problem } from "../../api/client";
import { useSettings } from "../../app/settings";
import { usePrint } from "../../app/units";
import { raised, useBench } from "./benchStore";
import type { StripPoint } from "./stripGeometry";

/** The height of the point in hand, typed: either system is read. */
export function HeightField({ point }: { point: StripPoint | null }) {
  const print = usePrint();
  const system = useSettings((s) => s.system);
  const commit = useBench((s) => s.commit);
  const rig = useBench((s) => s.rig);
  const shown = point ? print(point.builtM, "length") : "";
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    setText(shown);
    setError(null);
  }, [shown]);

  async function submit(event: FormEvent) {
    event.preventDefault();
    if (!rig || !point?.handle || text === shown) return;
    const handle = point.handle;
    try {
      const read = data(await api.POST("/api/units/parse", { body: { text, quantity: "length", system } }));
      if (Math.abs(read.value) > 5) return setError("within 5 m of the floor");
      commit(`Height of ${point.name ?? "a bend"} set to ${read.printed}`, [raised(rig, handle, read.value - point.builtM)]);
      // The print may be what stood there before, when less than it shows has changed.
      setText(read.printed);
      setError(null);
    } catch (problem) {
      setError((problem as Problem).fields.text?.[0] ?? (problem as Problem).message);
    }
  }

  if (!point) return <span className="shrink-0 pr-2 text-muted">Take a point: drag it, or ↑ ↓ 5 mm, with Shift 1 mm</span>;
  return (
    <form onSubmit={submit} className="flex shrink-0 items-center gap-2">
      <label htmlFor="height" className="text-muted">
        {point.name ?? `Bend ${point.number}`}
      </label>
      <input
        id="height"
        value={text}
        disabled={!point.handle}
        aria-invalid={error !== null}
        aria-describedby="height-error"
        onChange={(e) => setText(e.target.value)}
        onBlur={submit}
        className={`h-10 w-28 rounded-md border bg-panel px-2 text-right font-semibold ${error ? "border-2 border-ink" : "border-rule"}`}
      />
      <span id="height-error" role={error ? "alert" : undefined} className={error ? "max-w-52 leading-tight" : "text-muted"}>
        {error ?? (point.handle ? "above floor" : "fixed")}
      </span>
    </form>
  );
}
