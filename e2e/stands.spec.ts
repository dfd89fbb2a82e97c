import { demoRun, expect, expectAccessible, expectSaid, stage, test } from "./kit.ts";

test("what stands on the board is seen from a corner, what is in the way with the move that clears it, and what a lid needs", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "under its lid", 20);
  await page.keyboard.press("i");
  const stands = page.getByRole("region", { name: "What stands on it" });
  await expect(stands).toContainText("1 pair in each other's way");
  const view = stands.getByRole("img", { name: "The top with 69 bodies, seen from a corner above" });
  await expect(view).toBeVisible();
  await expectAccessible(page);
  // R20 stands at 9/18.5, 0.8 wide; the terminal is 7.6 deep about 5.5: its side at 9.3 is 0.7 beyond R20's at 8.6
  const clash = stands.getByRole("button", {
    name: "The bodies of J1 and R20 lie 0.7 mm in each other as drawn.",
  });
  await clash.click();
  await expect(clash).toHaveAttribute("aria-pressed", "true");
  await expect(stands).toContainText("Move R20 0.9 mm to the right: the smallest move that clears it.");
  await expect(view).toContainText("R20");
  const drawn = () => view.locator("path").first().getAttribute("d");
  const was = await drawn();
  await page.keyboard.press("q");
  await expect.poll(drawn).not.toBe(was);
  // the tallest of each field, as the library says
  await expect(stands.getByRole("button", { name: "J3 10 mm" })).toBeVisible();

  // a lid lower than the terminals: the library's 10 ± 0.1 in 10 ± 0.2
  await page.getByRole("button", { name: "does it fit" }).click();
  const sheet = page.getByRole("region", { name: "Fit sheet" });
  await sheet.getByRole("button", { name: "Change What stands under the lid" }).click();
  const form = page.getByRole("form", { name: "Change What stands under the lid" });
  await form.getByLabel("Room above its face, mm").fill("10");
  await form.getByLabel("± mm").fill("0.2");
  await form.getByRole("button", { name: "Save" }).click();
  const row = sheet.getByRole("listitem").filter({ hasText: "What stands under the lid" });
  await expect(row).toContainText("does not always fit");
  await expect(row).toContainText("room of 10.3 mm instead of 10 always fits");
  // in a field without the terminals there is room
  await sheet.getByRole("button", { name: "Change What stands under the lid" }).click();
  await form.getByLabel("In a field only, mm").fill("30 20 60 40");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(row).toContainText("U2, 1.75 mm high at most");
  await expect(row.getByText("fits", { exact: true })).toBeVisible();
});

test("a place that is meant to be something is picked by keys, judged by every layer, and stands in the way until the files do it", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "with a clip", 20);
  await page.getByRole("button", { name: "does it fit" }).click();
  const sheet = page.getByRole("region", { name: "Fit sheet" });
  await sheet.getByRole("button", { name: "Add what it must fit" }).click();
  const form = page.getByRole("form", { name: "A row of the fit sheet" });
  await form.getByRole("button", { name: "a place that is meant to be something" }).click();
  await form.getByLabel("What it is called").fill("Light of the status lamp");
  await form.getByRole("button", { name: "Judge it" }).click();
  await expect(form.getByRole("alert")).toContainText("Pick the place on the picture.");
  const picture = form.getByRole("application", { name: /^Pick the place/ });
  await picture.focus();
  // three steps to the left of the middle: on the board, beside everything
  await picture.press("Enter");
  await expect(form.getByText(/^Picked: /)).toBeVisible();
  await form.getByLabel("It is meant to be").selectOption({ label: "a window for light" });
  await expectAccessible(page);
  await form.getByRole("button", { name: "Judge it" }).click();
  await expectSaid(page, "Light of the status lamp is judged from now on");
  const row = sheet.getByRole("listitem").filter({ hasText: "Light of the status lamp" });
  // the files are read in the background; the page hears of it
  await expect(row).toContainText("is not as meant", { timeout: 20_000 });
  await expect(row).toContainText("✗ no copper top: copper top");
  await expect(row.locator("canvas")).toHaveCount(8);
  await expectAccessible(page);
  await stage(page, "Release");
  await expect(
    page.getByText(/Light of the status lamp is not a window for light, as it is meant to be/).first(),
  ).toBeVisible();
});

test("posts come out of a drawing that does not say its unit, which is asked; a binary file is refused", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "on drawn posts", 20);
  await page.getByRole("button", { name: "does it fit" }).click();
  const sheet = page.getByRole("region", { name: "Fit sheet" });
  await sheet.getByRole("button", { name: "Add what it must fit" }).click();
  const form = page.getByRole("form", { name: "A row of the fit sheet" });
  const drawing = form.getByLabel("Or out of a drawing, DXF or SVG");
  await drawing.setInputFiles({
    name: "case.dxf",
    mimeType: "image/vnd.dxf",
    buffer: Buffer.from([65, 0, 1, 2]),
  });
  await expect(form.getByRole("alert")).toContainText("case.dxf: The file is binary");
  const posts = [
    [4, 4],
    [74, 4],
    [4, 50],
    [74, 50],
  ].map(([x, y]) => `<circle cx="${x}" cy="${-y!}" r="1.4"/>`);
  await drawing.setInputFiles({
    name: "case.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 -60 90 60"><circle cx="40" cy="-30" r="6"/>${posts.join("")}</svg>`,
    ),
  });
  await expect(form).toContainText("case.svg does not say how large its unit is.");
  await form.getByLabel("One of its units is").selectOption({ label: "a millimetre" });
  await form.getByRole("button", { name: "take 4 circles of 2.8 mm" }).click();
  for (const box of await form.getByRole("checkbox").all()) await box.check();
  await form.getByLabel("What it must fit").fill("Posts as drawn");
  await form.getByRole("button", { name: "Judge it" }).click();
  const row = sheet.getByRole("listitem").filter({ hasText: "Posts as drawn" });
  await expect(row).toContainText("4 holes of 3.2 mm");
  await expect(row).toContainText("on posts of 2.8 mm");
});
