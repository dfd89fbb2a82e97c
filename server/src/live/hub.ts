import pg from "pg";

/** A word from the database: a change that is through, figures that are new, somebody who came or went. */
export interface LiveEvent {
  readonly kind: "change" | "figures" | "asking" | "presence" | "resync" | "left";
  readonly workshop?: string;
  readonly [key: string]: unknown;
}

/** Hears PostgreSQL's notifications once for the whole process and hands them on; so it works across several servers. */
export interface Hub {
  /** @returns a function that ends the subscription */
  subscribe(hear: (event: LiveEvent) => void): () => void;
  close(): Promise<void>;
}

/** Connects, and connects again after a loss; then everybody is told to look for themselves (resync). */
export function createHub(databaseUrl: string, log: (entry: Record<string, unknown>) => void): Hub {
  const hearers = new Set<(event: LiveEvent) => void>();
  let client: pg.Client | undefined;
  let isClosed = false;
  let timer: NodeJS.Timeout | undefined;
  let waitMs = 200;
  const tellAll = (event: LiveEvent) => {
    for (const hear of hearers) hear(event);
  };
  const again = () => {
    if (isClosed || timer) return;
    timer = setTimeout(() => {
      timer = undefined;
      void connect();
    }, waitMs);
    waitMs = Math.min(5000, waitMs * 2);
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
      waitMs = 200;
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
      clearTimeout(timer);
      await client?.end().catch(() => undefined);
    },
  };
}
