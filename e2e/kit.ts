import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { test as base, type Locator, type Page } from "@playwright/test";
import { unzipSync } from "fflate";
import { expect } from "./eyes/expect.ts";

/** A page whose console must stay clean: an error or a warning there fails the journey. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page }, use) => {
    const said: string[] = [];
    page.on("console", (m) => {
      // the browser itself logs a refused request; the page shows it in words
      if (
        ["error", "warning"].includes(m.type()) &&
        !/Failed to load resource|Canvas2D: Multiple readback/.test(m.text())
      )
        said.push(m.text());
    });
    page.on("pageerror", (e) => said.push(e.message));
    await use(page);
    expect(said).toEqual([]);
  },
});

export { expectAccessible, expectAccessibleByNight } from "./eyes/accessible.ts";
export { expect };

const BASE = process.env.BASE_URL ?? "http://127.0.0.1:4180";

/** What the person of a page may do, done by a request: for what a journey only walks through to get somewhere. */
export async function ask<T>(
  page: Page,
  method: "GET" | "POST" | "PUT" | "PATCH",
  path: string,
  body?: object | FormData,
): Promise<T> {
  const answer = await page.request.fetch(path, {
    method,
    headers: { Origin: new URL(BASE).origin },
    ...(body instanceof FormData ? { multipart: body } : body ? { data: body } : {}),
  });
  if (!answer.ok()) throw new Error(`${method} ${path} answers ${answer.status()}: ${await answer.text()}`);
  return (answer.status() === 204 ? undefined : await answer.json()) as T;
}

type Stage =
  | "board"
  | "parts"
  | "source"
  | "fab"
  | "panel"
  | "assemble"
  | "cost"
  | "release"
  | "order"
  | "receive"
  | "build";

/** Opens a stage of a run by its address. */
export async function openStage(page: Page, run: string, at: Stage): Promise<void> {
  await page.goto(`/runs/${run}/${at}`);
  const heading = `${at[0]!.toUpperCase()}${at.slice(1)}`;
  await expect(page.getByRole("heading", { name: heading, exact: true, level: 1 })).toBeVisible();
}

const startRunOf = async (page: Page, revisionId: string, name: string, goodBoards: number) =>
  (await ask<{ id: string }>(page, "POST", "/api/runs", { revisionId, name, goodBoards })).id;

/** Through the demo's door to the bench, as a person goes. */
export async function walkIntoDemo(page: Page): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "Enter the demo shop" }).click();
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
}
/** In the demo shop, at its bench. */
export async function enterDemo(page: Page): Promise<void> {
  await ask(page, "POST", "/api/session/demo");
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
}
/** The id of a run the demo shop comes with. */
export async function demoRunNamed(page: Page, name: string): Promise<string> {
  await ask(page, "POST", "/api/session/demo");
  const { runs } = await ask<{ runs: { id: string; name: string }[] }>(page, "GET", "/api/bench");
  return runs.find((r) => r.name === name)!.id;
}

/**
 * In the demo shop, at a stage of a new run that no other journey touches.
 * @param product with its revision's letter behind it, or of its newest revision
 * @returns the run's id
 */
export async function demoRun(
  page: Page,
  product: string,
  name: string,
  goodBoards: number,
  at: Stage = "board",
): Promise<string> {
  const run = await newDemoRun(page, product, name, goodBoards);
  await openStage(page, run, at);
  return run;
}

async function newDemoRun(page: Page, product: string, name: string, goodBoards: number): Promise<string> {
  await ask(page, "POST", "/api/session/demo");
  type Products = { products: { name: string; revisions: { id: string; label: string }[] }[] };
  const { products } = await ask<Products>(page, "GET", "/api/bench");
  const found = products.flatMap((p) =>
    p.revisions.filter((r) => `${p.name} ${r.label}` === product || p.name === product),
  );
  return startRunOf(page, found.at(-1)!.id, name, goodBoards);
}

