/** Progress is told this often at most: whenever it is told the page is painted, which is felt where that is done by the processor. */
const PROGRESS_MS = 250;

/** Tells at once, and then only what comes when some time has passed. */
export function seldom<A extends unknown[]>(tell: (...told: A) => void): (...told: A) => void {
  let lastMs = -Infinity;
  return (...told) => {
    const nowMs = performance.now();
    if (nowMs - lastMs < PROGRESS_MS) return;
    lastMs = nowMs;
    tell(...told);
  };
}
