import { ask, demoArchive, expect, expectAccessible, expectSaid, keptRun, newShop, test } from "../kit.ts";

test("paste that was opened too long ago is told at the list, in the margin, before the build and at the print", async ({
  page,
}) => {
  // a shop of its own: a tub that is past its day is told in every run of it
  await newShop(page, "Tub Works");
  const run = await keptRun(page, demoArchive("probe-tail"), "Tail", "source");
  await page.getByRole("button", { name: "Ask the suppliers" }).click();
  await expect(page.getByRole("button", { name: "Ask again" })).toBeEnabled();
  await page.goto("/settings/equipment");
  await page.getByLabel("Another").selectOption("paste");
  await page.getByLabel("called").fill("green tub");
  await page.getByLabel("called").press("Enter");
  const tub = page.getByRole("group", { name: /^green tub/ });
  await expect(tub).toContainText("until when it is good is not said");
  await tub.getByRole("button", { name: "green tub is opened today" }).press("Enter");
  await expect(tub).toContainText("good for how long is not said");
  await tub.getByLabel("Good for, days from then").fill("a month");
  await tub.getByLabel("Good for, days from then").press("Enter");
  await expectSaid(page, /“a month” is no number of days/);
  await tub.getByLabel("Good for, days from then").fill("90");
  await tub.getByLabel("Good for, days from then").press("Enter");
  await expect(tub).toContainText(/good until .*, opened on/);
  await tub.getByLabel("Good until, by its label").fill("31 Jan 2020");
  await tub.getByLabel("Good until, by its label").press("Enter");
  await expect(tub).toContainText("was good until 31 Jan 2020, by its label");
  await expectAccessible(page);

  await page.goto(`/runs/${run}/assemble`);
  await expect(page.getByRole("complementary")).toContainText(
    "Solder paste: green tub was good until 31 Jan 2020",
  );
  await ask(page, "POST", `/api/runs/${run}/release`);
  await page.goto(`/runs/${run}/build`);
  const ready = page.getByRole("region", { name: "Ready to build" });
  await expect(ready.getByRole("list", { name: "What is used up" })).toContainText(
    "green tub was good until",
  );
  await expectAccessible(page);
  const { steps } = await printStep(page, run);
  await page.goto(`/runs/${run}/build?view=hands&unit=1&step=${steps}`);
  const bench = page.getByRole("region", { name: "At the bench" });
  await expect(bench.getByRole("list", { name: "What is used up" })).toContainText(
    "green tub was good until",
  );
  // a fresh one is written down, and nothing stands in the way any more: the list as it is now counts, not as it was released
  const { equipment } = await ask<{ equipment: { id: string; name: string }[] }>(
    page,
    "GET",
    "/api/equipment",
  );
  const { id } = equipment.find((e) => e.name === "green tub")!;
  await ask(page, "PATCH", `/api/equipment/${id}`, { facts: { keepsUntil: "2099-12-31" } });
  await page.reload();
  await expect(bench).toBeVisible();
  await expect(bench.getByRole("heading", { level: 1 })).toContainText("print");
  await expect(bench.getByRole("list", { name: "What is used up" })).toHaveCount(0);
});

/** Number of the step at which paste is printed. */
async function printStep(page: Parameters<typeof ask>[0], run: string): Promise<{ steps: number }> {
  await page.goto(`/runs/${run}/assemble?of=order`);
  const row = page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /print/i }).first();
  return { steps: Number(/\d+/.exec((await row.textContent()) ?? "")![0]) };
}