/**
 * Releases a run by a request. The demo shop is everybody's: what another journey changes of its shelf while the run is being
 * packed is refused, and asked once more as a person would.
 */
export async function released(page: Page, run: string): Promise<void> {
  for (let tries = 1; ; tries++)
    try {
      return await ask(page, "POST", `/api/runs/${run}/release`);
    } catch (error) {
      if (tries === 5 || !/while it was being packed/.test(String(error))) throw error;
    }
}
/** Presses for the release as a person does, once more where somebody changed something while it was being packed. */
export async function pressRelease(page: Page): Promise<void> {
  const there = page.getByRole("heading", { name: "Order", exact: true, level: 1 });
  const stale = page.getByRole("alert").filter({ hasText: /while it was being packed/ });
  for (let tries = 0; tries < 5; tries++) {
    await page.getByRole("button", { name: "Release and pack" }).click();
    await expect(there.or(stale)).toBeVisible();
    if (await there.isVisible()) return;
  }
  await expect(there).toBeVisible();
}

/** At a stage of a run in the demo shop that is released and packed already. */
export async function releasedDemoRun(
  page: Page,
  product: string,
  name: string,
  goodBoards: number,
  at: Stage = "order",
): Promise<string> {
  const run = await newDemoRun(page, product, name, goodBoards);
  await released(page, run);
  await openStage(page, run, at);
  return run;
}

/** The files of a demo board, by name. */
export const demoFiles = (board: string): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.entries(
      unzipSync(readFileSync(fileURLToPath(new URL(`../demo/boards/${board}.zip`, import.meta.url)))),
    ).map(([name, bytes]) => [name, Buffer.from(bytes).toString()]),
  );
/** Drops files as a product's; it waits to be kept. */
export async function dropFiles(
  page: Page,
  files: Readonly<Record<string, string>>,
  product: string,
): Promise<void> {
  const loose = Object.entries(files).map(([name, text]) => ({
    name,
    mimeType: "text/plain",
    buffer: Buffer.from(text),
  }));
  await page.goto("/new");
  await page.getByLabel("Files of the board").setInputFiles(loose);
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
  await page.getByLabel("Product", { exact: true }).fill(product);
}

let shops = 0;
/** A shop of one's own, in the place of whoever was signed in. */
export async function newShop(
  page: Page,
  name = "Moss Lane Instruments",
  partners: "made-up" | "none" = "made-up",
): Promise<void> {
  await ask(page, "POST", "/api/shops", {
    name,
    partners,
    currency: "EUR",
    hourlyRate: "30",
    email: `${Date.now()}-${process.pid}-${shops++}@moss`,
    password: "a long password",
  });
}
/** A shop of one's own, at its bench. */
export async function startShop(page: Page, name?: string): Promise<void> {
  await newShop(page, name);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
}
/** A shop of one's own through the door, as a person goes. */
export async function walkIntoShop(page: Page, name: string): Promise<void> {
  await page.goto("/");
  await page.getByLabel("Name of the shop").fill(name);
  await page.getByLabel("Worth of an own hour").fill("30");
  await page.getByLabel("Name to sign in with").fill(`${Date.now()}-${process.pid}-${shops++}@moss`);
  await page.getByLabel("Password", { exact: true }).fill("a long password");
  await page.getByRole("button", { name: "Start the shop" }).click();
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
}

/**
 * Files kept as a product, and a run of it opened at a stage.
 * @returns the run's id
 */
export async function keptRun(
  page: Page,
  files: Readonly<Record<string, string | Uint8Array>>,
  product: string,
  at: Stage = "board",
): Promise<string> {
  const form = new FormData();
  for (const [key, text] of Object.entries({ name: product, revision: "A", corrections: "{}" }))
    form.set(key, text);
  for (const [name, content] of Object.entries(files))
    form.append("files", new File([content as BlobPart], name));
  const { revisionId } = await ask<{ revisionId: string }>(page, "POST", "/api/products", form);
  const run = await startRunOf(page, revisionId, "20 of A", 20);
  await openStage(page, run, at);
  return run;
}
/** The archive of a demo board, as a file to keep. */
export const demoArchive = (board: string): Readonly<Record<string, Uint8Array>> => ({
  [`${board}.zip`]: readFileSync(fileURLToPath(new URL(`../demo/boards/${board}.zip`, import.meta.url))),
});

