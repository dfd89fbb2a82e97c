import { readFileSync } from "node:fs";
import { chromium } from "@playwright/test";
import { frames, median } from "./picture.ts";
import type { Add } from "./served.ts";

const LINES = 1000;

/** The bill's grid with a thousand lines: a key in every frame, and a screenful scrolled in every frame. */
export async function benchGrid(address: string, add: Add): Promise<void> {
  const board = readFileSync(new URL("../demo/boards/probe-tail.zip", import.meta.url));
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium" });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(address);
    const send = async <T>(path: string, data: object, isForm = false): Promise<T> => {
      const r = await page.request.post(`${address}${path}`, {
        headers: { Origin: address },
        ...(isForm ? { multipart: data as Record<string, string> } : { data }),
      });
      if (!r.ok()) throw new Error(`${path} answered ${r.status()}: ${await r.text()}`);
      return (r.status() === 204 ? undefined : await r.json()) as T;
    };
    const stamp = Date.now();
    await send("/api/shops", {
      name: `bench of the grid ${stamp}`,
      currency: "EUR",
      hourlyRate: "20",
      email: `grid-${stamp}@bench`,
      password: `a long one ${stamp}`,
    });
    const { revisionId } = await send<{ revisionId: string }>(
      "/api/products",
      {
        name: "Long",
        revision: "A",
        files: { name: "probe-tail.zip", mimeType: "application/zip", buffer: board },
      },
      true,
    );
    await send(
      `/api/revisions/${revisionId}/lines`,
      Array.from({ length: LINES }, (_, i) => ({
        refs: [`Z${i + 1}`],
        valueText: `${i} k`,
        package: "0603",
        mpn: `ZZ-${i}`,
        mount: "machine",
      })),
    );
    const { id: run } = await send<{ id: string }>("/api/runs", { revisionId, name: "long", goodBoards: 10 });
    await page.goto(`${address}/runs/${run}/parts`);
    await page.getByRole("grid").waitFor();
    // the figures of a thousand lines come first
    await page.waitForTimeout(4000);
    const empty = median(await frames(page, ""));
    await page.getByRole("grid").focus();
    const key = (name: string) =>
      `document.querySelector('[role="grid"]').dispatchEvent(new KeyboardEvent("keydown", { key: ${name}, bubbles: true, cancelable: true }))`;
    const keys = await frames(page, key('"ArrowDown"'));
    const wheels = await frames(
      page,
      `document.querySelector('[role="grid"]').scrollTop += (i >> 6) & 1 ? -93 : 93`,
    );
    const scrolls = await frames(
      page,
      `document.querySelector('[role="grid"]').scrollTop = ((i * 430) % ${LINES * 31 - 500})`,
    );
    add("a key in every frame, bill of 1,000 lines", "an empty animation frame", median(keys), empty);
    add(
      "three rows scrolled in every frame, bill of 1,000 lines",
      "an empty animation frame",
      median(wheels),
      empty,
    );
    add(
      "a screenful scrolled in every frame, bill of 1,000 lines",
      "an empty animation frame",
      median(scrolls),
      empty,
    );
    const late = (list: readonly number[]) => list.filter((ms) => ms > 1.5 * empty).length;
    console.log(
      `frames late by half a frame or more: ${late(keys)} of ${keys.length} by keys, ${late(wheels)} of ${wheels.length} by three rows, ${late(scrolls)} of ${scrolls.length} scrolling`,
    );
  } finally {
    await browser.close();
  }
}
