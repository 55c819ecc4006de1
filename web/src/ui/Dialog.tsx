import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { useReturnFocus } from "./useReturnFocus";

/** A question or a message that stops work until it is answered. */
export function Dialog(props: { open: boolean; title: string; text: ReactNode; children: ReactNode; onClose?: () => void }) {
  useReturnFocus(props.open);
  return (
    <Radix.Root open={props.open} onOpenChange={(open) => !open && props.onClose?.()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content className="fixed top-1/2 left-1/2 z-50 max-h-[80vh] w-[min(92vw,34rem)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-md border border-strong bg-panel p-5 shadow-xl">
          <Radix.Title className="text-[17px] font-semibold">{props.title}</Radix.Title>
          <Radix.Description asChild>
            <div className="mt-2 text-muted">{props.text}</div>
          </Radix.Description>
          <div className="mt-5 flex flex-wrap justify-end gap-2">{props.children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
