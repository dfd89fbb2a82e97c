/**
 * Work by key, one after another: who asks while one is under way shares the one that begins after it. What is given was
 * begun after it was asked for, and none is overtaken by a later one.
 */
export function oneAfterAnother<T>(work: (key: string) => Promise<T>): (key: string) => Promise<T> {
  const going = new Map<string, Promise<T>>();
  const waiting = new Map<string, Promise<T>>();
  const begin = (key: string): Promise<T> => {
    const p = work(key).finally(() => {
      if (going.get(key) === p) going.delete(key);
    });
    going.set(key, p);
    return p;
  };
  return (key) => {
    const now = going.get(key);
    if (!now) return begin(key);
    const shared = waiting.get(key);
    if (shared) return shared;
    const next = now
      .catch(() => undefined)
      .then(() => {
        waiting.delete(key);
        return begin(key);
      });
    waiting.set(key, next);
    return next;
  };
}
