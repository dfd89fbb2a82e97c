import { readFileSync } from "node:fs";
import { demoFiles, expect, expectAccessible, expectSaid, keptRun, newShop, test } from "./kit.ts";

test("houses are asked for their price in the background; one asks back, and the run says so until it is answered", async ({
  page,
}) => {
  await newShop(page, "Asking Lane");
  await keptRun(page, demoFiles("rack-card"), "Asked card", "fab");
  await page
    .getByRole("row", { name: /Plover/ })
    .getByRole("button", { name: /choose/i })
    .click();
  await expectSaid(page, "Boards by Plover Lane Boards");
  await page.getByRole("button", { name: "ask the houses for their price" }).click();
  await expect(page.getByText(/4 houses answered; a quotation holds for what was asked/)).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.getByRole("row", { name: /Plover/ }).getByText("quoted")).toBeVisible();
  await expect(page.getByText(/Plover Lane Boards asks: Silkscreen letters of 0.9 mm/).first()).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel("Answer to Plover Lane Boards").fill("Print them as they are.");
  await page.getByRole("button", { name: "Answer", exact: true }).click();
  await expectSaid(page, "Plover Lane Boards was answered");
  await expect(page.getByText("Answered: Print them as they are.")).toBeVisible();
});

test("a board is held against the own bench: hours, days, risk, prints the right way round, and limits the patch taught", async ({
  page,
}) => {
  await newShop(page, "Etching Lane");
  await keptRun(page, demoFiles("probe-tail"), "Etched tail", "fab");
  // a refusal leads to its place on the picture
  const refused = page
    .getByRole("row", { name: /Own bench/ })
    .getByRole("link")
    .first();
  await expect(refused).toContainText(/\d, holds \d/);
  await refused.click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(page).toHaveURL(/measure=/);
  await expect(page.getByText(/place 1 of \d+/)).toBeVisible();
  await page.goBack();
  await page.getByRole("button", { name: "own bench", exact: true }).click();
  const against = page.getByRole("region", { name: "Made here or ordered" });
  await expect(against.getByRole("row", { name: /Own bench/ })).toContainText("cannot: ");
  // its hours open to their sum
  await against.getByRole("button", { name: /^Own hours for the boards/ }).click();
  await expect(page.getByRole("dialog")).toContainText(/1 set-up.*drilled.* s a hole/);
  await page.keyboard.press("Escape");
  await expect(against.getByRole("row", { name: /cheapest (to order|and quickest)/ })).toBeVisible();
  await expect(
    page.getByRole("img", { name: "The copper of the top as it is printed, mirrored" }),
  ).toBeVisible();
  await page.getByRole("button", { name: "paint burnt away by a laser" }).click();
  await expect(
    page.getByRole("img", { name: "The copper of the bottom as it is printed, mirrored, negative" }),
  ).toBeVisible();
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "save the top" }).click();
  const svg = readFileSync(await (await coming).path(), "utf8");
  expect(svg).toMatch(/^<svg [^>]*width="[\d.]+mm"/);
  await page.getByLabel("A litre takes up, g (its maker’s sheet)").fill("30");
  await expect(page.getByText(/at least \d+ ml, and enough to cover the board/)).toBeVisible();
  await expect(page.getByText(/Nothing goes down the drain/)).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel("Narrowest line that came out whole").selectOption("0.15");
  await page.getByRole("button", { name: /^Take 0.19 and 0.31 mm as limits/ }).click();
  await expectSaid(page, "Own bench makes tracks of 0.19 mm and gaps of 0.31 mm");
  await expect(page.getByText("Now: tracks from 0.19 mm, gaps from 0.31 mm.")).toBeVisible();
});
