import type { Config } from "./config.ts";
import type { Pool } from "./db/pool.ts";
import type { Compute } from "./jobs/pool.ts";

/** What routes need, made once in main. */
export interface Deps {
  readonly pool: Pool;
  readonly compute: Compute;
  readonly config: Config;
  readonly log: (entry: Record<string, unknown>) => void;
  /** Today as an ISO date; an argument so that tests choose it. */
  readonly today: () => string;
}
