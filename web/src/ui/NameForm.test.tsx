// @vitest-environment jsdom
import { act } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { NameForm } from "./NameForm";

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

describe("a name that is asked for by a press", () => {
  let box: HTMLElement;
  let root: Root;
  const named: string[] = [];
  const field = () => box.querySelector("input");
  const press = (text: string) =>
    act(async () =>
      [...box.querySelectorAll("button")].find((b) => b.textContent === text)?.dispatchEvent(new MouseEvent("click", { bubbles: true })),
    );
  const type = (text: string) =>
    act(async () => {
      const input = field() as HTMLInputElement;
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, text);
      input.dispatchEvent(new Event("input", { bubbles: true }));
    });

  beforeEach(async () => {
    named.length = 0;
    box = document.body.appendChild(document.createElement("div"));
    root = createRoot(box);
    await act(async () => root.render(<NameForm ask="Keep it…" label="Name" submit="Keep" first="Found" onName={(n) => named.push(n)} />));
  });

  afterEach(async () => {
    await act(async () => root.unmount());
    box.remove();
  });

  it("begins with the one it has, and is told without the blanks around it", async () => {
    expect(field()).toBeNull();
    await press("Keep it…");
    expect(field()?.value).toBe("Found");
    await type("  Summer ");
    await press("Keep");
    expect([named, field()]).toEqual([["Summer"], null]);
  });

  it("is not kept empty, and Escape takes it back", async () => {
    await press("Keep it…");
    await type("   ");
    expect([...box.querySelectorAll("button")].find((b) => b.textContent === "Keep")?.disabled).toBe(true);
    await act(async () => field()?.dispatchEvent(new KeyboardEvent("keydown", { key: "Escape", bubbles: true })));
    expect([named, field()]).toEqual([[], null]);
  });
});
