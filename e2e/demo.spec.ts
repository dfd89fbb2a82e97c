import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { unzipSync } from "fflate";
import {
  cell,
  demoRun,
  expect,
  expectColours,
  expectPainted,
  expectSaid,
  perGood,
  pressRelease,
  setCell,
  stage,
  startRun,
  test,
  unfold,
  walkIntoDemo,
} from "./kit.ts";

test("a newcomer takes a demo board from the bench to an order package", async ({ page }, info) => {
  await walkIntoDemo(page);
  await expect(page.getByRole("link", { name: /Rack Card, first try/ })).toBeVisible();
  await startRun(page, "Kiln Watch B", "journey", 30);

  // Board: drawn, both sides, measured
  await expectPainted(page);
  await page.getByRole("button", { name: "bottom", exact: true }).click();
  await expect(page).toHaveURL(/side=bottom/);
  await expectPainted(page, "bottom");
  await expect(page.getByRole("button", { name: /smallest track 0.2 mm, show the place/ })).toBeVisible();
  await unfold(page, "Files");
  await expect(page.getByRole("row", { name: /kiln-watch-copper-top.gbr/ })).toContainText(
    "its own attribute says Copper, L1, Top",
  );
  await expect(page.getByRole("row", { name: /read-me.txt/ })).toContainText("none of the kinds");

  // Parts: grouped, edited in place, taken back
  await stage(page, "Parts");
  // a line that is pointed at, or reached by keys, lights its parts on the board
  const lit = page.getByRole("complementary", { name: "In the margin" }).getByRole("figure");
  await page.getByRole("gridcell", { name: /^References of C5:/ }).hover();
  await expect(lit).toContainText("11 parts on the top");
  await expect(lit.locator("svg g")).toHaveCount(11);
  await expectColours(lit.locator("canvas"));
  await cell(page, "References of U1", "U1").first().click();
  await expect(lit).toContainText("1 part on the top");
  await page.keyboard.press("ArrowDown");
  await expect(lit.locator("svg g")).toHaveCount(2);
  await setCell(page, "Value of U1", "M48-64 rev 2");
  await page.getByRole("button", { name: "undo" }).first().hover();
  await expect(cell(page, "Value of U1", "M48-64 rev 2")).toBeVisible();
  await page.getByRole("button", { name: "undo" }).first().click();
  await expect(cell(page, "Value of U1", "M48-64")).toBeVisible();

  // Source: asked, whole baskets, why a number
  await stage(page, "Source");
  await page.getByRole("button", { name: /Ask (the suppliers|again)/ }).click();
  await expectSaid(page, /^\d+ offers/);
  await expect(page.getByRole("columnheader", { name: "Whole basket" })).toBeVisible();
  await page.getByRole("button", { name: /^needed of U1: \d+ to buy\. Why\?/ }).click();
  await expect(page.getByRole("dialog")).toContainText("lost on the way");
  await page.keyboard.press("Escape");

  // Fab: the effect stands before the choice, and is what the choice does
  await stage(page, "Fab");
  const before = await perGood(page);
  await page.getByRole("button", { name: /^Finish/ }).click();
  const gold = page
    .getByRole("list", { name: "Finish: alternatives" })
    .getByRole("button", { name: /immersion gold/ });
  const effect = Number(/[+−]([\d.]+)/.exec(((await gold.textContent()) ?? "").replace(/\s/g, " "))![1]);
  await gold.click();
  // a message stays while the pointer is on it
  const chosen = page.getByRole("listitem").filter({ hasText: "Finish: immersion gold" });
  await chosen.hover();
  await expect.poll(() => perGood(page)).toBeCloseTo(before + effect, 1);
  await chosen.getByRole("button", { name: "undo" }).click();
  await expect.poll(() => perGood(page)).toBe(before);

  // Assemble and Cost
  await stage(page, "Assemble");
  await expect(page.getByRole("complementary", { name: "In the margin" })).toContainText("Flux fumes");
  await page.getByRole("slider", { name: "Number of good boards" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("navigation", { name: "Stages of the run" })).toContainText("31 good boards");
  await stage(page, "Cost");
  await expect(page.getByText("the 40 quantities as a table")).toBeVisible();
  const shown = await perGood(page);
  const document = await page.evaluate(() =>
    fetch(`/api/runs/${location.pathname.split("/")[2]}/document`).then((r) => r.text()),
  );
  writeFileSync(info.outputPath("run.json"), document);
  const cost = JSON.parse(
    execFileSync("bin/kobbin", ["cost", info.outputPath("run.json"), "--json"], { encoding: "utf8" }),
  ) as { perGoodBoard: number; curve: unknown[] };
  expect(Math.round(cost.perGoodBoard * 100) / 100).toBe(shown);
  expect(cost.curve).toHaveLength(40);

  // Release and Order
  await stage(page, "Release");
  await pressRelease(page);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download the package" }).click(),
  ]);
  const files = unzipSync(new Uint8Array(readFileSync(await download.path())));
  const paths = Object.keys(files);
  expect(paths).toEqual(
    expect.arrayContaining([
      "manifest.json",
      "run.json",
      "assembly/placement.csv",
      "assembly/parts-list.csv",
    ]),
  );
  expect(paths.filter((p) => p.startsWith("baskets/")).length).toBeGreaterThan(1);
  expect(paths.filter((p) => /^sheets\/fabrication.*\.pdf$/.test(p))).toHaveLength(1);
  expect(paths.filter((p) => p.startsWith("fabrication/") && p.endsWith(".gbr")).length).toBe(8);

  // all there after a reload
  await page.reload();
  await expect(page.getByText("Released: what was ordered stays as it was.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Download the package" })).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("row", { name: /journey/ }).first()).toContainText("released");
});

