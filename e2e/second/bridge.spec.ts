import { ask, expect, expectAccessible, releasedDemoRun, test } from "../kit.ts";

test("a bridge is mended when its neighbours were measured, by keys; one that still beeps stays, with where", async ({
  page,
}) => {
  const run = await releasedDemoRun(page, "Kiln Watch", "bridged", 4, "build");
  const fault = { unit: 1, code: "bridge", on: "2026-12-01", isMended: false, note: "" };
  for (const at of ["U1.4", "U1"]) await ask(page, "POST", `/api/runs/${run}/defects`, { ...fault, at });
  await page.goto(`/runs/${run}/build?view=board&unit=1`);
  const wrong = page.getByRole("region", { name: "What was found wrong" });
  await wrong.getByRole("button", { name: "board 1, U1.4: bridge: it is mended" }).press("Enter");
  const panel = wrong.getByRole("region", { name: "The bridge at U1.4" });
  const pairs = panel.getByRole("list", { name: "Between which it must be silent" }).getByRole("listitem");
  await expect(pairs.first()).toBeVisible();
  const many = await pairs.count();
  expect(many).toBeGreaterThan(0);
  await expectAccessible(page);
  await pairs
    .first()
    .getByRole("button", { name: /: beeps$/ })
    .press("Enter");
  await panel.getByRole("button", { name: "Still there: keep what was found" }).press("Enter");
  await expect(panel).toHaveCount(0);
  await expect(wrong).toContainText(/still joined: U1\.4 – U1\./);
  // three heats, and it is left to cool; then every pair is silent
  await wrong.getByRole("button", { name: "board 1, U1.4: bridge: it is mended" }).press("Enter");
  for (let heat = 0; heat < 3; heat++)
    await panel.getByRole("button", { name: "heated once more" }).press("Enter");
  await expect(panel).toContainText("let it cool");
  await expect(panel.getByRole("button", { name: /^It is gone/ })).toHaveCount(0);
  for (let n = 0; n < many; n++)
    await pairs
      .nth(n)
      .getByRole("button", { name: /: silent$/ })
      .press("Enter");
  await panel.getByRole("button", { name: "It is gone: keep it" }).press("Enter");
  await expect(wrong).toContainText("measured silent: U1.4");
  await expect(
    wrong.getByRole("button", { name: "board 1, U1.4: bridge: not mended after all" }),
  ).toBeVisible();
  // of a chip with many pins it is to be said at which
  await wrong.getByRole("button", { name: "board 1, U1: bridge: it is mended" }).press("Enter");
  const whole = wrong.getByRole("region", { name: "The bridge at U1", exact: true });
  await whole.getByLabel(/neighbours: at which pin is it/).fill("U1.4");
  await whole.getByLabel(/neighbours: at which pin is it/).press("Enter");
  await expect(whole.getByRole("list", { name: "Between which it must be silent" })).toBeVisible();
});
