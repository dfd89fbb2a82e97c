import pg from "pg";

/** A word from the database: a change that is through, figures that are new, somebody who came or went. */
export interface LiveEvent {
  readonly kind: "change" | "figures" | "asking" | "presence" | "restoring" | "resync" | "left";
  readonly workshop?: string;
  readonly [key: string]: unknown;
}

/** Hears PostgreSQL's notifications once for the whole process and hands them on; so it works across several servers. */
export interface Hub {
  /** @returns a function that ends the subscription */
  subscribe(hear: (event: LiveEvent) => void): () => void;
  close(): Promise<void>;
}

/** Does something after a while. @returns a function that takes it back */
type Later = (ms: number, act: () => void) => () => void;
const later: Later = (ms, act) => {
  const timer = setTimeout(act, ms);
  return () => clearTimeout(timer);
};

/** The first wait before it is tried again, and the longest; each is twice the one before. */
const FIRST_WAIT_MS = 200;
const LONGEST_WAIT_MS = 5000;

/** Connects, and connects again after a loss; then everybody is told to look for themselves (resync). */
export function createHub(
  databaseUrl: string,
  log: (entry: Record<string, unknown>) => void,
  wait = later,
): Hub {
  const hearers = new Set<(event: LiveEvent) => void>();
  let client: pg.Client | undefined;
  let isClosed = false;
  let stopWaiting: (() => void) | undefined;
  let waitMs = FIRST_WAIT_MS;
  const tellAll = (event: LiveEvent) => {
    for (const hear of hearers) hear(event);
  };
  const again = () => {
    if (isClosed || stopWaiting) return;
    stopWaiting = wait(waitMs, () => {
      stopWaiting = undefined;
      void connect();
    });
    waitMs = Math.min(LONGEST_WAIT_MS, waitMs * 2);
  };
  const connect = async () => {
    const next = new pg.Client({ connectionString: databaseUrl, application_name: "kobbin live" });
    client = next;
    next.on("error", (error) => {
      if (isClosed) return;
      log({ level: "warning", message: `live connection lost: ${error.message}` });
      next.end().catch(() => undefined);
      again();
    });
    next.on("notification", (n) => {
      try {
        tellAll(JSON.parse(n.payload ?? "") as LiveEvent);
      } catch {
        log({ level: "warning", message: "a notification was no JSON" });
      }
    });
    try {
      await next.connect();
      await next.query("listen kobbin");
      waitMs = FIRST_WAIT_MS;
      tellAll({ kind: "resync" });
    } catch (error) {
      if (!isClosed)
        log({ level: "warning", message: `live connection failed: ${(error as Error).message}` });
      next.end().catch(() => undefined);
      again();
    }
  };
  void connect();
  return {
    subscribe(hear) {
      hearers.add(hear);
      return () => hearers.delete(hear);
    },
    async close() {
      isClosed = true;
      stopWaiting?.();
      await client?.end().catch(() => undefined);
    },
  };
}
