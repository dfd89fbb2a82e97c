import { readBoard } from "@kobbin/core";
import { openDrop } from "@kobbin/formats";
import { chromium, type Page } from "@playwright/test";
import { zipSync } from "fflate";
import { largeBoard } from "./board.ts";
import type { Add } from "./served.ts";

export const median = (list: readonly number[]) =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

/** Strokes and pads of a side, plainly: [kind, x1, y1, x2, y2, width] for each object. */
function plain(files: ReturnType<typeof openDrop>["files"], side: string): number[] {
  const out: number[] = [];
  for (const f of readBoard(files).files) {
    if (!f.layer || f.role !== "copper" || f.side !== side) continue;
    const { n, kind, geo, aperture, apertures } = f.layer;
    for (let i = 0; i < n; i++)
      out.push(
        kind[i]!,
        geo[i * 6]!,
        geo[i * 6 + 1]!,
        geo[i * 6 + 2]!,
        geo[i * 6 + 3]!,
        apertures[aperture[i]!]?.circleMm ?? 0.3,
      );
  }
  return out;
}

/** One full draw of a side in the page, ms: each object a stroke or a square, on a canvas of the picture's size. */
const fullDraw = (page: Page, objects: readonly number[], sizeMm: number) =>
  page.evaluate(
    ([list, size]) => {
      const canvas = document.createElement("canvas");
      canvas.width = 1130;
      canvas.height = 400;
      const c = canvas.getContext("2d", { willReadFrequently: true })!;
      const t = performance.now();
      const k = 300 / size;
      c.setTransform(k, 0, 0, k, 400, 50);
      c.lineCap = "round";
      for (let i = 0; i < list.length; i += 6) {
        const [x1, y1, x2, y2, w] = [list[i + 1]!, list[i + 2]!, list[i + 3]!, list[i + 4]!, list[i + 5]!];
        if (list[i] === 0) c.fillRect(x1 - w / 2, y1 - w / 2, w, w);
        else {
          c.lineWidth = w;
          c.beginPath();
          c.moveTo(x1, y1);
          c.lineTo(x2, y2);
          c.stroke();
        }
      }
      // what was drawn is asked for, so that it is drawn
      c.getImageData(0, 0, 1, 1);
      return performance.now() - t;
    },
    [objects, sizeMm] as const,
  );

/** Milliseconds between animation frames while `each` runs in every one of them. */
export const frames = (page: Page, each: string) =>
  page.evaluate(async (source) => {
    const work = new Function("i", source) as (i: number) => void;
    const out: number[] = [];
    let last = 0;
    for (let i = 0; i < 150; i++) {
      const now = await new Promise<number>(requestAnimationFrame);
      if (i > 10) out.push(now - last);
      last = now;
      work(i);
    }
    return out;
  }, each);

/** Two revisions of the large board laid over each other: both painted, both moved by one hand. */
async function benchTwoBoards(
  page: Page,
  address: string,
  archive: Uint8Array,
  empty: number,
  add: Add,
): Promise<void> {
  const drop = async () => {
    await page.goto(`${address}/new`);
    const input = page.locator("input[type=file]").first();
    await input.waitFor({ state: "attached" });
    await input.setInputFiles({
      name: "large.zip",
      mimeType: "application/zip",
      buffer: Buffer.from(archive),
    });
  };
  const keep = async () => {
    await page.getByRole("button", { name: "Keep it and start a run" }).click({ timeout: 120_000 });
    await page.getByRole("heading", { name: "Board", level: 1 }).waitFor({ timeout: 120_000 });
  };
  await drop();
  await page.getByLabel("Product", { exact: true }).fill("Large board");
  await keep();
  await drop();
  await page.getByLabel("Product", { exact: true }).fill("Large board");
  await page.getByRole("button", { name: "Keep this as its next revision" }).click({ timeout: 120_000 });
  await keep();
  await page
    .getByRole("button", { name: /^against / })
    .first()
    .click();
  const app = '[role="application"][aria-label*=" over "]';
  await page.locator(app).waitFor({ timeout: 120_000 });
  // the places are listed: the comparison itself is done, and both pictures are there
  await page.getByText("Findings").first().waitFor({ timeout: 120_000 });
  const key = `document.querySelector('${app}').dispatchEvent(new KeyboardEvent("keydown", { key: ["ArrowLeft","ArrowUp","ArrowRight","ArrowDown"][(i >> 4) & 3], bubbles: true, cancelable: true }))`;
  const wheel = `{ const e = document.querySelector('${app}'); const r = e.getBoundingClientRect();
     e.dispatchEvent(new WheelEvent("wheel", { deltaY: (i >> 5) & 1 ? 40 : -40, clientX: r.x + 300, clientY: r.y + 200, bubbles: true, cancelable: true })); }`;
  const pans = await frames(page, key);
  const zooms = await frames(page, wheel);
  add(
    "pan over two boards of 70,000 objects laid over each other",
    "an empty animation frame",
    median(pans),
    empty,
  );
  add("zoom over them", "an empty animation frame", median(zooms), empty);
}

