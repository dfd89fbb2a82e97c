import { demoRun, expect, expectAccessible, expectSaid, test, unfold } from "./kit.ts";

test("drills, pads joined to nothing and what differs from another revision: each is shown on the picture at a press", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "each at its place", 5);
  const drills = await unfold(page, "Drills");
  await expect(
    drills.getByRole("row", { name: /^T2, 1 mm.* plated 20 – the house's component/ }),
  ).toBeVisible();
  // a press leads to the first of its holes, the next press to the second
  const picture = page.getByLabel(/^Board, top side/);
  const tool = drills.getByRole("button", { name: /^T2, 1 mm, show hole 1 of 20/ });
  await tool.click();
  await expect(picture).toBeInViewport();
  await expect(drills.getByRole("button", { name: /^T2, 1 mm, show hole 2 of 20/ })).toBeVisible();
  const pads = await unfold(page, "19 pads joined to nothing");
  await expect(pads.getByRole("button", { name: /show on the picture/ })).toHaveCount(12);
  await pads.getByRole("button", { name: "7 more" }).click();
  await expect(pads.getByRole("button", { name: /show on the picture/ })).toHaveCount(19);
  await pads.getByRole("button", { name: "U1.19, show on the picture" }).press("Enter");
  await expect(picture).toBeInViewport();

  await page.getByRole("button", { name: "against A" }).click();
  const against = page.getByRole("region", { name: "Against revision A" });
  await expect(against.getByRole("term").filter({ hasText: "copper top" })).toBeVisible();
  await expect(against).toContainText("2 openings of 199 are missing, paste them with a syringe");
  await expect(against).toContainText(
    "deserves a letter of its own (outline or holes, mask, copper, silkscreen, paste)",
  );
  // the tab of the lid had no room in the slot of before
  await expect(against).toContainText("Tab of the lid does not always fit → fits");
  await expect(against).toContainText("3 rows as before");
  await expectAccessible(page);
  // the one over the other at one place: a key shows the other, a press the place on both
  const over = against.getByRole("application", { name: /^Kiln Watch B over Kiln Watch A, top side/ });
  await expect(over).toBeVisible();
  const seen = against.getByRole("slider", { name: "How much of Kiln Watch B is seen over Kiln Watch A" });
  await expect(seen).toHaveValue("100");
  await page.keyboard.press("x");
  await expect(seen).toHaveValue("0");
  await page.keyboard.press("x");
  await expect(seen).toHaveValue("100");
  const slot = against.getByRole("button", { name: /^drill unplated, difference 1 of 1, 1.6 → 1.82 mm/ });
  await slot.click();
  await expect(slot).toHaveAttribute("aria-pressed", "true");
  await against.getByRole("button", { name: "side by side" }).click();
  await expect(against.getByRole("application")).toHaveCount(2);
  await expectAccessible(page);
  await page.getByRole("button", { name: "against A" }).click();
  await expect(against).toHaveCount(0);
});

test("what is not priced is said wherever a figure stands: spine, cost, curve, bench", async ({ page }) => {
  await demoRun(page, "Kiln Watch B", "more than there is", 600, "cost");
  const open = page.getByTestId("unpriced");
  await expect(open).toHaveText("5 lines are not priced");
  await expect(page.getByText("at least per good board")).toBeVisible();
  await expect(page.getByText("not before", { exact: true })).toBeVisible();
  await expect(page.getByText("at least", { exact: true })).toBeVisible();
  await expect(page.getByText(/^5 lines are not priced: U2, U4, /)).toBeVisible();
  await expect(page.getByTestId("curve-says")).toContainText(
    /From \d+ on more is needed than is in stock: an estimate/,
  );
  await expect(page.getByTestId("stays")).toContainText(
    /The run costs at least .* good boards more than the 600 wanted come of it/,
  );
  await expectAccessible(page);
  // what can be bought for as many as are wanted less is complete, and says nothing of the kind
  await page.getByLabel("good boards", { exact: true }).fill("40");
  await page.getByLabel("good boards", { exact: true }).press("Enter");
  await expect(open).toHaveCount(0);
  await expect(page.getByText("ready by", { exact: true })).toBeVisible();
  await page.getByLabel("good boards", { exact: true }).fill("600");
  await page.getByLabel("good boards", { exact: true }).press("Enter");
  await expect(open).toBeVisible();
  await page.goto("/");
  const row = page.getByRole("row", { name: /more than there is/ });
  await expect(row).toContainText("at least");
  await expect(row).toContainText("5 lines are not priced");
});

