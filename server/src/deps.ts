import type { PassThrough } from "node:stream";
import type { Config } from "./config.ts";
import type { Pool } from "./db/pool.ts";
import type { Compute } from "./jobs/pool.ts";
import type { Hub } from "./live/hub.ts";
import type { RequestLimits } from "./middleware/limits.ts";

/** What routes need, made once in main. */
export interface Deps {
  readonly pool: Pool;
  readonly compute: Compute;
  readonly config: Config;
  readonly log: (entry: Record<string, unknown>) => void;
  /** Today as an ISO date; an argument so that tests choose it. */
  readonly today: () => string;
  /** This moment; the machine's own where left out. */
  readonly now?: () => Date;
  /** What the database says to everybody. */
  readonly hub: Hub;
  /** Open event streams; they end before the server stops. */
  readonly live: Set<PassThrough>;
  /** How fast a person may ask, where it is otherwise than usual: whoever tries the server sends more than a person. */
  readonly limits?: RequestLimits;
  /** How often an open stream looks whether it may still be open; a quarter of a minute. */
  readonly beatMs?: number;
  /** How long a supplier or a house is waited for that is asked something; some seconds. */
  readonly patienceMs?: number;
  /** Gives a demo shop its life: runs that were built, and some that are. Left out where a shop before its first run is wanted. */
  readonly fillLife?: (
    deps: Deps,
    by: { readonly workshopId: string; readonly accountId: string; readonly person: string },
  ) => Promise<void>;
  /** True once the process was told to stop. */
  readonly isStopping?: () => boolean;
}