/** The two lines of the table about the picture, in Chromium on the built application at this address. */
export async function benchPicture(address: string, add: Add): Promise<void> {
  const files = largeBoard(70_000, 5000);
  const archive = zipSync(Object.fromEntries(files.map((f) => [f.path, f.bytes])));
  const open = () => openDrop([{ path: "large.zip", bytes: archive }]).files;
  const opened = open();
  const unzips: number[] = [];
  for (let i = 0; i < 7; i++) {
    const t = performance.now();
    open();
    unzips.push(performance.now() - t);
  }
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium" });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    await page.getByRole("button", { name: "Enter the demo shop" }).click();
    await page.getByRole("heading", { name: "Bench" }).waitFor();
    const sides = [plain(opened, "top"), plain(opened, "bottom")];
    const draws: number[] = [];
    for (let i = 0; i < 3; i++)
      draws.push((await fullDraw(page, sides[0]!, 105)) + (await fullDraw(page, sides[1]!, 105)));
    const floor = median(unzips) + median(draws);

    const pictures: number[] = [];
    for (let i = 0; i < 3; i++) {
      await page.goto(`${address}/new`);
      const input = page.locator("input[type=file]").first();
      await input.waitFor({ state: "attached" });
      // from the moment the page has the archive to the moment both sides have been whole on the screen
      await page.evaluate(() => {
        const w = window as unknown as { took: Promise<number> };
        w.took = new Promise((done) => {
          let began = 0;
          document.addEventListener("change", () => (began ||= performance.now()), true);
          let hasTurned = false;
          new MutationObserver(() => {
            const bottom = [...document.querySelectorAll("button")].find((b) => b.textContent === "bottom");
            if (document.querySelector('[data-painted="top"]') && bottom && !hasTurned) {
              hasTurned = true;
              bottom.click();
            } else if (document.querySelector('[data-painted="bottom"]')) done(performance.now() - began);
          }).observe(document, { subtree: true, childList: true, attributes: true });
        });
      });
      await input.setInputFiles({
        name: "large.zip",
        mimeType: "application/zip",
        buffer: Buffer.from(archive),
      });
      pictures.push(await page.evaluate(() => (window as unknown as { took: Promise<number> }).took));
    }
    add(
      "archive → first picture of both sides, 70,000 objects",
      "unzip + one full draw of each",
      median(pictures),
      floor,
    );

    // while the figures are still being worked out in their own worker: that is when a hand would wait
    const app = '[role="application"]';
    await page.locator(app).waitFor();
    const empty = median(await frames(page, ""));
    const key = (k: string) =>
      `document.querySelector('${app}').dispatchEvent(new KeyboardEvent("keydown", { key: ${k}, bubbles: true, cancelable: true }))`;
    const pans = await frames(page, key('["ArrowLeft","ArrowUp","ArrowRight","ArrowDown"][(i >> 4) & 3]'));
    const zooms = await frames(
      page,
      `{ const e = document.querySelector('${app}'); const r = e.getBoundingClientRect();
         e.dispatchEvent(new WheelEvent("wheel", { deltaY: (i >> 5) & 1 ? 40 : -40, clientX: r.x + 300, clientY: r.y + 200, bubbles: true, cancelable: true })); }`,
    );
    add("pan: one movement in every frame, 70,000 objects", "an empty animation frame", median(pans), empty);
    add("zoom: one turn in every frame, 70,000 objects", "an empty animation frame", median(zooms), empty);
    await benchTwoBoards(page, address, archive, empty, add);
    const late = (list: readonly number[]) => list.filter((ms) => ms > 1.5 * empty).length;
    console.log(
      `frames late by half a frame or more: ${late(pans)} of ${pans.length} panning, ${late(zooms)} of ${zooms.length} zooming`,
    );
  } finally {
    await browser.close();
  }
}
