// npm start: everything set up, the demo shop served. Ctrl-C ends what this started and nothing else.
import { readdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { createLauncher } from "./launch.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, migrateDatabase, ROOT } from "./setup.mjs";

const HELP = `npm start -- [options]
  --port N        port of the page (default 4180)
  --data FOLDER   where the database lives (default: inside the clone)
  --empty         no demo shop
DATABASE_URL in the environment names a PostgreSQL database of your own instead of the private one, signed in to as a
role that owns nothing; MIGRATION_URL the same as its owner (docs/operations.md).
HOST other than this machine's own closes sign-up and the demo, unless SIGN_UP and DEMO ask for them; ORIGINS then names
the addresses the page is opened under.
`;

const args = process.argv.slice(2);
const option = (name) => {
  const i = args.indexOf(name);
  return i >= 0 ? args[i + 1] : undefined;
};
if (args.includes("--help")) {
  process.stdout.write(HELP);
  process.exit(0);
}
const isDev = args.includes("--dev");
const port = Number(option("--port") ?? process.env.PORT ?? 4180);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error("--port needs a number from 0 to 65535.");
  process.exit(2);
}

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();

let stopCluster = () => undefined;
let isEnding = false;
const launcher = createLauncher((name, code) => {
  console.error(`${name} ended with ${code}; stopping the rest.`);
  end(1);
});
async function end(code) {
  if (isEnding) return;
  isEnding = true;
  await launcher.end();
  stopCluster();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => end(0));

try {
  let databaseUrl = process.env.DATABASE_URL;
  let ownerUrl = process.env.MIGRATION_URL;
  if (databaseUrl && !ownerUrl)
    throw new Error(
      "DATABASE_URL is set, but MIGRATION_URL is not: the address of the same database as its owner. See docs/operations.md.",
    );
  if (!databaseUrl) {
    const { dataFolder, dumpBeforeUpgrade, ensureDatabase, startCluster } = await import("./cluster.mjs");
    const folder = dataFolder(ROOT, option("--data") ? resolve(option("--data")) : undefined);
    const cluster = await startCluster(folder);
    stopCluster = cluster.stop;
    await ensureDatabase(cluster.url, "kobbin");
    const steps = readdirSync(join(ROOT, "server/migrations"))
      .filter((f) => f.endsWith(".sql"))
      .map((f) => f.replace(/\.sql$/, ""))
      .sort();
    const dump = await dumpBeforeUpgrade(cluster.url, "kobbin", folder, steps);
    if (dump) console.log(`the database is brought forward; as it was it stands in ${dump}`);
    databaseUrl = cluster.appUrl("kobbin");
    ownerUrl = cluster.ownerUrl("kobbin");
  }
  await migrateDatabase(ownerUrl);
  const node = (path) =>
    isDev
      ? [
          join(ROOT, "node_modules/.bin/tsx"),
          ["watch", "--clear-screen=false", "--conditions=source", `${path}/src/main.ts`],
        ]
      : [process.execPath, [`${path}/dist/main.js`]];
  const standIns = await launcher.launch(
    "stand-ins",
    ...node("standins"),
    { STANDINS_PORT: "0" },
    /port (\d+)/,
  );
  const serverPort = isDev ? 4181 : port;
  const { isLoopbackHost } = await import("../server/dist/index.js");
  const isExposed = !isLoopbackHost(process.env.HOST ?? "127.0.0.1");
  if (isExposed) {
    if (!process.env.SIGN_UP)
      console.log("reached from elsewhere: nobody may start a shop (SIGN_UP=first or open opens that)");
    if (!process.env.DEMO)
      console.log("reached from elsewhere: the demo shop stays closed (DEMO=yes opens it)");
  }
  const actual = await launcher.launch(
    "server",
    ...node("server"),
    {
      DATABASE_URL: databaseUrl,
      PORT: String(serverPort),
      STANDINS_URL: `http://127.0.0.1:${standIns}`,
      MIGRATION_URL: "",
      DEMO: process.env.DEMO ?? (args.includes("--empty") || isExposed ? "no" : "yes"),
      // in development the page comes from another port than the server's
      ...(isDev ? { ORIGINS: `http://127.0.0.1:${port} http://localhost:${port}` } : {}),
      WEB_ROOT: isDev ? "" : join(ROOT, "web/dist"),
      LOG: process.env.LOG ?? "quiet",
      // bound to this machine only: whoever sits here may start a shop
      SIGN_UP: process.env.SIGN_UP ?? (isExposed ? "closed" : "open"),
    },
    /listening on (\d+)/,
    isDev ? undefined : "PORT",
  );
  if (isDev)
    await launcher.launch(
      "page",
      process.execPath,
      ["node_modules/vite/bin/vite.js", "web", "--host", "127.0.0.1", "--port", String(port), "--strictPort"],
      { KOBBIN_SERVER: `http://127.0.0.1:${actual}` },
      /127\.0\.0\.1:(\d+)/,
    );
  console.log(`\n  Kobbin is at http://127.0.0.1:${isDev ? port : actual}\n  Ctrl-C ends it.\n`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  await end(1);
}
