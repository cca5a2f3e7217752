/** Workers that do nothing but remember what they were asked, and that they were ended. */
export class StandInWorker extends EventTarget {
  static all: StandInWorker[] = [];
  readonly asked: string[] = [];
  ended = false;

  constructor() {
    super();
    StandInWorker.all.push(this);
  }

  /** @param message as the page's proxies send it */
  postMessage(message: { path?: string[] }): void {
    this.asked.push(...(message.path ?? []));
  }

  terminate(): void {
    this.ended = true;
  }
}