/** Starts a run of a product in the demo shop that no other journey touches. */
export async function startRun(page: Page, product: string, name: string, goodBoards: number): Promise<void> {
  await page.getByRole("button", { name: `Start a run of ${product}` }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name of the run").fill(name);
  await dialog.getByLabel("Good boards wanted").fill(String(goodBoards));
  await dialog.getByRole("button", { name: "Start the run" }).click();
  await expect(page.getByRole("heading", { name: "Board", exact: true })).toBeVisible();
}

export const stage = async (page: Page, name: string): Promise<void> => {
  await page
    .getByRole("navigation", { name: "Stages of the run" })
    .getByRole("link", { name: new RegExp(`^${name}|${name}`) })
    .first()
    .click();
  await expect(page.getByRole("heading", { name, exact: true, level: 1 })).toBeVisible();
};

/** Opens what is folded behind a line with its verdict. @returns what is in it */
export async function unfold(page: Page, title: string | RegExp) {
  const part = page.getByRole("region", { name: title });
  // by its key: what stands above it may still be moving it
  await part.getByRole("button", { expanded: false }).first().press("Enter");
  return part;
}

/** A cell of the bill by its name: "Value of R1". */
export const cell = (page: Page, name: string, text?: string) =>
  page.getByRole("gridcell", {
    name: text === undefined ? new RegExp(`^${name}[^:]*:`) : `${name}: ${text}`,
    ...(text === undefined ? {} : { exact: true }),
  });
/** Types over a cell of the bill. */
export async function setCell(page: Page, name: string, text: string): Promise<void> {
  await cell(page, name).first().dblclick();
  await page.getByRole("textbox", { name }).fill(text);
  await page.keyboard.press("Enter");
}

/** Cost per good board as the spine shows it. */
export const perGood = async (page: Page): Promise<number> =>
  Number(((await page.getByTestId("per-good").textContent()) ?? "").replace(/[^\d.]/g, ""));

/** Something was said in passing; the line for screen readers says it a second time. */
export const expectSaid = (page: Page, text: string | RegExp, timeout?: number): Promise<void> =>
  expect(page.getByText(text).first()).toBeVisible(timeout === undefined ? {} : { timeout });

/** A small picture is painted: it holds more than a few colours. */
export async function expectColours(canvas: Locator): Promise<void> {
  await expect
    .poll(() =>
      canvas.evaluate((c: HTMLCanvasElement) => {
        const d = c.getContext("2d")!.getImageData(0, 0, c.width, c.height).data;
        const seen = new Set<number>();
        for (let i = 0; i < d.length; i += 4) seen.add((d[i]! << 16) | (d[i + 1]! << 8) | d[i + 2]!);
        return seen.size;
      }),
    )
    .toBeGreaterThan(20);
}

/** The picture is painted: its tiles for this side are all there and hold more than one colour. */
export async function expectPainted(page: Page, side = "top"): Promise<void> {
  await expect
    .poll(() =>
      page.evaluate((wanted) => {
        const seen = new Set<number>();
        for (const c of document.querySelectorAll<HTMLCanvasElement>(`[data-painted="${wanted}"] canvas`)) {
          const d = c.getContext("2d")!.getImageData(0, 0, c.width, c.height).data;
          for (let i = 0; i < d.length; i += 4 * 97) seen.add((d[i]! << 16) | (d[i + 1]! << 8) | d[i + 2]!);
        }
        return seen.size;
      }, side),
    )
    .toBeGreaterThan(20);
}
