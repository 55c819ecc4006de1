import { Crosshair, Download, Minus, Plus, Printer, Scan } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode, RefObject } from "react";
import { Panel } from "../../../ui/controls";
import { printSvg, savePng, saveSvg } from "./saving";

export const toolClass = "grid size-10 shrink-0 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink disabled:opacity-30";

interface Props {
  title: string;
  /** A line over the drawing; the tools stand at its end. Without it they stand beside the drawing. */
  line?: ReactNode;
  /** What stands beside the drawing, over the tools: other views, small. */
  beside?: ReactNode;
  /** What a saved drawing is called. */
  name: string;
  svg: RefObject<SVGSVGElement | null>;
  zoom?: { factor: number; by(factor: number): void; all(): void; toSelection?: (() => void) | undefined };
  onClose?: ReactNode;
  children: ReactNode;
}

/** A view with its zoom and its ways to paper; the drawing has nearly all of it. */
export function ViewFrame({ title, line, beside, name, svg, zoom, onClose, children }: Props) {
  const tools = (
    <>
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
          {zoom.toSelection && (
            <button
              type="button"
              className={toolClass}
              aria-label={`Zoom to selection, ${title}`}
              title="Zoom to selection (Z)"
              onClick={zoom.toSelection}
            >
              <Crosshair size={17} />
            </button>
          )}
          <button type="button" className={toolClass} aria-label={`Show all, ${title}`} title="Show all" onClick={zoom.all}>
            <Scan size={17} />
          </button>
        </>
      )}
      <Save title={title} name={name} svg={svg} />
      {onClose}
    </>
  );
  return (
    <Panel aria-label={title} className={`flex h-full overflow-hidden ${line ? "flex-col" : ""}`}>
      {line && (
        <header className="flex h-11 shrink-0 items-center pl-3">
          <span className="min-w-0 truncate">{line}</span>
          <span className="grow" />
          {tools}
        </header>
      )}
      <div className="flex min-h-0 min-w-0 grow flex-col">{children}</div>
      {!line && (
        <div className={`flex shrink-0 flex-col gap-2 p-1.5 ${beside ? "w-46" : "w-13"}`}>
          {beside && <div className="flex min-h-0 flex-col gap-3 overflow-y-auto">{beside}</div>}
          <span className="grow" />
          <div className="flex flex-wrap justify-end">{tools}</div>
        </div>
      )}
    </Panel>
  );
}

function Save({ title, name, svg }: Pick<Props, "title" | "name" | "svg">) {
  const save = (way: (svg: SVGSVGElement, name: string) => void) => () => svg.current && way(svg.current, name);
  const item = "flex h-10 cursor-pointer items-center gap-2 rounded-[5px] px-3 outline-none data-highlighted:bg-sunk";
  return (
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
  );
}
