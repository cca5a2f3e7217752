// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { Later } from "./Later.tsx";

afterEach(cleanup);

describe("what comes later", () => {
  const page = (
    <p>
      at once
      <Later>
        <span>and this</span>
      </Later>
    </p>
  );

  it("is not there while the frame of what stands around it is laid out, and then it is", async () => {
    const inTheFrame: boolean[] = [];
    render(page);
    // Asked for after it has asked: the last to run before the frame is laid out.
    await new Promise<void>((resolve) =>
      requestAnimationFrame(() => {
        inTheFrame.push(screen.queryByText("and this") !== null);
        resolve();
      }),
    );
    expect(screen.getByText("at once")).toBeDefined();
    expect(inTheFrame).toEqual([false]);
    expect(await screen.findByText("and this")).toBeDefined();
  });

  it("asks for nothing any more once its page is left", () => {
    const cancel = vi.spyOn(globalThis, "cancelAnimationFrame");
    const { unmount } = render(page);
    unmount();
    expect(cancel).toHaveBeenCalledOnce();
    cancel.mockRestore();
  });
});
