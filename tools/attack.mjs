// Attacks the server as a good tester would, with its source at hand: names, origins, bodies, ids, backups, archives,
// half requests, locks, a frozen database. The short form runs in npm test; this is all of it, bounded in time.
//   npm run attack
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startCluster } from "./cluster.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "./setup.mjs";
import { JEST, testEnv } from "./units.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const folder = mkdtempSync(join(tmpdir(), "kobbin-attack-"));
const cluster = await startCluster(folder);
let status = 1;
try {
  const started = Date.now();
  const done = spawnSync(
    process.execPath,
    [
      ...JEST,
      "--runInBand",
      "--verbose",
      "--forceExit",
      "server/src/whole/hard/attack.test.ts",
      "server/src/siege",
      // partners who mean no good, and what they answer
      "server/src/whole/hard/hostile.test.ts",
      "server/src/outside",
      "server/src/jobs/asking.test.ts",
      "server/src/jobs/beside.test.ts",
      // what is accepted is taken back
      "server/src/whole/hard/limits.test.ts",
      "server/src/backup",
      "server/src/whole/record.test.ts",
      "server/src/whole/built.test.ts",
      "formats/src/drawing",
      "formats/src/hostile.test.ts",
      "bin/src/malformed.test.ts",
    ],
    {
      cwd: ROOT,
      encoding: "utf8",
      timeout: 20 * 60_000,
      maxBuffer: 64 * 1024 * 1024,
      env: {
        ...process.env,
        ATTACK_ONE_OF: "1",
        KOBBIN_LONG: "yes",
        ...testEnv(cluster),
      },
    },
  );
  const said = `${done.stdout}${done.stderr}`;
  for (const line of said.split("\n"))
    if (/^\s+[✓✕]|●.*›|^Tests:/.test(line)) console.log(line.replace(/ \(\d+ ms\)$/, ""));
  const tally = Object.assign({}, ...[...said.matchAll(/^attack: (\{.*\})$/gm)].map((m) => JSON.parse(m[1])));
  console.log("");
  for (const [what, n] of Object.entries(tally)) console.log(`${String(n).padStart(7)}  ${what}`);
  console.log(`${String(Math.round((Date.now() - started) / 1000)).padStart(7)}  seconds`);
  status = done.status ?? 1;
  if (status !== 0) console.log(said.slice(-6000));
} finally {
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(status);
