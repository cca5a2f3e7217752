/** A call as the page's proxies send it. */
export interface ProxyMessage {
  readonly path?: string[];
  readonly argumentList?: readonly { readonly value: unknown }[];
}

/** Workers that do nothing but remember what they were asked, and that they were ended. */
export class StandInWorker extends EventTarget {
  static all: StandInWorker[] = [];
  readonly asked: string[] = [];
  readonly messages: ProxyMessage[] = [];
  ended = false;

  constructor() {
    super();
    StandInWorker.all.push(this);
  }

  /** @param message as the page's proxies send it */
  postMessage(message: ProxyMessage): void {
    this.messages.push(message);
    this.asked.push(...(message.path ?? []));
  }

  terminate(): void {
    this.ended = true;
  }
}
