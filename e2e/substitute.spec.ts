import { cell, demoRun, expect, expectAccessible, expectSaid, stage, startRun, test } from "./kit.ts";

test("a substitute is proposed, compared, priced, approved with a reason, and known in the next run", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "with another part", 30, "parts");
  // by keyboard: the sheet of a line opens from the grid
  await cell(page, "References of D").first().click();
  await page.keyboard.press("Control+Enter");
  const sheet = page.getByRole("region", { name: /^Sheet of D/ });
  await expect(sheet).toBeFocused();
  const known = sheet.getByRole("button", { name: "Take it into the library" });
  await expect(known.or(sheet.getByRole("link", { name: "in the library" }))).toBeVisible();
  if (await known.isVisible()) await known.click();
  await expect(sheet.getByRole("link", { name: "in the library" })).toBeVisible();
  await sheet.getByLabel("Number of another part").fill("HB-TV5-123B");
  await sheet.getByLabel("Its maker").fill("Holloway");
  await sheet.getByRole("button", { name: "Propose it" }).click();
  await expectSaid(page, /HB-TV5-123B is proposed/);
  const alternates = sheet.getByRole("list", { name: "Alternates" });
  const row = alternates.getByRole("listitem").filter({ hasText: "HB-TV5-123B" });
  await expect(row).toContainText("needs a look");
  await row.getByRole("button", { name: "HB-TV5-123B" }).click();
  await expect(row.getByRole("row", { name: /type/ })).toContainText("not known");
  await expectAccessible(page);

  // what is not known of it is said in the library; what differs then forbids it or names what it changes
  await row.getByRole("link", { name: /say more of/ }).click();
  const part = page.getByRole("region", { name: "Part HB-TV5-123B" });
  await part.getByLabel("Type").fill("suppressor");
  await part.getByLabel("Type").press("Enter");
  await expectSaid(page, /type kept/);
  await part.getByLabel("How it went on the bench").fill("same look beside the old one");
  await part.getByLabel("How it went on the bench").press("Enter");
  await expect(part.getByLabel("How it went on the bench")).toHaveValue("same look beside the old one");
  await expectAccessible(page);
  await page.goBack();

  // its price is known before it is decided: the suppliers are asked for it too
  await stage(page, "Source");
  await page.getByRole("button", { name: /Ask (the suppliers|again)/ }).click();
  await expectSaid(page, /^\d+ offers/);
  await stage(page, "Parts");
  await cell(page, "References of D").first().click();
  await page.keyboard.press("Control+Enter");
  await expect(row).toContainText(/per good board/);
  // a doubt needs a reason
  const approve = row.getByRole("button", { name: "approve for this run" });
  await expect(approve).toBeDisabled();
  await row.getByRole("textbox", { name: /^Why HB-TV5-123B/ }).fill("five boards on the bench");
  await approve.click();
  await expectSaid(page, "HB-TV5-123B approved for this run");
  await expect(row).toContainText(/approved for this run by .*five boards on the bench/);

  // the next run knows it, and must say yes itself
  await page.getByRole("link", { name: "Kobbin" }).click();
  await startRun(page, "Probe Tail", "the run after", 30);
  await stage(page, "Parts");
  await cell(page, "References of D").first().click();
  await page.keyboard.press("Control+Enter");
  await expect(row).toContainText("approved for other runs only");
  await row.getByRole("button", { name: "for all runs" }).click();
  await expect(row).toContainText(/approved for all runs/);

  // found bad: it blocks, wherever it is used
  await sheet.getByRole("link", { name: "in the library" }).click();
  await page.getByRole("button", { name: "found bad" }).click();
  await page.getByLabel("What was found, where").fill("one in ten is dark");
  await page.getByRole("button", { name: "Suspect it in every product" }).click();
  await expectSaid(page, /is suspected now, in every product/);
  await page.getByRole("link", { name: "the run after" }).click();
  await expect(page.getByRole("complementary", { name: "In the margin" })).toContainText(
    "one in ten is dark",
  );
  await page.goBack();
  await page.getByRole("button", { name: "clear it" }).click();
  await expectSaid(page, /is cleared/);
});
