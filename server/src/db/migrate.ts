import { fileURLToPath } from "node:url";
import { runner } from "node-pg-migrate";

/** Brings a database to the newest numbered migration; safe when several servers start at once (advisory lock). */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const done = await runner({
    databaseUrl,
    dir: fileURLToPath(new URL("../../migrations/", import.meta.url)),
    direction: "up",
    migrationsTable: "migration",
    checkOrder: true,
    // who comes second waits, and finds nothing left to do
    advisoryLockMode: "wait",
    log: () => undefined,
  });
  return done.map((m) => m.name);
}
