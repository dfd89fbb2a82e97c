import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterEach, expect, test } from "@jest/globals";

const ROOT = fileURLToPath(new URL("../../../", import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "kobbin-start-"));
let child: ChildProcess | undefined;
afterEach(() => {
  child?.kill("SIGKILL");
  rmSync(folder, { recursive: true, force: true });
});

test("npm start sets a database up, serves the page, ends at once when told, and starts again on what is there", async () => {
  const { DATABASE_URL: _d, MIGRATION_URL: _m, PORT: _p, ...env } = process.env;
  const start = () =>
    new Promise<{ url: string; ended: Promise<number | null> }>((done, fail) => {
      const own = spawn(process.execPath, ["tools/start.mjs", "--data", folder, "--port", "0", "--empty"], {
        cwd: ROOT,
        env,
      });
      child = own;
      const ended = new Promise<number | null>((end) => own.once("exit", end));
      let text = "";
      const hear = (chunk: Buffer) => {
        text += chunk;
        const url = /Kobbin is at (\S+)/.exec(text)?.[1];
        if (url) done({ url, ended });
      };
      own.stdout.on("data", hear);
      own.stderr.on("data", hear);
      void ended.then((code) => fail(new Error(`ended with ${code}: ${text.slice(-800)}`)));
    });
  for (const _ of ["first", "again"]) {
    const { url, ended } = await start();
    expect((await (await fetch(url)).text()).includes("<div id=")).toBe(true);
    expect((await fetch(`${url}/ready`)).status).toBe(200);
    child!.kill("SIGINT");
    expect(await ended).toBe(0);
  }
}, 300_000);
