import { type ChangeEvent, type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { api, data, OFFLINE, type Problem, type Schema } from "../api/client";
import { useCatalogue } from "../app/catalogue";
import { useSettings } from "../app/settings";
import { usePrint } from "../app/units";
import { read } from "./useTyped";

export const fieldClass = "focus-visible:outline-offset-0 h-10 w-full min-w-0 rounded-md border bg-panel px-2 disabled:opacity-50";

interface Props {
  label: string;
  value: number | null | undefined;
  quantity: Schema["Quantity"];
  onCommit(value: number): void;
  disabled?: boolean;
  /** Between what it lies: the name of a limit of the core. */
  limit?: string;
  /** How many of the shown unit that limit has to one of its own. */
  per?: number;
  least?: number;
  most?: number;
  /** What counts while it is left blank. */
  placeholder?: string;
}

const AGAIN_MS = 1500;

/** What a quantity's field shows, and what it does with what is typed. */
function useQuantity({ value, quantity, onCommit, limit, per = 1, least: ownLeast, most: ownMost, placeholder }: Omit<Props, "label">) {
  const known = useCatalogue().limits[limit ?? ""];
  const least = ownLeast ?? (known ? known.least * per : Number.NEGATIVE_INFINITY);
  const most = ownMost ?? (known ? known.most * per : Number.POSITIVE_INFINITY);
  const print = usePrint();
  const system = useSettings((s) => s.system);
  const shown = value == null ? "" : print(value, quantity);
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  const refused = useRef(false);
  // By the time that a text is read the fields beside it may have changed.
  const commit = useRef(onCommit);
  useEffect(() => {
    commit.current = onCommit;
  });
  // What stands for the value; any other text is being typed, and is left alone when the value changes.
  const settled = useRef(shown);
  const typed = useRef(text);
  typed.current = text;
  useEffect(() => {
    const typing = typed.current !== settled.current;
    settled.current = shown;
    if (typing) return;
    setText(shown);
    setError(null);
  }, [shown]);

  // What is being read: Enter, and then leaving the field, ask once.
  const asked = useRef<string | null>(null);

  function keep() {
    if (refused.current || text === shown) refused.current = false;
    else if (asked.current !== text) read(take());
  }
  async function take() {
    asked.current = text;
    try {
      const said = await parsed();
      if (said.value < least || said.value > most) {
        const [low, high] = [print(least, quantity), print(most, quantity)];
        return setError(!Number.isFinite(least) ? `at most ${high}` : Number.isFinite(most) ? `from ${low} to ${high}` : `at least ${low}`);
      }
      // The print may be what stood there before, when less than it shows has changed.
      if (typed.current === text) {
        setError(null);
        setText(said.printed);
        settled.current = said.printed;
      }
      commit.current(said.value);
    } catch (problem) {
      setError((problem as Problem).fields.text?.[0] ?? (problem as Problem).message);
    } finally {
      asked.current = null;
    }
  }
  // While the program does not answer, what was typed is kept, and asked again.
  async function parsed() {
    for (;;) {
      try {
        return data(await api.POST("/api/units/parse", { body: { text, quantity, system, beside: (shown || placeholder) ?? null } }));
      } catch (problem) {
        if ((problem as Problem).status !== OFFLINE) throw problem;
        setError("kept until the program answers");
        await new Promise((then) => setTimeout(then, AGAIN_MS));
      }
    }
  }
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") keep();
    if (event.key !== "Escape") return;
    event.stopPropagation();
    // What Escape takes back, leaving the field does not keep.
    refused.current = true;
    setText(shown);
    setError(null);
    event.currentTarget.blur();
  };
  return {
    error,
    input: {
      value: text,
      "aria-invalid": error !== null,
      onChange: (e: ChangeEvent<HTMLInputElement>) => setText(e.target.value),
      onFocus: () => {
        refused.current = false;
      },
      onBlur: keep,
      onKeyDown: keys,
    },
  };
}

/**
 * A quantity, typed in either system. Enter or leaving the field keeps it; Escape puts back what stood there. It is of one thing:
 * where another may take its place, give it a key.
 */
export function QuantityField({ label, disabled, ...rest }: Props) {
  const id = useId();
  const { error, input } = useQuantity(rest);
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-muted">
        {label}
      </label>
      <input
        id={id}
        {...input}
        placeholder={rest.placeholder}
        disabled={disabled}
        aria-describedby={`${id}-error`}
        className={`${fieldClass} text-right font-semibold ${error ? "border-2 border-ink" : "border-rule"}`}
      />
      <p id={`${id}-error`} role={error ? "alert" : undefined} className="leading-tight">
        {error}
      </p>
    </div>
  );
}

/** The figure beside a slider, typed in its place: no higher than its line, with a finger's room around it. */
export function TypedFigure({ label, ...rest }: Props) {
  const id = useId();
  const { error, input } = useQuantity(rest);
  return (
    <span className="relative inline-block">
      <input
        {...input}
        aria-label={label}
        aria-describedby={`${id}-error`}
        onFocus={(e) => {
          input.onFocus();
          e.currentTarget.select();
        }}
        style={{ width: `calc(${Math.max(4, input.value.length)}ch + 0.5em)` }}
        className="-my-2 rounded-[5px] bg-transparent py-2 text-right font-semibold underline decoration-strong decoration-dotted underline-offset-4 hover:decoration-ink focus:bg-panel"
      />
      <span
        id={`${id}-error`}
        role={error ? "alert" : undefined}
        className={
          error ? "absolute top-full right-0 z-20 rounded-md border-2 border-ink bg-panel px-2 py-1 font-normal whitespace-nowrap" : ""
        }
      >
        {error}
      </span>
    </span>
  );
}

/** A name, kept by Enter or by leaving the field; Escape puts it back. */
export function TextField({ label, value, onCommit }: { label: string; value: string; onCommit(value: string): void }) {
  const id = useId();
  const [text, setText] = useState(value);
  const refused = useRef(false);
  useEffect(() => setText(value), [value]);
  const keep = () => {
    const next = text.trim();
    if (!refused.current && next && next !== value) onCommit(next);
    else setText(value);
    refused.current = false;
  };
  return (
    <div>
      <label htmlFor={id} className="block text-muted">
        {label}
      </label>
      <input
        id={id}
        value={text}
        maxLength={80}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => {
          if (e.key === "Enter") keep();
          if (e.key !== "Escape") return;
          e.stopPropagation();
          refused.current = true;
          setText(value);
          e.currentTarget.blur();
        }}
        className={`${fieldClass} border-rule font-semibold`}
      />
    </div>
  );
}

/** One of many, by the browser's own list. */
export function PickField(props: {
  label: string;
  value: string;
  options: { value: string; text: string }[];
  onCommit(value: string): void;
  disabled?: boolean;
  /** It spans both columns: its options are long. */
  wide?: boolean;
}) {
  const id = useId();
  return (
    <div className={`min-w-0 ${props.wide ? "col-span-2" : ""}`}>
      <label htmlFor={id} className="block text-muted">
        {props.label}
      </label>
      <select
        id={id}
        value={props.value}
        disabled={props.disabled}
        onChange={(e) => props.onCommit(e.target.value)}
        className={`${fieldClass} border-rule`}
      >
        {props.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.text}
          </option>
        ))}
      </select>
    </div>
  );
}
