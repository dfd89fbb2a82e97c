import { readFileSync } from "node:fs";
import { cell, expect, expectAccessible, expectSaid, stage, startShop, test } from "./kit.ts";

test("messy rows are pasted, two spellings become one line by keyboard, and come apart again", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await startShop(page, "Spelling Works");
  await page.getByRole("link", { name: "Drop a board" }).click();
  await page.getByLabel("Files of the board").setInputFiles([
    {
      name: "probe.zip",
      mimeType: "application/zip",
      buffer: readFileSync(new URL("../demo/boards/probe-tail.zip", import.meta.url)),
    },
  ]);
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible({ timeout: 30_000 });
  await page.getByLabel("Product", { exact: true }).fill("Spelling");
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible({ timeout: 20_000 });
  await stage(page, "Parts");
  await expect(page.getByText("The same part in different spelling?")).toBeHidden();
  // rows without headings, columns in an order of their own
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData("text/plain", "10k\tR80-R83\t0603\n10K0\tR84,85\tR_0603\n100n\tC90\t0402\n");
    document.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expectSaid(page, "3 lines pasted");
  await expect(page.getByText("The same part in different spelling?")).toBeVisible();
  await expect(page.getByText(/One line saves 1 part to lay out/)).toBeVisible();
  await expectAccessible(page);
  const merge = page.getByRole("button", { name: /^Make one line of R80/ });
  await merge.focus();
  await page.keyboard.press("Enter");
  await expectSaid(page, "2 lines became one");
  await expect(cell(page, "References of R80", "R80 R81 R82 R83 R84 R85")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(cell(page, "References of R84", "R84 R85")).toBeVisible();
});
