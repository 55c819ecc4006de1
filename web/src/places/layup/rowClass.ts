/** A row of a list that is chosen by a press, wet hands or not. */
export const rowClass =
  "flex min-h-11 w-full items-start gap-2 rounded-md px-1.5 py-2 text-left aria-pressed:bg-sunk aria-pressed:shadow-[inset_0_0_0_1.5px_var(--ink)]";
