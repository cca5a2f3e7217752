/**
 * What a person does on the stage's canvas, carried to the thread that draws it. The canvas stands in the page, its
 * picture is drawn elsewhere: `forwardInput` reads the events on the page, `InputElement` gives them out again to
 * whoever listens as if it were the canvas.
 */

/** What is read off an event; places are in px from the canvas's upper left corner. */
export interface CarriedEvent {
  readonly type: string;
  readonly clientX: number;
  readonly clientY: number;
  readonly pageX: number;
  readonly pageY: number;
  readonly pointerId: number;
  readonly pointerType: string;
  readonly button: number;
  readonly buttons: number;
  readonly deltaX: number;
  readonly deltaY: number;
  readonly deltaMode: number;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
  readonly key: string;
}

/** Keys that the stage answers; the others are the page's. */
const STAGE_KEYS = new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "+", "=", "-", "p", "Control"]);
const POINTER_EVENTS = ["pointerdown", "pointerup", "pointercancel"] as const;

function carried(event: PointerEvent | WheelEvent | KeyboardEvent, canvas: HTMLCanvasElement): CarriedEvent {
  const { left, top } = canvas.getBoundingClientRect();
  const some = event as Partial<PointerEvent & WheelEvent & KeyboardEvent>;
  const clientX = (some.clientX ?? 0) - left;
  const clientY = (some.clientY ?? 0) - top;
  return {
    type: event.type,
    clientX,
    clientY,
    pageX: clientX,
    pageY: clientY,
    pointerId: some.pointerId ?? 0,
    pointerType: some.pointerType ?? "",
    button: some.button ?? 0,
    buttons: some.buttons ?? 0,
    deltaX: some.deltaX ?? 0,
    deltaY: some.deltaY ?? 0,
    deltaMode: some.deltaMode ?? 0,
    ctrlKey: event.ctrlKey,
    metaKey: event.metaKey,
    shiftKey: event.shiftKey,
    key: some.key ?? "",
  };
}

/**
 * @param send hands an event over; resolves once it was answered. Moves are handed over one at a time, the last one
 * standing for those before it, so that a slow drawing never lags behind the finger.
 */
export function forwardInput(canvas: HTMLCanvasElement, send: (event: CarriedEvent) => Promise<void>): void {
  let waiting: CarriedEvent | null = null;
  let moving = false;
  const move = async (event: CarriedEvent): Promise<void> => {
    waiting = event;
    if (moving) return;
    moving = true;
    while (waiting) {
      const next: CarriedEvent = waiting;
      waiting = null;
      await send(next);
    }
    moving = false;
  };
  for (const type of POINTER_EVENTS) {
    canvas.addEventListener(type, (event) => {
      // What follows of this press is the stage's, wherever the pointer goes.
      if (type === "pointerdown") canvas.setPointerCapture(event.pointerId);
      if (waiting) void send(waiting);
      waiting = null;
      void send(carried(event, canvas));
    });
  }
  canvas.addEventListener("pointermove", (event) => void move(carried(event, canvas)));
  canvas.addEventListener("wheel", (event) => {
    event.preventDefault();
    void send(carried(event, canvas));
  });
  canvas.addEventListener("contextmenu", (event) => event.preventDefault());
  canvas.addEventListener("keydown", (event) => {
    if (!STAGE_KEYS.has(event.key)) return;
    if (event.key !== "Control") event.preventDefault();
    void send(carried(event, canvas));
  });
  canvas.addEventListener("keyup", (event) => void (STAGE_KEYS.has(event.key) && send(carried(event, canvas))));
}

/** Stands for the canvas on the thread that draws: as much of an element as the camera's controls and the pointer ask. */
export class InputElement extends EventTarget {
  readonly style: Record<string, string> = {};
  clientWidth = 1;
  clientHeight = 1;

  resize(width: number, height: number): void {
    this.clientWidth = width;
    this.clientHeight = height;
  }

  getBoundingClientRect(): { left: number; top: number; width: number; height: number } {
    return { left: 0, top: 0, width: this.clientWidth, height: this.clientHeight };
  }

  get ownerDocument(): this {
    return this;
  }

  getRootNode(): this {
    return this;
  }

  // The page takes hold of the pointer.
  setPointerCapture(): void {}
  releasePointerCapture(): void {}

  give({ type, ...event }: CarriedEvent): void {
    this.dispatchEvent(Object.assign(new Event(type), event));
  }
}
