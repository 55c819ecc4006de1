import type { Page } from "@playwright/test";

/** Texts and controls at rest that lie on one another, or that stick out of the page at its side, as words. */
export const overlaps = (page: Page) =>
  page.evaluate(() => {
    interface Box {
      what: string;
      element: Element;
      control: boolean;
      left: number;
      top: number;
      right: number;
      bottom: number;
    }
    const boxes: Box[] = [];
    const css = new Map<Element, CSSStyleDeclaration>();
    const styleOf = (e: Element) => {
      const style = css.get(e) ?? getComputedStyle(e);
      css.set(e, style);
      return style;
    };
    // What is seen of a box: no more than each part of the page around it lets through.
    const add = (element: Element, rect: DOMRect, what: string, control: boolean, trim: [number, number]) => {
      if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return;
      const box = { left: rect.left + trim[0], right: rect.right - trim[0], top: rect.top + trim[1], bottom: rect.bottom - trim[1] };
      for (let e: Element | null = element; e; e = e.parentElement) {
        const style = styleOf(e);
        if (style.clipPath === "inset(50%)") return;
        if ((control && e === element) || e === document.documentElement || e === document.body) continue;
        if (style.overflowX === "visible" && e.tagName !== "svg") continue;
        const out = e.getBoundingClientRect();
        box.left = Math.max(box.left, out.left);
        box.right = Math.min(box.right, out.right);
        box.top = Math.max(box.top, out.top);
        box.bottom = Math.min(box.bottom, out.bottom);
      }
      if (box.right - box.left > 3 && box.bottom - box.top > 3) boxes.push({ what, element, control, ...box });
    };
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    while (walker.nextNode()) {
      const node = walker.currentNode;
      const parent = node.parentElement;
      if (!node.textContent?.trim() || !parent || parent.closest("title, option, script, style")) continue;
      range.selectNodeContents(node);
      const drawn = parent.closest("svg") !== null;
      for (const rect of range.getClientRects())
        add(parent, rect, `“${node.textContent.trim().slice(0, 40)}”`, false, drawn ? [2, 3] : [1, 3]);
    }
    for (const e of document.querySelectorAll("button, a[href], input, select, textarea, summary, [role=slider], [role=switch]")) {
      // A link in a sentence is its words; the room for a finger around it is not seen.
      if (e.closest("svg") || styleOf(e).display === "inline") continue;
      add(e, e.getBoundingClientRect(), `control ${e.getAttribute("aria-label") ?? e.textContent?.trim().slice(0, 30)}`, true, [2, 2]);
    }
    const found: string[] = [];
    const wide = document.documentElement.clientWidth;
    if (document.documentElement.scrollWidth > wide + 1) found.push(`the page is ${document.documentElement.scrollWidth} wide`);
    boxes.sort((a, b) => a.top - b.top);
    boxes.forEach((a, i) => {
      if (a.right > wide + 1 || a.left < -1) found.push(`${a.what} sticks out at the side`);
      for (let k = i + 1; k < boxes.length; k++) {
        const b = boxes[k] as Box;
        if (b.top >= a.bottom) break;
        if (a.left >= b.right || b.left >= a.right) continue;
        // A control holds its own words, a label its field; a slider's thumb lies on its track; what opens over all else is meant to.
        if (a.element === b.element || a.element.contains(b.element) || b.element.contains(a.element)) continue;
        found.push(`${a.what} on ${b.what}`);
      }
    });
    return [...new Set(found)];
  });

/** Names in drawings that a line (one of those of these names) passes through, as words. */
export const crossed = (page: Page, lines: string[]) =>
  page.evaluate((names) => {
    const found: string[] = [];
    const known = new Set(names);
    for (const svg of document.querySelectorAll("svg")) {
      const paths = [...svg.querySelectorAll<SVGPathElement>("path[data-name]")].filter((p) => known.has(p.dataset.name ?? ""));
      if (paths.length === 0) continue;
      const points = paths.flatMap((p) => {
        const to = p.getScreenCTM();
        const length = p.getTotalLength();
        return Array.from({ length: Math.ceil(length / 3) + 1 }, (_, i) => ({
          name: p.dataset.name,
          at: p.getPointAtLength(Math.min(length, i * 3)).matrixTransform(to ?? undefined),
        }));
      });
      for (const text of svg.querySelectorAll("[data-label] text")) {
        const box = text.getBoundingClientRect();
        const hit = points.find(({ at }) => at.x > box.left + 2 && at.x < box.right - 2 && at.y > box.top + 3 && at.y < box.bottom - 3);
        if (hit) found.push(`“${text.textContent}” on the line ${hit.name}`);
      }
    }
    return [...new Set(found)];
  }, lines);
