import { ask, expect, expectAccessible, expectSaid, releasedDemoRun, test } from "../kit.ts";

test("on a phone: a board of a delivery is measured and found too narrow, the lot is locked and claimed; what else comes turns the light", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 800 });
  // what is printed, as it stands when the browser is asked to
  await page.addInitScript(() => {
    window.print = () =>
      Object.assign(window, { printed: document.querySelector("[data-printing]")?.textContent ?? "" });
  });
  const run = await releasedDemoRun(page, "Kiln Watch", "measured", 8, "receive");
  const ready = page.getByRole("region", { name: "Ready to build" });
  await expect(ready).toContainText("None can be made whole yet.");
  // a bag says another number: held against what was ordered at once, and set apart until somebody says otherwise
  const chip = page.getByRole("listitem").filter({ hasText: "TB-TK31-SO8" }).first();
  await chip.getByRole("button", { name: /^Count / }).click();
  const says = chip.getByLabel("It says");
  await says.fill("ZZ-99");
  await expect(chip).toContainText("The shop knows nothing of this number");
  await expect(chip.getByRole("checkbox", { name: "set apart" })).toBeChecked();
  await says.fill("tb-tk31-so8");
  await expect(chip).toContainText("As ordered.");
  await expect(chip.getByRole("checkbox", { name: "set apart" })).not.toBeChecked();
  await says.fill("HB-TK40-SO8");
  await expect(chip).toContainText("Nobody has approved it for TB-TK31-SO8; look at this first");
  await expect(chip.getByRole("checkbox", { name: "set apart" })).toBeChecked();
  await expectAccessible(page);
  await chip.getByRole("button", { name: /^Count / }).click();
  // whoever has the boards; everything else comes too
  const whole = page.getByRole("button", { name: "All of it came" });
  for (let left = await whole.count(); left > 0; left--) {
    await whole.first().click();
    await expect(whole).toHaveCount(left - 1);
  }
  await expect(ready).toContainText(/Everything is here for all \d+ boards/);

  const boards = page.getByRole("article").filter({ hasText: "Kiln Watch B" });
  await expect(boards).toContainText(/Measure \d+ of \d+: if one in ten is bad/);
  await boards.getByRole("button", { name: "measure one" }).click();
  const sheet = page.getByRole("region", { name: "Measuring Kiln Watch B" });
  await expect(sheet).toContainText("thickness");
  const input = sheet.getByRole("textbox");
  // a slip of the hand is asked about, and taken only when it is meant
  await input.fill("16");
  await expect(sheet.getByRole("status")).toContainText("ten times what was ordered");
  await input.press("Enter");
  await expect(sheet).toContainText("thickness");
  await input.fill("1,58 1,6");
  await expect(sheet.getByRole("status")).toContainText("as ordered");
  await input.press("Enter");
  await expect(sheet).toContainText("width");
  await input.press("PageDown");
  await expect(sheet).toContainText("height");
  await sheet.getByRole("button", { name: /leave it away/ }).click();
  // the slot of the lid's tab: within what was ordered it would do, this does not
  await expect(sheet).toContainText(/^.*slot/);
  await input.fill("1.4");
  await expect(sheet.getByRole("status")).toContainText("not as ordered: beyond ± 0.15 mm");
  await expect(sheet.getByRole("status")).toContainText("Tab of the lid: does not go together");
  await expectAccessible(page);
  await input.press("Enter");
  // what was answered survives the page
  await page.reload();
  await expect(sheet).toContainText("hole");
  while (await input.count()) {
    const at = await sheet.getByRole("textbox").getAttribute("aria-label");
    await sheet.getByRole("button", { name: /leave it away/ }).click();
    await expect(sheet.getByRole("heading", { level: 2 })).toBeVisible();
    if (!at) break;
  }
  for (const answer of ["y", "n", "y", "y", "y"]) await page.keyboard.press(answer);
  await expect(sheet).toContainText("not: mask");
  await sheet.getByRole("button", { name: /keep board 1/ }).click();
  await expect(sheet).toContainText("Board 2");
  await page.keyboard.press("Escape");

  await expect(boards).toContainText("the lot does not hold");
  await expect(ready).toContainText("Do not begin: Kiln Watch B did not measure as it must.");
  await boards.getByRole("button", { name: /: set apart$/ }).click();
  await expect(boards).toContainText(/set apart: slot/);
  // what is set apart stops nothing else; there are just no boards
  await expect(ready).toContainText(/stopped by bare boards: 0 here/);

  // evidence: taken on its side, kept upright and without what the camera wrote
  await boards.getByLabel("Photos of Kiln Watch B").setInputFiles([
    { name: "slot.jpg", mimeType: "image/jpeg", buffer: onItsSide() },
    { name: "notes.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no picture") },
  ]);
  const thumb = boards.getByRole("button", { name: /^Photo 1 of Kiln Watch B/ });
  await expectSaid(page, /^notes\.jpg: That is no picture/);
  const sizeOf = () =>
    thumb.locator("img").evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight]);
  await expect.poll(sizeOf).toEqual([8, 12]);
  await thumb.press("Enter");
  const photo = page.getByRole("dialog");
  await photo.getByLabel("What it shows").fill("slot 1.4 wide");
  await photo.getByLabel("What it shows").press("Enter");
  await expect(photo.getByRole("heading", { name: "slot 1.4 wide" })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Escape");

  const claims = page.getByRole("region", { name: /^Claims at/ });
  await claims.getByRole("button", { name: "claim it" }).click();
  const letter = claims.getByLabel("Letter");
  await expect(letter).toHaveValue(/slot, .* 1\.4 mm \(ordered/);
  await expect(letter).toHaveValue(/A photo is attached/);
  await expect(letter).not.toHaveValue(/thickness 1\.58.*not as ordered/);
  await letter.fill(`${await letter.inputValue()}\nWith kind regards`);
  await claims.getByRole("button", { name: "Write it down" }).press("Enter");
  await expectSaid(page, /^A claim at .* is written down$/);
  await expect(claims).toContainText("not sent yet");
  await claims.getByText("letter and answer").click();
  await expect(claims).toContainText("With kind regards");
  await claims.getByLabel("It is").selectOption("settled");
  await claims.getByLabel(/^Paid back/).fill("12,5o");
  await claims.getByLabel(/^Paid back/).press("Tab");
  await expectSaid(page, /is no amount/);
  await claims.getByLabel(/^Paid back/).fill("12.50");
  await claims.getByLabel(/^Paid back/).press("Tab");
  await expect(claims).toContainText(/settled, 12\.50? EUR back/);
  await expectAccessible(page);

  await claims.getByRole("button", { name: "Print it with 1 photo" }).click();
  await expect
    .poll(() => page.evaluate(() => (window as { printed?: string }).printed))
    .toContain("slot 1.4 wide; ");

  // by keys alone: what was measured is removed again
  const { record } = await ask<{ record: { measured: { id: string }[] } }>(page, "GET", `/api/runs/${run}`);
  expect(record.measured).toHaveLength(1);
  await boards.getByRole("button", { name: /^What was measured/ }).focus();
  await page.keyboard.press("Enter");
  await boards.getByRole("button", { name: "Remove what was measured of board 1" }).focus();
  await page.keyboard.press("Enter");
  await expect(boards.getByRole("button", { name: /^What was measured/ })).toHaveCount(0);
});

