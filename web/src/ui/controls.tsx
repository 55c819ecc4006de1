import { Check, Minus } from "lucide-react";
import { Checkbox, Slider as RadixSlider, Switch as RadixSwitch, ToggleGroup } from "radix-ui";
import type { ButtonHTMLAttributes, ReactNode } from "react";

/** A button with words or a sign on it; at least 40 px high. */
export function Button({
  quiet,
  primary,
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { quiet?: boolean; primary?: boolean }) {
  const look = primary
    ? "border-ink bg-ink text-panel"
    : quiet
      ? "border-transparent hover:bg-sunk"
      : "border-rule bg-panel hover:border-strong";
  return (
    <button
      type="button"
      className={`inline-flex min-h-10 min-w-10 max-w-full shrink-0 items-center justify-center gap-2 rounded-md border px-3 py-1 font-medium disabled:opacity-40 ${look} ${className}`}
      {...rest}
    />
  );
}

/** One of a few. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: { value: T; text: ReactNode; title?: string }[];
  onChange(value: T): void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(v) => v && onChange(v as T)}
      className="inline-flex shrink-0 rounded-md border border-rule bg-panel p-0.5"
    >
      {options.map((o) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          title={o.title}
          className="h-9 rounded-[5px] px-3 font-medium text-muted hover:text-ink data-[state=on]:bg-sunk data-[state=on]:text-ink data-[state=on]:shadow-[inset_0_0_0_1.5px_var(--ink)]"
        >
          {o.text}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** A value that is dragged. */
export function Slider(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  text: string;
  onChange(value: number): void;
}) {
  return (
    <RadixSlider.Root
      value={[props.value]}
      min={props.min}
      max={props.max}
      step={props.step}
      onValueChange={([v]) => v !== undefined && props.onChange(v)}
      className="relative flex h-8 w-full touch-none items-center"
    >
      <RadixSlider.Track className="h-1 grow rounded bg-rule">
        <RadixSlider.Range className="absolute h-1 rounded bg-strong" />
      </RadixSlider.Track>
      <RadixSlider.Thumb
        aria-label={props.label}
        aria-valuetext={props.text}
        className="block size-6 rounded-full border-2 border-ink bg-panel before:absolute before:-inset-2 before:content-['']"
      />
    </RadixSlider.Root>
  );
}

/** On or off. */
export function Switch({ label, on, onChange }: { label: string; on: boolean; onChange(on: boolean): void }) {
  return (
    <RadixSwitch.Root
      aria-label={label}
      checked={on}
      onCheckedChange={onChange}
      className="relative h-7 w-12 rounded-full border-2 border-ink bg-panel before:absolute before:-inset-2 before:content-[''] data-[state=checked]:bg-ink"
    >
      <RadixSwitch.Thumb className="block size-4 translate-x-1 rounded-full bg-ink data-[state=checked]:translate-x-6 data-[state=checked]:bg-panel" />
    </RadixSwitch.Root>
  );
}

/** A sheet of the page with a heading. */
/** A box to tick with a wet hand; some: part of what it stands for is done. */
export function Tick({ label, on, some = false, onChange }: { label: string; on: boolean; some?: boolean; onChange(on: boolean): void }) {
  return (
    <Checkbox.Root
      aria-label={label}
      checked={on || (some && "indeterminate")}
      onCheckedChange={(to) => onChange(to === true)}
      className="group flex size-11 shrink-0 items-center justify-center"
    >
      <span className="flex size-6 items-center justify-center rounded-[5px] border-2 border-ink group-data-[state=checked]:bg-ink group-data-[state=checked]:text-panel">
        <Checkbox.Indicator>{on ? <Check size={18} strokeWidth={3} /> : <Minus size={18} strokeWidth={3} />}</Checkbox.Indicator>
      </span>
    </Checkbox.Root>
  );
}

export function Panel({ className = "", children, ...rest }: { className?: string; children: ReactNode; "aria-label"?: string }) {
  return (
    <section className={`min-h-0 min-w-0 rounded-md border border-rule bg-panel ${className}`} {...rest}>
      {children}
    </section>
  );
}

/** What to mind where something can hurt. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="mt-1 border-l-[3px] border-ink pl-2">
      {children} <span className="text-muted">Follow local codes; have a licensed fitter do it.</span>
    </p>
  );
}

/** Under the largest of a list: the rest is shown when it is asked for. `count`: of all, in words. */
export function ShowAll({ all, count, onChange }: { all: boolean; count: string; onChange(all: boolean): void }) {
  return (
    <Button quiet onClick={() => onChange(!all)}>
      {all ? "Show the largest" : `Show all ${count}`}
    </Button>
  );
}
