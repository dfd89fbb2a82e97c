import type { Config } from "../config.ts";
import type { Pool } from "../db/pool.ts";
import type { Hub } from "../live/hub.ts";
import type { Compute } from "./pool.ts";

/** What the worker needs; the same parts the server has. */
export interface WorkerDeps {
  readonly pool: Pool;
  readonly compute: Compute;
  readonly hub: Hub;
  readonly config: Pick<Config, "standInsUrl" | "feedRetryMs" | "orderLookMs">;
  readonly log: (entry: Record<string, unknown>) => void;
  readonly today: () => string;
  readonly patienceMs?: number;
}