test("the network goes while a parcel is counted on a phone: what was counted is kept, outlives the page, and is sent once", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 800 });
  const run = await releasedDemoRun(page, "Probe Tail", "in the cellar", 10, "receive");
  const sleeve = page.getByRole("listitem").filter({ hasText: "AG-SLEEVE-6" }).first();
  const receipts = async () =>
    (
      await ask<{ record: { receipts: { qty: number }[] } }>(page, "GET", `/api/runs/${run}`)
    ).record.receipts.map((r) => r.qty);
  await page.route("**/receipts", (route) => route.abort());
  // leaving asks: something is not saved
  page.on("dialog", (d) => void d.accept());
  await sleeve.getByRole("button", { name: /^Count / }).click();
  await sleeve.getByLabel("Counted").fill("7");
  await sleeve.getByRole("button", { name: "It came", exact: true }).click();
  await expect(sleeve.getByRole("status")).toHaveText("7 counted, not sent yet");
  await expect(page.getByText(/1 change is kept on this page/)).toBeInViewport();
  expect(await receipts()).toEqual([]);
  // the phone is put away and taken out again
  await page.reload();
  await expect(sleeve.getByRole("status")).toHaveText("7 counted, not sent yet");
  await expectAccessible(page);
  await page.unroute("**/receipts");
  await expect(sleeve).toContainText(/7 of \d+/);
  await expect(sleeve.getByRole("status")).toHaveCount(0);
  await page.reload();
  await expect(sleeve).toContainText(/7 of \d+/);
  expect(await receipts()).toEqual([7]);
});

/** A photo of twelve by eight pixels with what a phone writes of it: it is to be turned by a quarter. */
function onItsSide(): Buffer {
  const picture = Buffer.from(
    "/9j/2wBDABsSFBcUERsXFhceHBsgKEIrKCUlKFE6PTBCYFVlZF9VXVtqeJmBanGQc1tdhbWGkJ6jq62rZ4C8ybqmx5moq6T/2wBDARweHigjKE4rK06kbl1upKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKT/wAARCAAIAAwDASIAAhEBAxEB/8QAFgABAQEAAAAAAAAAAAAAAAAAAAIE/8QAIBAAAQIFBQAAAAAAAAAAAAAAABIUAgQREyExUVJhcf/EABUBAQEAAAAAAAAAAAAAAAAAAAMF/8QAFhEBAQEAAAAAAAAAAAAAAAAAAAER/9oADAMBAAIRAxEAPwCVyjJFqNzzrjX3bozAAqcmP//Z",
    "base64",
  );
  const told = "457869660000" + "4d4d002a00000008" + "0001" + "0112000300000001" + "00060000" + "00000000";
  const head = Buffer.from([0xff, 0xe1, 0, told.length / 2 + 2]);
  return Buffer.concat([picture.subarray(0, 2), head, Buffer.from(told, "hex"), picture.subarray(2)]);
}
