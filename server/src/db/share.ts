import { AsyncLocalStorage } from "node:async_hooks";
import { AppError } from "@kobbin/core";

/** Whose work is being done, for what is shared out per person. */
export const person = new AsyncLocalStorage<string>();

/** How much of something may be in use at a time. */
export interface ShareLimits {
  readonly inAll: number;
  readonly perShop: number;
  readonly perPerson: number;
  /** How long one waits for its turn. */
  readonly waitMs: number;
  /** How many of one shop may wait. */
  readonly mostWaiting: number;
}

interface Waiting {
  readonly shop: string;
  readonly who: string | undefined;
  readonly go: (release: () => void) => void;
}

/** Shares something out: no shop and no person has all of it, and who waits longest among the shops goes first. */
export interface Share {
  /**
   * @returns gives it back; calling it twice does nothing more
   * @throws AppError BUSY when the turn does not come in time, or too many of the shop wait already
   */
  take(shop: string): Promise<() => void>;
  /** How many are in use. */
  readonly used: number;
}

export function createShare(limits: ShareLimits): Share {
  const byShop = new Map<string, number>();
  const byPerson = new Map<string, number>();
  let used = 0;
  const queue: Waiting[] = [];
  const add = (map: Map<string, number>, key: string | undefined, n: number) => {
    if (key === undefined) return;
    const now = (map.get(key) ?? 0) + n;
    if (now > 0) map.set(key, now);
    else map.delete(key);
  };
  const mayGo = (shop: string, who: string | undefined) =>
    used < limits.inAll &&
    (byShop.get(shop) ?? 0) < limits.perShop &&
    (who === undefined || (byPerson.get(who) ?? 0) < limits.perPerson);
  const give = (shop: string, who: string | undefined): (() => void) => {
    used++;
    add(byShop, shop, 1);
    add(byPerson, who, 1);
    let isBack = false;
    return () => {
      if (isBack) return;
      isBack = true;
      used--;
      add(byShop, shop, -1);
      add(byPerson, who, -1);
      next();
    };
  };
  const next = () => {
    while (used < limits.inAll) {
      // the shop that has least of it goes first, then who came first
      let best = -1;
      let least = Number.POSITIVE_INFINITY;
      for (let i = 0; i < queue.length; i++) {
        const { shop, who } = queue[i]!;
        const has = byShop.get(shop) ?? 0;
        if (has < least && mayGo(shop, who)) {
          best = i;
          least = has;
        }
      }
      if (best < 0) return;
      const [w] = queue.splice(best, 1);
      w!.go(give(w!.shop, w!.who));
    }
  };
  return {
    take(shop) {
      const who = person.getStore();
      if (mayGo(shop, who)) return Promise.resolve(give(shop, who));
      if (queue.filter((w) => w.shop === shop).length >= limits.mostWaiting) return Promise.reject(busy());
      return new Promise((resolve, reject) => {
        const w: Waiting = {
          shop,
          who,
          go: (release) => {
            clearTimeout(late);
            resolve(release);
          },
        };
        const late = setTimeout(() => {
          const i = queue.indexOf(w);
          if (i >= 0) queue.splice(i, 1);
          reject(busy());
        }, limits.waitMs);
        // who only waits keeps no process alive
        late.unref();
        queue.push(w);
      });
    },
    get used() {
      return used;
    },
  };
}

const busy = () =>
  new AppError(
    "BUSY",
    "Too much is asked for at once; this had to wait too long and was not done.",
    "Nothing was changed. It is tried again by itself; or try again in a moment.",
  );
