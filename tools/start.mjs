// npm start: everything set up, the demo shop served. Ctrl-C ends what this started and nothing else.
import { spawn } from "node:child_process";
import { join, resolve } from "node:path";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "./setup.mjs";

const HELP = `npm start -- [options]
  --port N        port of the page (default 4180)
  --data FOLDER   where the database lives (default: inside the clone)
  --empty         no demo shop
DATABASE_URL in the environment names a PostgreSQL database of your own instead of the private one.
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
if (!isDev) ensureBuilt();

const children = [];
let stopCluster = () => undefined;
let isEnding = false;
async function end(code) {
  if (isEnding) return;
  isEnding = true;
  await Promise.all(
    children.map(
      (c) =>
        new Promise((done) => {
          if (c.exitCode !== null || c.signalCode !== null) return done();
          c.once("exit", done);
          c.kill("SIGTERM");
          setTimeout(() => c.kill("SIGKILL"), 6000).unref();
        }),
    ),
  );
  stopCluster();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => end(0));

/** Starts a program of ours and waits for the line that tells its port. */
function launch(name, file, args, env, pattern) {
  return new Promise((done, fail) => {
    // a group of its own, so that Ctrl-C in the terminal reaches only this script, which ends the rest in order
    const child = spawn(file, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: ["ignore", "pipe", "inherit"],
      detached: true,
    });
    children.push(child);
    let text = "";
    child.stdout.on("data", (chunk) => {
      text += chunk;
      const m = pattern.exec(text);
      if (m) done(Number(m[1]));
    });
    child.on("exit", (code) => {
      fail(new Error(`${name} ended with ${code}`));
      if (!isEnding) {
        console.error(`${name} ended with ${code}; stopping the rest.`);
        end(1);
      }
    });
  });
}

try {
  let databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl) {
    const { dataFolder, ensureDatabase, startCluster } = await import("./cluster.mjs");
    const folder = dataFolder(ROOT, option("--data") ? resolve(option("--data")) : undefined);
    const cluster = await startCluster(folder);
    stopCluster = cluster.stop;
    await ensureDatabase(cluster.url, "kobbin");
    databaseUrl = cluster.url("kobbin");
  }
  const node = (path) =>
    isDev
      ? [
          join(ROOT, "node_modules/.bin/tsx"),
          ["watch", "--clear-screen=false", "--conditions=source", `${path}/src/main.ts`],
        ]
      : [process.execPath, [`${path}/dist/main.js`]];
  const standIns = await launch("stand-ins", ...node("standins"), { STANDINS_PORT: "0" }, /port (\d+)/);
  const serverPort = isDev ? 4181 : port;
  const actual = await launch(
    "server",
    ...node("server"),
    {
      DATABASE_URL: databaseUrl,
      PORT: String(serverPort),
      STANDINS_URL: `http://127.0.0.1:${standIns}`,
      DEMO: args.includes("--empty") ? "no" : "yes",
      WEB_ROOT: isDev ? "" : join(ROOT, "web/dist"),
      LOG: process.env.LOG ?? "quiet",
    },
    /listening on (\d+)/,
  );
  if (isDev)
    await launch(
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
