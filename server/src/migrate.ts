// Brings the database forward, as its owner: MIGRATION_URL=… node server/dist/migrate.js
import { migrate } from "./db/migrate.ts";

const url = process.env.MIGRATION_URL;
if (!url) {
  process.stderr.write("MIGRATION_URL is missing: the address of the database as its owner.\n");
  process.exit(2);
}
try {
  const done = await migrate(url);
  process.stdout.write(
    done.length === 0 ? "the database is at the newest step\n" : `brought forward by ${done.join(", ")}\n`,
  );
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}
