import { useRef, useState } from "react";

const reading = new Set<Promise<void>>();

/** Says that a field is being read; what takes up all fields by a press waits for it. */
export function read(field: Promise<void>) {
  reading.add(field);
  void field.finally(() => reading.delete(field));
}

/**
 * What is put together in fields before it is kept. Changes of single fields add up, however close they come; `whole` is all of
 * it once each field that was typed into has been read.
 */
export function useTyped<T>(first: T) {
  const [value, setValue] = useState(first);
  const latest = useRef(first);
  const put = (next: T) => {
    latest.current = next;
    setValue(next);
  };
  return {
    value,
    put,
    change: (values: Partial<T>) => put({ ...latest.current, ...values }),
    whole: async () => {
      await Promise.allSettled(reading);
      return latest.current;
    },
  };
}
