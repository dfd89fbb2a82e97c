import { setTimeout } from "node:timers/promises";
import pg from "pg";
import { isAway } from "../db/away.ts";

/**
 * The queue's own connection. The queue does not wait for its last word on a job, and would take the process with it
 * when the database is gone at that moment; so a statement is tried again until the database is back.
 */
export function patientDb(
  databaseUrl: string,
  onWait: (error: Error) => void,
  pause: (ms: number) => Promise<unknown> = setTimeout,
) {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 3, application_name: "kobbin jobs" });
  pool.on("error", () => undefined);
  let isClosing = false;
  /** An answer the queue takes for nothing done: most of its last words ask how many jobs they touched. */
  const nothing = (text: string) => ({ rows: /count\s*\(/i.test(text) ? [{ count: "0" }] : [] });
  return {
    // biome-ignore lint/suspicious/noExplicitAny: the queue's own type of its connection
    async executeSql(text: string, values: any[]): Promise<{ rows: any[] }> {
      // the queue may have a last word after it was stopped: the job's expiry says it then, and it is done again
      if (isClosing) return nothing(text);
      for (let waitMs = 200; ; waitMs = Math.min(2000, waitMs * 2)) {
        try {
          return await pool.query(text, values);
        } catch (error) {
          if (isClosing) return nothing(text);
          if (!isAway(error)) throw error;
          onWait(error as Error);
          await pause(waitMs);
        }
      }
    },
    async close(): Promise<void> {
      isClosing = true;
      await pool.end().catch(() => undefined);
    },
  };
}
