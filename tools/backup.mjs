// Writes workshops as archives.
//   npm run backup -- [--shop NAME] [--out FOLDER] [--data FOLDER]
import { createWriteStream, mkdirSync, renameSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import { openDatabase } from "./database.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, option } from "./setup.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const { createPool, writeBackup } = await import("../server/dist/index.js");
const out = resolve(option("--out") ?? ".");
const wanted = option("--shop");
let database;
let code = 0;
try {
  database = await openDatabase(option("--data"));
  const { default: pg } = await import("pg");
  // as the owner, who sees which workshops there are; each is then read as the server reads it
  const owner = new pg.Client({ connectionString: database.ownerUrl });
  await owner.connect();
  const { rows } = await owner.query(
    "select id, name from workshop where $1::text is null or name = $1 order by created_at",
    [wanted ?? null],
  );
  await owner.end();
  if (rows.length === 0)
    throw new Error(wanted ? `There is no shop called “${wanted}”.` : "There is no shop yet.");
  mkdirSync(out, { recursive: true });
  const pool = createPool(database.url);
  const used = new Set();
  for (const shop of rows) {
    const now = new Date();
    const slug =
      shop.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, "-")
        .replace(/^-|-$/g, "") || "shop";
    const base = `${slug}-${now.toISOString().slice(0, 10)}`;
    let name = base;
    for (let i = 2; used.has(name); i++) name = `${base}-${i}`;
    used.add(name);
    const path = join(out, `${name}.kobbin.zip`);
    // under another name until it is whole, so that a broken one is never taken for a backup
    const file = createWriteStream(`${path}.part`);
    try {
      const manifest = await writeBackup(
        pool,
        shop.id,
        (chunk) => new Promise((done, fail) => file.write(chunk, (e) => (e ? fail(e) : done()))),
        now,
      );
      await new Promise((done, fail) => file.end((e) => (e ? fail(e) : done())));
      renameSync(`${path}.part`, path);
      const count = Object.values(manifest.tables).reduce((a, b) => a + b, 0);
      console.log(`${shop.name}: ${path} (${count} rows, ${manifest.files} files)`);
    } catch (error) {
      rmSync(`${path}.part`, { force: true });
      throw error;
    }
  }
  await pool.end();
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  code = 1;
} finally {
  await database?.close();
}
process.exit(code);
