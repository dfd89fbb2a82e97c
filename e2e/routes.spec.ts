import { demoArchive, expect, expectAccessible, expectSaid, keptRun, newShop, perGood, test } from "./kit.ts";

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
