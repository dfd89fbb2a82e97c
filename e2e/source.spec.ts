import { demoRun, expect, expectAccessible, test } from "./kit.ts";

test("the basket is proven, and says what it rests on: a supplier's worth, a line's runner-up", async ({
  page,
}) => {
  // at this quantity the figures leave a gap that the solver closes
  await demoRun(page, "Probe Tail", "proof of a basket", 24, "source");
  await page.getByRole("button", { name: /Ask the suppliers|Ask again/ }).click();
  // every supplier has answered: what is read from here on stands
  await expect(page.getByRole("button", { name: "Ask again" })).toBeEnabled();
  await expect(page.getByText("Nothing is cheaper.")).toBeVisible();
  const rests = page.getByRole("group").filter({ hasText: "What it rests on" });
  await expect(rests.getByText(/^without /).first()).toBeVisible();
  await expect(rests.getByText(/nobody else has enough of/).first()).toBeVisible();

  // a line opens by keyboard and says why it is bought so
  const line = page
    .getByRole("row")
    .filter({ hasText: "R1" })
    .getByRole("button", { expanded: false })
    .first();
  await line.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/Runner-up:|a single source/).first()).toBeVisible();
  await expectAccessible(page);

  // doing without a supplier costs what was said: the basket that is chosen is dearer by just that
  const before = Number(
    (await page
      .getByText(/parts .* \+ shipping/)
      .locator("xpath=../td[last()]")
      .textContent())!.replace(/[^\d.]/g, ""),
  );
  const row = rests
    .getByRole("row")
    .filter({ has: page.getByRole("button", { name: /^Choose without / }) })
    .first();
  const more = Number(
    (await row.getByRole("cell").nth(1).textContent())!.replace("−", "-").replace(/[^\d.-]/g, ""),
  );
  await row.getByRole("button").click();
  await expect
    .poll(async () =>
      Number(
        (await page
          .getByText(/parts .* \+ shipping/)
          .locator("xpath=../td[last()]")
          .textContent())!.replace(/[^\d.]/g, ""),
      ),
    )
    .toBeCloseTo(before + more, 1);
});
