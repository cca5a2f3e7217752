import { type ReactNode, useEffect, useState } from "react";

/** Shows its children a frame after what stands around it: a page that opens is laid out part by part, not all in one task. */
export function Later({ children }: { children: ReactNode }) {
  const [due, setDue] = useState(false);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    // The frame's own callbacks run before it is laid out: only a task after them is behind it.
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setDue(true));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, []);
  return due ? children : null;
}
