import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import {
  ask,
  cell,
  demoArchive,
  expect,
  expectAccessible,
  expectColours,
  expectSaid,
  keptRun,
  newShop,
  perGood,
  stage,
  startShop,
  test,
  unfold,
} from "./kit.ts";

const archive = (name: string) => ({
  name: `${name}.zip`,
  mimeType: "application/zip",
  buffer: readFileSync(new URL(`../demo/boards/${name}.zip`, import.meta.url)),
});
const drop = async (page: Page, board: string) => {
  await page.getByLabel("Files of the board").setInputFiles([archive(board)]);
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
};

test("a name the shop knows: what was dropped becomes its next revision, and runs tell themselves apart", async ({
  page,
}) => {
  await startShop(page, "Second Try Works");
  await drop(page, "probe-tail");
  await page.getByLabel("Good boards wanted").fill("35");
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await page.goto("/");
  const product = page.getByRole("listitem").filter({ hasText: "revision A" }).first();
  await expectColours(product.locator("canvas"));
  await expect(page.getByRole("link", { name: /^35 of A, \w{3} \d{4}$/ })).toBeVisible();

  await page.getByRole("link", { name: "New product" }).click();
  await drop(page, "probe-tail");
  await expect(page.getByText("You have a probe tail already, revision A.")).toBeVisible();
  await page.getByRole("button", { name: "Keep this as its next revision" }).click();
  await expect(page.getByRole("heading", { name: "New revision of probe tail" })).toBeVisible();
  // the files stay read: nothing is dropped again
  await expect(page.getByLabel("Revision")).toHaveValue("B");
  await page.getByRole("button", { name: "Keep it only" }).click();
  await expect(page.getByText("revision B")).toBeVisible();
  await expect(page.getByRole("link", { name: "new revision" })).toHaveCount(1);
  await page.getByRole("button", { name: "Start a run of probe tail B" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByLabel("Name of the run")).toHaveValue(/^20 of B, /);
  await dialog.getByLabel("Good boards wanted").fill("50");
  await expect(dialog.getByLabel("Name of the run")).toHaveValue(/^50 of B, /);
  // pressed twice, one run is started
  await dialog.getByRole("button", { name: "Start the run" }).dblclick();
  await expect(page.getByRole("heading", { name: "Board", exact: true, level: 1 })).toBeVisible();
  const { runs } = await ask<{ runs: { name: string }[] }>(page, "GET", "/api/bench");
  expect(runs.filter((r) => r.name.startsWith("50 of B, "))).toHaveLength(1);
});

test("a product gets a second board: its lines, places and price join the run, and it goes and comes back", async ({
  page,
}) => {
  await newShop(page, "Two Board Works");
  await keptRun(page, demoArchive("probe-tail"), "Tail set");
  const before = await perGood(page);

  await page.getByRole("link", { name: "add another board" }).click();
  await expect(page.getByRole("heading", { name: "Another board of Tail set" })).toBeVisible();
  await drop(page, "rack-card");
  await page.getByLabel("Name of the board").fill("Card");
  await page.getByLabel("In each product").fill("2");
  await page.getByRole("button", { name: "Add it to the product" }).click();

  const boards = page.getByRole("toolbar", { name: "Boards of the product" });
  await expect(boards.getByRole("button", { name: /2 × Card/ })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("navigation", { name: "Stages of the run" })).toContainText("2 boards");
  await expectAccessible(page);
  const both = await perGood(page);
  expect(both).toBeGreaterThan(before);

  // both boards have an R1; the bill tells them apart, and shows those of one
  await stage(page, "Parts");
  await expect(cell(page, "Board of R1", "Card")).toBeVisible();
  await expect(cell(page, "Board of R1", "Tail set A")).toBeVisible();
  await page.getByRole("combobox", { name: "Lines shown" }).selectOption({ label: "on Card" });
  await expect(cell(page, "Board of R1", "Tail set A")).toBeHidden();
  await expect(page).toHaveURL(/show=board/);

  // the house makes both, each in its own number
  await stage(page, "Fab");
  await page
    .getByRole("row", { name: /Plover Lane/ })
    .getByRole("button", { name: /choose/i })
    .first()
    .click();
  await unfold(page, "What the boards cost, term by term");
  await expect(page.getByRole("heading", { name: /^Price of \d+ of Card$/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: /^Price of \d+ of Tail set A$/ })).toBeVisible();

  // one of it instead of two, then none at all, and back by one step
  await stage(page, "Board");
  await boards.getByRole("button", { name: /Card/ }).click();
  await expect(page.getByLabel("Name of the board")).toHaveValue("Card");
  const dear = await perGood(page);
  await page.getByLabel("In each product").fill("1");
  await page.keyboard.press("Enter");
  await expectSaid(page, "1 of Card in each product");
  await expect.poll(() => perGood(page)).toBeLessThan(dear);
  await page.getByRole("button", { name: "remove this board" }).click();
  await expectSaid(page, "Card was removed with its lines");
  await expect(boards).toBeHidden();
  await page.keyboard.press("Control+z");
  await expect(boards.getByRole("button", { name: /Card/ })).toBeVisible();
});

test("a shop sets its own losses: runs buy otherwise, and as usual again by one step", async ({ page }) => {
  await newShop(page, "Careful Works");
  await page.goto("/settings/losses");
  await expect(page.getByRole("heading", { name: "What is lost on the way" })).toBeVisible();
  await expectAccessible(page);
  const share = page.getByLabel("chips 0603 to 1206, chip lamps, by hand, share in per cent");
  await share.fill("80");
  await share.press("Enter");
  await expectSaid(page, "is no share");
  await expect(share).toHaveValue("5");
  await share.fill("12.5");
  await share.press("Enter");
  await expectSaid(page, "Losses of chips 0603 to 1206, chip lamps: your own");
  await page.reload();
  await expect(share).toHaveValue("12.5");
  await page.getByRole("button", { name: "Usual losses of chips 0603 to 1206, chip lamps" }).click();
  await expect(share).toHaveValue("5");
});

test("a board's small picture is painted once: the next browser shows it without its files, until it is read otherwise", async ({
  page,
  browser,
}) => {
  await newShop(page, "Pictures Once");
  const run = await keptRun(page, demoArchive("rack-card"), "Rack Card", "order");
  const brought = page.waitForResponse((r) => r.request().method() === "PUT" && /picture/.test(r.url()));
  await page.goto("/");
  const small = (p: Page) => p.getByRole("listitem").locator("canvas").first();
  await expectColours(small(page));
  expect((await brought).status()).toBe(204);
  const painted = (p: Page) => small(p).evaluate((c: HTMLCanvasElement) => c.toDataURL());
  const first = await painted(page);
  const next = await browser.newPage({ storageState: await page.context().storageState() });
  const files: string[] = [];
  next.on("request", (r) => /\/files$/.test(r.url()) && files.push(r.url()));
  await next.goto("/");
  await expectColours(small(next));
  expect([await painted(next), files]).toEqual([first, []]);
  // read otherwise, it is painted from its files
  const { boardIds } = await ask<{ boardIds: string[] }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "POST", `/api/boards/${boardIds[0]}/corrections`, { roles: { none: { role: "unknown" } } });
  const read = next.waitForRequest((r) => /\/files$/.test(r.url()));
  await next.reload();
  await read;
  await next.context().close();
});
