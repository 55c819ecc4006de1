import { Download, Minus, Plus, Printer, Scan } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode, RefObject } from "react";
import { Panel } from "../../../ui/controls";
import { printSvg, savePng, saveSvg } from "./saving";

export const toolClass = "grid size-10 shrink-0 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink disabled:opacity-30";

interface Props {
  title: string;
  hint?: ReactNode;
  /** What a saved drawing is called. */
  name: string;
  svg: RefObject<SVGSVGElement | null>;
  /** Buttons of the view's own. */
  tools?: ReactNode;
  zoom?: { factor: number; by(factor: number): void; all(): void };
  children: ReactNode;
}

/** A view with its title, its zoom, and its ways to paper. */
export function ViewFrame({ title, hint, name, svg, tools, zoom, children }: Props) {
  const save = (way: (svg: SVGSVGElement, name: string) => void) => () => svg.current && way(svg.current, name);
  const item = "flex h-10 cursor-pointer items-center gap-2 rounded-[5px] px-3 outline-none data-highlighted:bg-sunk";
  return (
    <Panel aria-label={title} className="flex h-full flex-col">
      <header className="flex h-11 shrink-0 items-center pl-3">
        <h2 className="shrink-0 font-semibold">{title}</h2>
        <span className="ml-2 min-w-0 truncate text-muted">{hint}</span>
        <span className="grow" />
        {tools}
        {zoom && (
          <>
            <button type="button" className={toolClass} aria-label={`Zoom in, ${title}`} onClick={() => zoom.by(1.5)}>
              <Plus size={17} />
            </button>
            <button
              type="button"
              className={toolClass}
              aria-label={`Zoom out, ${title}`}
              disabled={zoom.factor <= 1}
              onClick={() => zoom.by(1 / 1.5)}
            >
              <Minus size={17} />
            </button>
            <button type="button" className={toolClass} aria-label={`Show all of it, ${title}`} onClick={zoom.all}>
              <Scan size={17} />
            </button>
          </>
        )}
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={toolClass} aria-label={`Save or print, ${title}`}>
            <Download size={17} />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="end" className="z-50 min-w-44 rounded-md border border-strong bg-panel p-1 shadow-xl">
              <DropdownMenu.Item className={item} onSelect={save(saveSvg)}>
                Save as SVG
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={save(savePng)}>
                Save as PNG
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={save(printSvg)}>
                <Printer size={16} /> Print
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </header>
      {children}
    </Panel>
  );
}
