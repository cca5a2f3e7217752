/** Who is told what happens on the stage: any number of parts of the page at once. */
import type { StageListeners } from "./Stage.ts";

/** What is done on the stage by hand. */
export type StageHappenings = Omit<StageListeners, "onMissing">;
export type StageHappening = keyof StageHappenings;

export class StageListening {
  private readonly listeners = new Map<StageHappening, Set<(...args: never[]) => void>>();

  /** @returns what ends the listening */
  listen<K extends StageHappening>(to: K, listener: StageHappenings[K]): () => void {
    const all = this.listeners.get(to) ?? new Set();
    this.listeners.set(to, all);
    all.add(listener);
    return () => {
      all.delete(listener);
    };
  }

  tell<K extends StageHappening>(of: K, ...args: Parameters<StageHappenings[K]>): void {
    for (const listener of [...(this.listeners.get(of) ?? [])]) (listener as (...given: unknown[]) => void)(...args);
  }
}
