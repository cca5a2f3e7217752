/** What a browser knows of layout and a test without one does not: nothing has a size, nothing is scrolled. */
import { vi } from "vitest";

class NoObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}

export function withoutLayout(): void {
  vi.stubGlobal("ResizeObserver", NoObserver);
  vi.stubGlobal("CSS", { escape: (text: string) => text });
  Element.prototype.scrollIntoView = () => {};
}
