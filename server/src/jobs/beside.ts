import { createShare, type ShareLimits } from "../db/share.ts";

/** Work that mostly waits for others: each piece by itself beside the rest, and no shop has all the room. */
export interface Beside {
  /**
   * Begins a piece of work when there is room for its shop; one that is begun or waits already is not started twice.
   * @param work false where there was nothing to do
   * @param onEnd called when it is over, however it ended, and whether anything was done
   */
  start(
    key: string,
    shop: string,
    work: () => Promise<boolean | undefined>,
    onEnd: (error?: Error, done?: boolean) => void,
  ): void;
  /** Ends when nothing is begun any more. What only waits for room is let go, and stays on its list. */
  stop(): Promise<void>;
}

export function createBeside(limits: Pick<ShareLimits, "inAll" | "perShop">): Beside {
  const share = createShare({ ...limits, perPerson: limits.perShop, waitMs: 120_000, mostWaiting: 50 });
  const begun = new Map<string, Promise<void>>();
  let isStopping = false;
  const run = async (shop: string, work: () => Promise<boolean | undefined>): Promise<boolean> => {
    let release: () => void;
    try {
      release = await share.take(shop);
    } catch {
      // its turn did not come: the list has it still
      return false;
    }
    try {
      return !isStopping && (await work()) !== false;
    } finally {
      release();
    }
  };
  return {
    start(key, shop, work, onEnd) {
      if (isStopping || begun.has(key)) return;
      const over = (error?: Error, done?: boolean) => {
        begun.delete(key);
        onEnd(error, done);
      };
      begun.set(
        key,
        run(shop, work).then((done) => over(undefined, done), over),
      );
    },
    async stop() {
      isStopping = true;
      await Promise.all(begun.values());
    },
  };
}
