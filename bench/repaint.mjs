// From a press to the frame that shows what came of it, on the pages where much is painted: as the browser itself tells of each
// event. The floor is a press on the same page that changes nothing but what is pressed.
//   npm run repaint -- [--times 15]
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "../tools/setup.mjs";
import { serve } from "./serve.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const at = process.argv.indexOf("--times");
const times = at < 0 ? 15 : Number(process.argv[at + 1]);
const { url, end } = await serve("repaint", 20, { DEMO: "first", WEB_ROOT: join(ROOT, "web/dist") });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
  args: ["--no-sandbox"],
});
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await page.addInitScript(() => {
  globalThis.presses = [];
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) if (e.name === "keydown") globalThis.presses.push(e.duration);
  }).observe({ type: "event", durationThreshold: 16 });
});
const headers = { Origin: url };
await page.request.post(`${url}/api/session/demo`, { headers });
const { runs } = await (await page.request.get(`${url}/api/bench`)).json();
const { id } = runs.find((r) => r.name === "for the spring fairs");

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
/** Milliseconds from a key to the next frame; 8, the finest it tells, where it was under two. */
async function pressed(press) {
  const seen = [];
  for (let k = 0; k < times; k++) {
    await page.evaluate(() => {
      globalThis.presses.length = 0;
    });
    await press(k);
    await page.waitForTimeout(700);
    seen.push(await page.evaluate(() => Math.max(8, ...globalThis.presses)));
  }
  return { median: median(seen), most: Math.max(...seen) };
}

const pins = (n) => [`J${1 + (n % 6)}.1`];
const tests = Array.from({ length: 60 }, (_, n) => ({
  id: `t${n}`,
  name: `item ${n + 1}`,
  state: "powered",
  drives: [],
  reads: pins(n),
  through: [`R${1 + (n % 20)}`, `C${1 + (n % 20)}`, "U1"],
  expect: "",
  minutes: 0.3,
}));
const { version } = await (await page.request.get(`${url}/api/runs/${id}`)).json();
await page.request.patch(`${url}/api/runs/${id}`, { headers, data: { version, assembly: { tests } } });
await page.goto(`${url}/runs/${id}/assemble?of=tests`);
const items = page.getByRole("list", { name: "Items of the test plan" });
await items
  .getByRole("button", { name: /item 1\b/ })
  .first()
  .press("Enter");
await page.waitForTimeout(3000);
const through = items.getByLabel("Through");
const floor = await pressed(async () => {
  await items.getByLabel("What should come").press("Home");
});
// one part more or less: every pin of the board is told anew
const painted = await pressed(async (k) => {
  await through.fill(k % 2 === 0 ? "U1" : "U1 U2");
  await through.press("Enter");
});
const told = await page.getByText(/^\d+ of \d+ pins tested/).textContent();
const text = told.match(/^\d+ of \d+ pins tested/)[0];
console.log(
  `coverage painted anew, 60 items, ${text}: ${painted.median} ms from the press to its frame, at most ${painted.most} (floor ${floor.median}; a frame is 16)`,
);
await browser.close();
await end();
process.exit();
