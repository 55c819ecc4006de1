import { type ButtonHTMLAttributes, type ReactNode, useRef } from "react";
import { Button } from "./controls";

interface Props extends Omit<ButtonHTMLAttributes<HTMLButtonElement>, "onClick"> {
  /** What the field of the file is called. */
  label: string;
  accept: string;
  /** A phone opens its camera. */
  camera?: boolean;
  onPick(file: File): void;
  children: ReactNode;
}

/** A button that asks for a file. */
export function PickFile({ label, accept, camera = false, onPick, children, ...rest }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...rest} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        {...(camera && { capture: "environment" as const })}
        aria-label={label}
        className="hidden"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onPick(file);
          // The same one can be taken once more.
          e.target.value = "";
        }}
      />
    </>
  );
}