test("a house that cannot make the board says why, and choosing it blocks the release", async ({ page }) => {
  const house = `Coarse bench ${Date.now()}`;
  await demoRun(page, "Rack Card A", "limits", 8, "fab");
  await page.getByRole("button", { name: "copy it and edit the copy" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name of the house").fill(house);
  await dialog.getByLabel("smallest track").fill("0.4");
  await dialog.getByRole("button", { name: "Keep the copy and choose it" }).click();
  await expect(page.getByRole("row", { name: new RegExp(house) })).toContainText(
    "cannot: smallest track 0.25, holds 0.4",
  );
  await stage(page, "Release");
  await expect(page.getByRole("button", { name: "Release and pack" })).toBeDisabled();
  const blocker = page.getByRole("listitem").filter({ hasText: `${house} holds 0.4 mm` });
  await blocker.getByRole("button", { name: "accept with a reason" }).first().click();
  await page.getByRole("textbox", { name: "Reason" }).first().fill("asked on the phone, they will");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Accepted with a reason" })).toBeVisible();
  await expect(page.getByText("Accepted: asked on the phone, they will").first()).toBeVisible();
});

test("the run by keyboard: stages by number, the margin, the sheet of keys, the picture", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail A", "keys", 15);
  await expectPainted(page);
  await page.keyboard.press("3");
  await expect(page.getByRole("heading", { name: "Source", level: 1 })).toBeVisible();
  await page.keyboard.press("]");
  await expect(page.getByRole("heading", { name: "Fab", level: 1 })).toBeVisible();
  // the margin folds to a count and comes back; where it has nothing to say it is folded
  const margin = page.getByRole("complementary", { name: "In the margin" });
  const notes = page.getByRole("button", { name: /^notes \(/ });
  await page.keyboard.press("]");
  await expect(page.getByRole("heading", { name: "Panel", level: 1 })).toBeVisible();
  await page.keyboard.press("]");
  await expect(page.getByRole("heading", { name: "Assemble", level: 1 })).toBeVisible();
  await expect(margin).toBeVisible();
  const said = await margin.getByRole("listitem").count();
  expect(said).toBeGreaterThan(0);
  await page.keyboard.press("r");
  await expect(margin).toBeHidden();
  await expect(notes).toHaveText(`notes (${said})`);
  await notes.press("Enter");
  await expect(page.getByRole("button", { name: "Close the margin" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(notes).toBeFocused();
  await page.keyboard.press("[");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys on this page" })).toContainText("next stage");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.keyboard.press("2");
  await cell(page, "References of U1").first().click();
  await page.keyboard.press("ArrowDown");
  await expect(cell(page, "References of C1").first()).toHaveAttribute("aria-selected", "true");
  // the grid takes letters and digits; Escape gives the keys back to the page
  await page.keyboard.press("Escape");
  await page.keyboard.press("1");
  await expectPainted(page);
  await page.keyboard.press("f");
  await expect(page).toHaveURL(/side=bottom/);
  await expectPainted(page, "bottom");
});
