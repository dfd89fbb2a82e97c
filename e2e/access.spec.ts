import {
  demoRunNamed,
  enterDemo,
  expect,
  expectAccessible,
  expectAccessibleByNight,
  expectPainted,
  openStage,
  test,
  walkIntoDemo,
} from "./kit.ts";

const STAGES = ["board", "parts", "source", "fab", "assemble", "cost", "release", "order"];

test("every view passes the accessibility rules, by day and by night", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "light", reducedMotion: "reduce" });
  await page.goto("/");
  await expect(page.getByRole("button", { name: "Enter the demo shop" })).toBeVisible();
  await expectAccessibleByNight(page);
  await walkIntoDemo(page);
  await expect(page.getByRole("heading", { name: "Products" })).toBeVisible();
  await expectAccessibleByNight(page);
  const id = await demoRunNamed(page, "for the spring fairs");
  for (const s of STAGES) {
    await page.goto(`/runs/${id}/${s}`);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    if (s === "board") await expectPainted(page);
    if (s === "fab") await page.getByRole("button", { name: /^Finish/ }).click();
    if (s === "cost") await expect(page.getByText("quantities as a table")).toBeVisible();
    await expectAccessibleByNight(page);
  }
  await page.goto("/new");
  await expect(page.getByText("Drop the files here")).toBeVisible();
  await expectAccessibleByNight(page);
  for (const [path, ready] of [
    ["/settings", "Settings of"],
    ["/settings/suppliers", "Fennimore Parts"],
    ["/library", "TB-TK31-SO8"],
    ["/shelf", "reel box 2"],
    ["/lessons", "The tab of the lid goes into its slot"],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await expect(page.getByText(ready).first()).toBeVisible();
    await expectAccessibleByNight(page);
  }
  expect(
    await page.evaluate(() =>
      [...document.fonts].some((f) => f.family.includes("Atkinson") && f.status === "loaded"),
    ),
  ).toBe(true);
});

test("a line's sheet, another revision's bill and variants pass the accessibility rules", async ({
  page,
}) => {
  await page.emulateMedia({ colorScheme: "light", reducedMotion: "reduce" });
  await openStage(page, await demoRunNamed(page, "for the spring fairs"), "parts");
  await page.getByRole("gridcell", { name: /^Sheet of U2/ }).click();
  await page.getByRole("button", { name: /HB-TK40-SO8$/ }).click();
  await expect(page.getByRole("table", { name: /HB-TK40-SO8 against/ })).toBeVisible();
  await page.getByRole("button", { name: "against A" }).click();
  await expect(page.getByText(/become useless/)).toBeVisible();
  await expectAccessibleByNight(page);
  await page.getByRole("button", { name: "variants" }).click();
  await page.getByLabel("Find in the parts list").fill("330R");
  await page.getByRole("gridcell", { name: /^Sheet of R9/ }).click();
  await page.getByRole("button", { name: "divider" }).click();
  await expect(page.getByRole("form", { name: "Divider" })).toBeVisible();
  await expectAccessibleByNight(page);
});

test("dialogs and opened sums pass the accessibility rules and give the focus back", async ({ page }) => {
  await page.emulateMedia({ reducedMotion: "reduce" });
  await enterDemo(page);
  await page.getByRole("button", { name: "Start a run of Rack Card A" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Start a run of Rack Card A" })).toBeFocused();
  const id = await demoRunNamed(page, "for the autumn market");
  await page.goto(`/runs/${id}/source`);
  // figures that arrive while it opens draw the row anew; a person presses it again
  const sum = page.getByRole("dialog", { name: /Sum of needed/ });
  await expect(async () => {
    if (!(await sum.isVisible())) await page.getByRole("button", { name: /^needed of U1/ }).click();
    await expect(sum).toBeVisible({ timeout: 3000 });
  }).toPass();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^U1/, expanded: false }).click();
  await page.getByRole("button", { name: "type or paste an offer" }).click();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.goto(`/runs/${id}/fab`);
  await page.getByRole("button", { name: "copy it and edit the copy" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys on this page" })).toBeVisible();
  await expectAccessible(page);
});

test("a planted fault is found, so the rules are really run", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("button", { name: "Enter the demo shop" })).toBeVisible();
  await page.evaluate(() =>
    document
      .querySelector("main")!
      .insertAdjacentHTML(
        "beforeend",
        '<img src="data:image/gif;base64,R0lGODlhAQABAAAAACw="><p style="color:#ddd;background:#fff">pale</p>',
      ),
  );
  await expect(expectAccessible(page)).rejects.toThrow(/image-alt/);
  await page.evaluate(() => {
    document.querySelector("main > img")!.remove();
    document.querySelector<HTMLElement>("main > p:last-child")!.style.cssText =
      "color: light-dark(#000, #555); background: light-dark(#fff, #333)";
  });
  await expectAccessible(page);
  await expect(expectAccessibleByNight(page)).rejects.toThrow(/color-contrast/);
});

test("the bench and the board work on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await enterDemo(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("link", { name: "for the spring fairs", exact: true }).click();
  await expectPainted(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