test("a house's quotation for the assembly counts for what it was asked for, and for that alone", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "soldered at a house", 40, "assemble");
  const ways = page.getByRole("list", { name: "Who solders: alternatives" });
  await page.getByRole("button", { name: /^Who solders/ }).click();
  await ways
    .getByRole("button", { name: /solders all/ })
    .first()
    .click();
  const place = page.getByRole("region").filter({ hasText: "at the house" });
  await place.getByRole("button", { name: "type its quotation" }).click();
  const quote = page.getByRole("dialog");
  await expect(quote).toContainText("hand parts soldered there too");
  await quote.getByLabel("Sum quoted").fill("612,40");
  await quote.getByLabel("Days at the house").fill("9");
  await quote.getByRole("button", { name: "Use it for this run" }).click();
  await expect(place).toContainText("counts in the place of the estimate");
  await expect(place.getByRole("row", { name: /612\.40/ })).toHaveCount(1);
  await expect(place).toContainText("9 at the house");
  // with the hand parts soldered here it was for something else: said, and the estimate counts
  await page.getByRole("button", { name: /^Who solders/ }).click();
  await ways
    .getByRole("button", { name: /hand parts stay here/ })
    .first()
    .click();
  await expect(place).toContainText(/was for .*: the estimate counts/);
  await expect(place.getByRole("row", { name: /612\.40/ })).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(place.getByRole("row", { name: /612\.40/ })).toHaveCount(1);
  await place.getByRole("button", { name: "remove it" }).click();
  await expect(place.getByRole("row", { name: /612\.40/ })).toHaveCount(0);
  await expectAccessible(page);
});

test("what the price must be: two ways of selling, what each shown price goes into, a list price that loses", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "priced", 20, "cost");
  const price = await unfold(page, "Price");
  await price.getByLabel("Packing, EUR").fill("0,80");
  await price.getByLabel("Packing, EUR").press("Enter");
  await price.getByRole("button", { name: "Add a way of selling" }).press("Enter");
  const ways = price.getByRole("list", { name: "Ways of selling" }).getByRole("listitem");
  await ways.getByLabel("Sold by").fill("own page");
  await ways.getByLabel("Sold by").press("Enter");
  await ways.getByLabel("takes, %").fill("4.9");
  await ways.getByLabel("takes, %").press("Enter");
  const bar = ways.first().getByRole("img");
  await expect(bar).toHaveAccessibleName(
    /^what one costs \d+\.\d\d, fees \d+\.\d\d, tax and rebate \d+\.\d\d, what stays \d+\.\d\d$/,
  );
  // the parts come to the price that is shown
  const told = (await bar.getAttribute("aria-label"))!.match(/\d+\.\d\d/g)!.map(Number);
  const shown = Number(
    (await ways
      .first()
      .getByText(/^\d+\.90$/)
      .textContent())!,
  );
  expect(Math.abs(told.reduce((a, b) => a + b, 0) - shown)).toBeLessThan(0.025);
  await expect(ways.first()).toContainText("leaves");
  await ways.getByLabel("takes, %").fill("much");
  await ways.getByLabel("takes, %").press("Enter");
  await expectSaid(page, /own page: “much” is no share/);
  await expect(ways.getByLabel("takes, %")).toHaveValue("4.9");
  await ways.getByLabel("price today").fill("2.90");
  await ways.getByLabel("price today").press("Enter");
  await expect(ways.first()).toContainText("loses");
  await expectAccessible(page);
  await price.getByRole("button", { name: "Remove own page" }).press("Enter");
  await expect(ways).toHaveCount(0);
});
