import { demoArchive, expect, expectAccessible, expectSaid, keptRun, newShop, perGood, test } from "./kit.ts";

test("the order of work: read, changed by keys, a part that covers the programming pads mended, printed", async ({
  page,
}) => {
  await newShop(page, "Order Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  const steps = page.getByRole("list", { name: "Steps" });
  await expect(steps.getByRole("button").first()).toContainText("lay out the parts");
  const iron = steps.getByRole("button").filter({ hasText: "solder by iron" });
  await iron.click();
  await expect(page).toHaveURL(/step=\d/);
  const lines = page.getByRole("list", { name: "Lines of this step" });
  const refOf = async (n: number) =>
    (await lines.getByRole("listitem").nth(n).locator("span.num").first().textContent())!.split(" ")[0]!;
  const [first, second] = [await refOf(0), await refOf(1)];

  // by keys alone: the second before the first
  await page.getByRole("button", { name: `${second} earlier` }).focus();
  await page.keyboard.press("Enter");
  await expect(lines.getByRole("listitem").first()).toContainText(second);
  await expect(page.getByRole("table", { name: "In which order" })).toContainText("your own");
  await page.keyboard.press("Control+z");
  await expect(lines.getByRole("listitem").first()).toContainText(first);
  await expectAccessible(page);

  // it is programmed at J4, and a chip that goes through the heat is said to cover J4
  await page.getByLabel("Programmed at").fill("J4");
  await page.getByLabel("Programmed at").press("Enter");
  await expect(steps.getByRole("button").filter({ hasText: /^\d+\s*program/ })).toContainText("J4");
  await page.keyboard.press("Escape");
  await steps.getByRole("button").filter({ hasText: "place, top" }).first().click();
  await page.getByText("what its parts cover").click();
  await page.getByLabel("U4 covers").fill("J4");
  await page.getByLabel("U4 covers").press("Enter");
  const wrong = page.getByRole("region", { name: "What cannot all be" });
  await expect(wrong).toContainText("U4 covers J4");
  await expect(page.getByText("blockers left").locator("..")).not.toContainText(/\b0\b/);
  await wrong.getByRole("button", { name: "Solder U4 by hand, after the heat" }).click();
  await expectSaid(page, "U4: by hand, after the heat");
  await expect(wrong).toHaveCount(0);
  // its turn is after programming now
  const told = await steps.getByRole("button").allTextContents();
  const at = (what: RegExp) => told.findIndex((t) => what.test(t));
  expect(at(/U4/)).toBeGreaterThan(at(/^\d+\s*program/));

  await page.evaluate(() => {
    window.print = () => {
      const paper = document.querySelector("[data-printing]") as HTMLElement;
      document.body.dataset.paper = paper.textContent ?? "";
    };
  });
  await page.getByRole("button", { name: "print the traveller" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-paper", /solder by iron/);
  const paper = (await page.locator("body").getAttribute("data-paper"))!;
  // the same lines in the same order lie in the tray, filled for the four of a load
  await page.getByRole("button", { name: "tray map" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-paper", /Filled for 4 at a time/);
  const tray = (await page.locator("body").getAttribute("data-paper"))!;
  expect(tray).toMatch(/1step 3/);
  expect(tray.match(/step \d/g)!.length).toBeGreaterThan(20);
  for (const said of [/Kiln Watch/, /planned, took/, /Covers what was done before: U4/, /Readings/])
    expect(paper).toMatch(said);
});

test("a temperature log is dropped at the heat and judged; half a log is refused", async ({ page }) => {
  await newShop(page, "Heat Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  await page.getByRole("list", { name: "Steps" }).getByRole("button").filter({ hasText: "melt" }).click();
  const log = page.getByRole("region", { name: "Temperature log" });
  const drop = (name: string, text: string) =>
    log.locator("input[type=file]").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  await drop("half.csv", "s;Board °C\n0;25\n1;26\n");
  await expect(log.getByRole("status")).toContainText("half.csv: It holds 2 samples");
  // by hand: to 243 °C, above 217 °C for 46 s in all, which is inside
  const corners = [
    [0, 25],
    [60, 150],
    [150, 200],
    [176, 243],
    [195, 243],
    [300, 43],
  ] as const;
  const rows = Array.from({ length: 301 }, (_, s) => {
    const k = Math.max(
      0,
      corners.findLastIndex(([t]) => t <= s),
    );
    const [[t0, c0], [t1, c1]] = [corners[k]!, corners[k + 1] ?? corners[k]!];
    return `${s};${(t1 === t0 ? c0 : c0 + ((c1 - c0) * (s - t0)) / (t1 - t0)).toFixed(2)}`;
  });
  await drop("oven.csv", `s;Board °C\n${rows.join("\n")}\n`);
  await expect(log.getByRole("status")).toHaveText("oven.csv: inside the window");
  await expect(log.getByRole("img")).toHaveAccessibleName(/Board up to 243 °C/);
  // the same log under another alloy is judged anew
  await page.getByLabel("Alloy of the paste").selectOption("lead");
  await expect(log.getByRole("status")).toHaveText("oven.csv: outside the window");
  await expectAccessible(page);
});

test("the ways are set side by side, a break-even is read, and the way is changed from the table", async ({
  page,
}) => {
  // a shop of its own: what others change in the demo's product would begin the curves anew
  await newShop(page, "Ways Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  const hardest = page.getByRole("region", { name: "Hardest" });
  await expect(hardest.getByRole("row").nth(1)).toContainText("U1");
  await page.getByRole("button", { name: /^Side by side/ }).click();
  const table = page.getByRole("table").filter({ hasText: "Way" });
  const row = (name: string) => table.getByRole("row").filter({ hasText: name });
  await expect(row("own stencil and hot plate")).toHaveClass(/font-semibold/);
  // the chosen way's row stands as the run does
  await expect(row("own stencil and hot plate")).toContainText((await perGood(page)).toFixed(2));
  const crossings = page.getByRole("list", { name: "Where one way becomes the cheaper" });
  await expect(crossings).toContainText(/from \d+ boards on no cheaper any more: own iron, part by part/, {
    timeout: 90_000,
  });
  await expectAccessible(page);
  await row("own iron, part by part").getByRole("button", { name: /^Take/ }).click();
  await expectSaid(page, "Soldered: own iron, part by part");
  await expect(row("own iron, part by part")).toHaveClass(/font-semibold/);
});
