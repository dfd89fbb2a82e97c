// The first visit of every page of the demo shop: until something true stands, until all of it, the longest task of the
// main thread, words shown, and script loaded before the page stands. Medians of several reloads, beside a floor of the
// same run: the same browser opening a picture of the same server.
//   npm run pages -- [--times 5]
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { chromium } from "@playwright/test";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "../tools/setup.mjs";
import { serve } from "./serve.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const at = process.argv.indexOf("--times");
const times = at < 0 ? 5 : Number(process.argv[at + 1]);

const { url, end } = await serve("pages", 20, { DEMO: "first", WEB_ROOT: join(ROOT, "web/dist") });

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
  args: ["--no-sandbox"],
});
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await page.addInitScript(() => {
  globalThis.tasks = [];
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) globalThis.tasks.push(Math.round(e.duration));
  }).observe({ type: "longtask", buffered: true });
});
await page.goto(url);
await page.getByRole("button", { name: "Enter the demo shop" }).click();
await page.getByRole("heading", { name: "Bench" }).waitFor();
const href = await page.getByRole("link", { name: "for the spring fairs" }).last().getAttribute("href");
const run = href.split("/")[2];
await page.waitForTimeout(3000);

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const floors = [];
for (let k = 0; k < times; k++) {
  const t0 = performance.now();
  await page.goto(`${url}/kobbin.svg`);
  floors.push(performance.now() - t0);
}
const floor = median(floors);

const zipped = (name) => gzipSync(readFileSync(join(ROOT, "web/dist/assets", name)), { level: 9 }).length;
const stages = "board parts source fab panel assemble cost release order receive build".split(" ");
const views = [
  ["bench", "/", "Bench"],
  ...stages.map((s) => [s, `/runs/${run}/${s}`, s[0].toUpperCase() + s.slice(1)]),
  ["new", "/new", "New product"],
  ["library", "/library", "Library"],
  ["shelf", "/shelf", "Shelf"],
  ["settings", "/settings", "Settings"],
];
console.log(`floor ${floor.toFixed(0)} ms; medians of ${times}`);
console.log("page       first  ×floor   whole  longest task   words   script before, kB gzip");
const wholes = new Map();
for (const [name, path, heading] of views) {
  const seen = [];
  for (let k = 0; k < times; k++) {
    const t0 = performance.now();
    await page.goto(url + path, { waitUntil: "commit" });
    const frame = page.getByRole("navigation", { name: "Stages of the run" });
    const whole = page.getByRole("heading", { name: heading, level: 1 }).first();
    await frame.or(whole).first().waitFor();
    const first = performance.now() - t0;
    await whole.waitFor();
    const all = performance.now() - t0;
    const scripts = await page.evaluate(() =>
      performance
        .getEntriesByType("resource")
        .map((r) => r.name.split("/").pop())
        .filter((n) => n.endsWith(".js") && !n.includes("worker")),
    );
    await page.waitForTimeout(2500);
    const { tasks, words } = await page.evaluate(() => ({
      tasks: globalThis.tasks,
      // biome-ignore lint/performance/useDomNodeTextContent: only what is seen counts
      words: (document.body.innerText.match(/[A-Za-z]{2,}/g) ?? []).length,
    }));
    seen.push({
      first,
      all,
      task: Math.max(0, ...tasks),
      words,
      kB: [...new Set(scripts)].reduce((n, s) => n + zipped(s), 0) / 1000,
    });
  }
  const of = (key) => median(seen.map((s) => s[key]));
  wholes.set(name, of("all"));
  console.log(
    `${name.padEnd(10)} ${of("first").toFixed(0).padStart(5)} ${(of("first") / floor).toFixed(1).padStart(7)} ${of("all").toFixed(0).padStart(7)} ${(of("task") || "under 50").toString().padStart(13)} ${String(of("words")).padStart(7)} ${of("kB").toFixed(0).padStart(9)}`,
  );
}
console.log(
  `fab stands after ${(wholes.get("fab") / wholes.get("board")).toFixed(2)} x what board takes (aim 1.5)`,
);
await browser.close();
await end();
process.exit();
