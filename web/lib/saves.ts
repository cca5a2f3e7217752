/** Saves that go on after their page was left, by part: a plan is not read again before they are through. */
const underWay = new Map<string, Promise<unknown>>();

export function saveUnderWay(partId: string): Promise<unknown> {
  return underWay.get(partId) ?? Promise.resolve();
}

export function noteSave(partId: string, save: Promise<unknown>): void {
  const done = save.catch(() => undefined);
  underWay.set(partId, done);
  void done.then(() => underWay.get(partId) === done && underWay.delete(partId));
}
