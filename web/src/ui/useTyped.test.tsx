// @vitest-environment jsdom
import { act } from "react";
import { createRoot } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { QuantityField } from "./QuantityField";
import { useTyped } from "./useTyped";

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

interface Board {
  widthM: number;
  heightM: number;
}

// What the server has been asked to read and has not answered yet, by text.
const asked: { text: string; answer(value: number): void; refuse(why: string): void }[] = [];

function later(request: Request): Promise<Response> {
  return new Promise((resolve) => {
    void request.json().then(({ text }) =>
      asked.push({
        text,
        answer: (value) => resolve(Response.json({ value, printed: `${value} m` })),
        refuse: (why) => resolve(Response.json({ title: "no", errors: { text: [why] } }, { status: 400 })),
      }),
    );
  });
}

let whole: () => Promise<Board>;

function Form() {
  const typed = useTyped<Board>({ widthM: 1, heightM: 0.6 });
  whole = typed.whole;
  return (["widthM", "heightM"] as const).map((field) => (
    <QuantityField
      key={field}
      label={field}
      value={typed.value[field]}
      quantity="length"
      most={5}
      onCommit={(value) => typed.change({ [field]: value })}
    />
  ));
}

describe("fields that are put together before they are kept", () => {
  const place = document.createElement("div");
  let root: ReturnType<typeof createRoot>;

  const field = (n: number) => place.querySelectorAll("input")[n] as HTMLInputElement;
  async function type(n: number, text: string) {
    await act(async () => {
      const input = field(n);
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, text);
      input.dispatchEvent(new Event("input", { bubbles: true }));
    });
    await act(async () => void field(n).dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true })));
    await act(async () => void field(n).dispatchEvent(new FocusEvent("focusout", { bubbles: true })));
  }

  beforeEach(async () => {
    asked.length = 0;
    vi.stubGlobal("fetch", later);
    document.body.append(place);
    root = createRoot(place);
    await act(async () => root.render(<Form />));
  });
  afterEach(async () => {
    await act(async () => root.unmount());
    vi.unstubAllGlobals();
  });

  it("keeps both of two that are read at once, whichever is answered first, and asks once for each", async () => {
    await type(0, "60 cm");
    await type(1, "2 m");
    expect(asked.map((a) => a.text)).toEqual(["60 cm", "2 m"]);
    const pressed = whole();
    await act(async () => {
      asked[1]?.answer(2);
      asked[0]?.answer(0.6);
      await pressed;
    });
    expect(await pressed).toEqual({ widthM: 0.6, heightM: 2 });
  });

  it("leaves what is typed meanwhile, and reads it in its turn", async () => {
    await type(0, "60 cm");
    await type(0, "70 cm");
    await act(async () => asked[0]?.answer(0.6));
    expect(field(0).value).toBe("70 cm");
    await act(async () => {
      asked[1]?.answer(0.7);
      await whole();
    });
    expect(await whole()).toEqual({ widthM: 0.7, heightM: 0.6 });
  });

  it("keeps what is typed while the program does not answer, and reads it once it does", async () => {
    vi.useFakeTimers();
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("away")));
    await type(0, "60 cm");
    await act(async () => void (await vi.advanceTimersByTimeAsync(10)));
    expect([field(0).value, place.querySelector("[role=alert]")?.textContent]).toEqual(["60 cm", "kept until the program answers"]);
    vi.stubGlobal("fetch", later);
    await act(async () => void (await vi.advanceTimersByTimeAsync(2000)));
    await act(async () => {
      asked[0]?.answer(0.6);
      await vi.advanceTimersByTimeAsync(10);
    });
    vi.useRealTimers();
    expect(await whole()).toEqual({ widthM: 0.6, heightM: 0.6 });
  });

  it("leaves what is refused as it was, says why at the field, and keeps the text", async () => {
    await type(0, "60 stones");
    const pressed = whole();
    await act(async () => {
      asked[0]?.refuse("that is no length");
      await pressed;
    });
    expect(await pressed).toEqual({ widthM: 1, heightM: 0.6 });
    expect(field(0).value).toBe("60 stones");
    expect(place.querySelector("[role=alert]")?.textContent).toBe("that is no length");
    await type(0, "6 m");
    await act(async () => {
      asked[1]?.answer(6);
      await whole();
    });
    expect(place.querySelector("[role=alert]")?.textContent).toMatch(/at most/);
  });
});
