// Reads a backup as a new workshop.
//   npm run restore -- FILE --owner SIGN-IN-NAME [--name NAME] [--data FOLDER]
// The owner is an account that is there, or a new one: then its password is read from KOBBIN_PASSWORD or asked for.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { openDatabase } from "./database.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, option } from "./setup.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const file = process.argv[2];
const person = option("--owner")?.trim().toLowerCase();
if (!file || file.startsWith("--") || !person) {
  console.error("usage: npm run restore -- FILE --owner SIGN-IN-NAME [--name NAME] [--data FOLDER]");
  process.exit(2);
}
const { createPool, migrate, openBackup, restoreBackup, withTransaction } = await import(
  "../server/dist/index.js"
);
const own = mkdtempSync(join(tmpdir(), "kobbin-restore-"));
let database;
let code = 0;
try {
  const backup = await openBackup(file, own);
  process.env.KOBBIN_MAY_CREATE = "yes";
  database = await openDatabase(option("--data"));
  await migrate(database.ownerUrl);
  const pool = createPool(database.url);
  const { rows } = await pool.query("select id from account where email = $1", [person]);
  let accountId = rows[0]?.id;
  let hash;
  if (!accountId) {
    const ask = async () => {
      const line = createInterface({ input: process.stdin, output: process.stderr });
      const text = await line.question(`A password for ${person}, at least 10 characters: `);
      line.close();
      return text;
    };
    const password = process.env.KOBBIN_PASSWORD ?? (await ask());
    if (password.length < 10) throw new Error("A password has at least 10 characters; nothing was changed.");
    const argon2 = await import("@node-rs/argon2");
    hash = await argon2.hash(password);
  }
  await withTransaction(pool, async (tx) => {
    if (!accountId)
      accountId = (
        await tx.query("insert into account (email, password_hash) values ($1, $2) returning id", [
          person,
          hash,
        ])
      ).rows[0].id;
    const id = await restoreBackup(tx, backup, option("--name"));
    await tx.query("insert into member (workshop_id, account_id, role) values ($1, $2, 'owner')", [
      id,
      accountId,
    ]);
  });
  await pool.end();
  console.log(
    `${option("--name") ?? backup.manifest.shop}, as it was on ${backup.manifest.createdAt.slice(0, 16).replace("T", " ")}, is a shop of ${person} now. Its other members are invited anew.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  for (const p of error?.details?.problems ?? []) console.error(`  ${p}`);
  if (error?.hint) console.error(error.hint);
  code = 1;
} finally {
  rmSync(own, { recursive: true, force: true });
  await database?.close();
}
process.exit(code);
