// The database an installation uses: the one DATABASE_URL names, or the private one of this clone.
import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import { ROOT } from "./setup.mjs";

/**
 * @param data the folder given by --data, or nothing
 * @returns the address as the server signs in, the address as the owner, and a function that leaves things as they were found
 */
export async function openDatabase(data) {
  const { DATABASE_URL, MIGRATION_URL } = process.env;
  if (DATABASE_URL) {
    if (!MIGRATION_URL)
      throw new Error(
        "MIGRATION_URL is missing: the address of the database as its owner, beside DATABASE_URL.",
      );
    return { url: DATABASE_URL, ownerUrl: MIGRATION_URL, close: () => undefined };
  }
  const { dataFolder, ensureDatabase, startCluster } = await import("./cluster.mjs");
  const folder = dataFolder(ROOT, data ? resolve(data) : undefined);
  if (!existsSync(join(folder, "pg", "PG_VERSION")) && !process.env.KOBBIN_MAY_CREATE)
    throw new Error(
      `There is no database in ${folder} yet, and DATABASE_URL is not set. Start Kobbin once, or name the database.`,
    );
  const cluster = await startCluster(folder);
  await ensureDatabase(cluster.url, "kobbin");
  return { url: cluster.appUrl("kobbin"), ownerUrl: cluster.ownerUrl("kobbin"), close: cluster.stop };
}
