import type { Page } from "@playwright/test";
import { ask, demoRun, expect, expectAccessible, openStage, released, test } from "../kit.ts";

const POINTS = ["10", "25", "40"];

/** A released run of three probe tails with a test plan. */
async function plannedRun(page: Page, name: string, tests: readonly object[]): Promise<string> {
  const run = await demoRun(page, "Probe Tail A", name, 3, "assemble");
  const { version } = await ask<{ version: number }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "PATCH", `/api/runs/${run}`, { version, assembly: { tests } });
  await released(page, run);
  return run;
}
const plain = { state: "powered", drives: ["J1.1"], reads: ["J1.2"], through: [], expect: "", minutes: 0.3 };
const tried = (page: Page, run: string, item: string, said: object) =>
  ask(page, "POST", `/api/runs/${run}/tries`, { unit: 1, item, ...said, on: "2026-11-30", words: "" });

test("a point that lies off its line fails the board by keys; read anew its constants stand in the passport and on a sticker", async ({
  page,
}) => {
  const tests = POINTS.map((applied) => ({
    ...plain,
    id: `p${applied}`,
    name: `probe at ${applied} mV`,
    unit: "mV",
    point: { of: "probe", applied, unit: "mV", worst: "0.05", most: "50", days: 365 },
  }));
  const run = await plannedRun(page, "to be calibrated", tests);
  await tried(page, run, "p10", { value: "10" });
  await tried(page, run, "p40", { value: "39.67" });
  await openStage(page, run, "build");
  await page.getByRole("button", { name: "Tests" }).press("Enter");
  const row = page.getByRole("table", { name: /^Each .* by its tests$/ }).getByRole("row");
  await row.getByRole("button", { name: /^probe at 25 mV of .* 1 open: try it$/ }).press("Enter");
  const bench = page.getByRole("region", { name: "At the bench" });
  await expect(bench).toContainText("apply 25 mV");
  await expect(bench).toContainText("never more than 50 mV");
  const shows = bench.getByLabel("What the meter shows, mV");
  await expect(shows).toBeFocused();
  await page.keyboard.type(">25");
  await page.keyboard.press("Enter");
  await expect(bench.getByRole("alert")).toContainText("what only says more or less is no point of a line");
  // 10, 25.2, 39.67: gain 0.989, and the middle one is (25.2 − 0.231667) / 0.989 = 25.246 mV
  await page.keyboard.type("25.2");
  await page.keyboard.press("Enter");
  await expect(bench.getByRole("alert")).toContainText(
    "probe at 25 mV: 0.25 mV off its line at 25 mV, 0.05 allowed. Read it once more",
  );
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  // why it fails stands beside it, though its reading passed
  await expect(row.first()).toContainText("probe at 25 mV, 0.25 mV off its line at 25 mV, 0.05 allowed");
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

test("a board that passes its tests and is in doubt by eye says both, by keys", async ({ page }) => {
  const run = await plannedRun(page, "to be looked at", [{ ...plain, id: "a", name: "it answers" }]);
  await tried(page, run, "a", { says: "yes" });
  await page.goto(`/runs/${run}/build?view=hands&unit=1&step=1`);
  const bench = page.getByRole("region", { name: "At the bench" });
  const step = bench.getByRole("heading", { level: 1 });
  for (let n = 2; !/look over/.test((await step.textContent()) ?? ""); n++) {
    await page.evaluate((to) => {
      history.pushState({}, "", to);
      dispatchEvent(new PopStateEvent("popstate"));
    }, `/runs/${run}/build?view=hands&unit=1&step=${n}`);
    await expect(step).toContainText(`step ${n} of`);
  }
  await expect(bench.getByRole("list", { name: "How its joints should look" })).toBeVisible();
  const refs = await bench.locator("[aria-live=polite] p").first().textContent();
  await expectAccessible(page);
  await page.keyboard.press("d");
  await expect(bench.getByRole("status").first()).toContainText(/^1 of \d+ looked at, 1 in doubt$/);
  await page.keyboard.press("Enter");
  await expect(bench.getByRole("status").first()).toContainText(/^2 of \d+ looked at, 1 in doubt$/);
  await page.keyboard.press("a");
  await expect(step).not.toContainText("look over");
  await expect(bench.getByText("kept", { exact: true })).toBeVisible();
  await page.goto(`/runs/${run}/build?view=board&unit=1`);
  const passport = page.getByRole("region", { name: /^Passport of / });
  await expect(passport).toContainText("passes its tests");
  await expect(passport).toContainText(`in doubt by eye: ${refs}`);
  await expect(passport).toContainText("It works, and does not look as if it will last");
  await expectAccessible(page);
  await page.getByRole("link", { name: "all of them" }).press("Enter");
  await expect(page.getByRole("table", { name: /^Each .* by its tests$/ })).toContainText("in doubt by eye");
});
