// @vitest-environment jsdom
import { describe, expect, it, vi } from "vitest";
import { type CarriedEvent, forwardInput, InputElement } from "./input.ts";

/** A canvas at a place on the page, with what it forwards; every answer is given by hand. */
function forwarding() {
  const canvas = document.createElement("canvas");
  canvas.getBoundingClientRect = () => new DOMRect(100, 50, 800, 600);
  canvas.setPointerCapture = vi.fn();
  const sent: CarriedEvent[] = [];
  const answers: (() => void)[] = [];
  forwardInput(canvas, (event) => {
    sent.push(event);
    return new Promise((resolve) => answers.push(resolve));
  });
  const pointer = (type: string, x: number, y: number) =>
    canvas.dispatchEvent(Object.assign(new MouseEvent(type, { clientX: x, clientY: y }), { pointerId: 7 }));
  return { canvas, sent, answers, pointer };
}

describe("what is done on the canvas", () => {
  it("is told in places on the canvas, and a press keeps its pointer", () => {
    const { canvas, sent, pointer } = forwarding();
    pointer("pointerdown", 130, 90);
    expect(sent).toMatchObject([{ type: "pointerdown", clientX: 30, clientY: 40, pageX: 30, pageY: 40, pointerId: 7 }]);
    expect(canvas.setPointerCapture).toHaveBeenCalledWith(7);
  });

  it("is told move by move as they are answered, the last for those before it", async () => {
    const { sent, answers, pointer } = forwarding();
    for (const x of [110, 120, 130, 140]) pointer("pointermove", x, 60);
    expect(sent.map(({ clientX }) => clientX)).toEqual([10]);
    answers[0]();
    await vi.waitFor(() => expect(sent.map(({ clientX }) => clientX)).toEqual([10, 40]));
  });

  it("loses no move before the finger is lifted", () => {
    const { sent, pointer } = forwarding();
    pointer("pointermove", 110, 60);
    pointer("pointermove", 150, 60);
    pointer("pointerup", 150, 60);
    expect(sent.map(({ type, clientX }) => [type, clientX])).toEqual([
      ["pointermove", 10],
      ["pointermove", 50],
      ["pointerup", 50],
    ]);
  });

  it("takes only the keys the stage answers from the page", () => {
    const { canvas, sent } = forwarding();
    const press = (key: string) => {
      const event = new KeyboardEvent("keydown", { key, cancelable: true });
      canvas.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(press("ArrowLeft")).toBe(true);
    expect(press("Tab")).toBe(false);
    expect(sent.map(({ key }) => key)).toEqual(["ArrowLeft"]);
  });

  it("does not scroll the page or open its menu", () => {
    const { canvas, sent } = forwarding();
    const wheel = new WheelEvent("wheel", { deltaY: 120, cancelable: true });
    const menu = new MouseEvent("contextmenu", { cancelable: true });
    canvas.dispatchEvent(wheel);
    canvas.dispatchEvent(menu);
    expect([wheel.defaultPrevented, menu.defaultPrevented]).toEqual([true, true]);
    expect(sent).toMatchObject([{ type: "wheel", deltaY: 120 }]);
  });
});

describe("the element that stands for the canvas", () => {
  it("gives out what was carried to whoever listens on it or on its document", () => {
    const { sent, pointer } = forwarding();
    pointer("pointerdown", 130, 90);
    const element = new InputElement();
    element.resize(800, 600);
    const heard: unknown[] = [];
    element.addEventListener("pointerdown", (event) => heard.push((event as PointerEvent).clientX));
    element.ownerDocument.addEventListener("pointerdown", (event) => heard.push((event as PointerEvent).pointerId));
    element.give(sent[0]);
    expect(heard).toEqual([30, 7]);
    expect(element.getBoundingClientRect()).toEqual({ left: 0, top: 0, width: 800, height: 600 });
  });
});
