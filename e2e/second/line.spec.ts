import { ask, demoRun, expect, expectAccessible, openStage, released, test } from "../kit.ts";

const POINTS = ["10", "25", "40"];

test("a point that lies off its line fails the board by keys; read anew its constants stand in the passport and on a sticker", async ({
  page,
}) => {
  const run = await demoRun(page, "Probe Tail A", "to be calibrated", 3, "assemble");
  const tests = POINTS.map((applied) => ({
    id: `p${applied}`,
    name: `probe at ${applied} mV`,
    state: "powered",
    drives: ["J1.1"],
    reads: ["J1.2"],
    through: [],
    expect: "",
    minutes: 0.3,
    unit: "mV",
    point: { of: "probe", applied, unit: "mV", worst: "0.05", most: "50", days: 365 },
  }));
  const { version } = await ask<{ version: number }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "PATCH", `/api/runs/${run}`, { version, assembly: { tests } });
  await released(page, run);
  for (const [item, value] of [
    ["p10", "10"],
    ["p40", "39.67"],
  ])
    await ask(page, "POST", `/api/runs/${run}/tries`, { unit: 1, item, value, on: "2026-11-30", words: "" });
  await openStage(page, run, "build");
  await page.getByRole("button", { name: "Tests" }).press("Enter");
  const row = page.getByRole("table", { name: /^Each .* by its tests$/ }).getByRole("row");
  await row.getByRole("button", { name: /^probe at 25 mV of .* 1 open: try it$/ }).press("Enter");
  const bench = page.getByRole("region", { name: "At the bench" });
  await expect(bench).toContainText("apply 25 mV");
  await expect(bench).toContainText("never more than 50 mV");
  const shows = bench.getByLabel("What the meter shows, mV");
  await expect(shows).toBeFocused();
  // 10, 25.2, 39.67: gain 0.989, and the middle one is (25.2 − 0.231667) / 0.989 = 25.246 mV
  await page.keyboard.type("25.2");
  await page.keyboard.press("Enter");
  await expect(bench.getByRole("alert")).toContainText(
    "probe at 25 mV: 0.25 mV off its line at 25 mV, 0.05 allowed. Read it once more",
  );
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await row.getByRole("button", { name: /^probe at 25 mV of .* 1 fails: try it$/ }).press("Enter");
  await expect(shows).toBeFocused();
  await page.keyboard.type("24,86");
  await page.keyboard.press("Enter");
  await expect(row.getByRole("button", { name: /^probe at 25 mV of .* 1 passes/ })).toBeVisible();
  await row.getByRole("link", { name: /1$/ }).press("Enter");
  const its = page.getByRole("list", { name: "Its constants" });
  // 10, 24.86, 39.67: gain 0.989 a mV, 1 / 0.989 = 1.01112; 0.118333 / 0.989 = 0.119649
  await expect(its).toContainText("true mV = 1.01112 × read mV − 0.119649");
  await expect(its).toContainText("at most 0.017 mV off, 0.05 allowed");
  await expect(its).toContainText("true until");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Labels" }).press("Enter");
  await expect(page.getByRole("button", { name: "Print 1 sticker" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Sheet of stickers" })).toContainText(
    "true mV = 1.01112 × read mV − 0.119649",
  );
});
