import { enterDemo, expect, expectAccessible, stage, startRun, test } from "./kit.ts";

const standIns = process.env.STANDINS_URL;

test("a supplier goes down in the middle of a refresh: the others' answers are kept, its own come later", async ({
  page,
  request,
}) => {
  test.skip(!standIns, "the stand-ins' address is not told");
  test.setTimeout(120_000);
  const control = (query: string) => request.post(`${standIns}/control?${query}`);
  await enterDemo(page);
  await startRun(page, "Probe Tail", "a bad day", 33);
  await stage(page, "Source");
  try {
    await control("failing=brindle");
    await page.getByRole("button", { name: /Ask (the suppliers|again)/ }).click();
    const asked = page.getByRole("list", { name: "Suppliers asked" });
    const row = asked.getByRole("listitem").filter({ hasText: "Brindle & Otter" });
    await expect(row).toContainText(/asked again in a moment/);
    await expect(row).toContainText("The feed is down for maintenance.");
    await expect(asked.getByRole("listitem").filter({ hasText: "Fennimore Parts" })).toContainText(
      /\d+ offers/,
    );
    await expectAccessible(page);
    // what is there already can be worked with, and a reload loses nothing of it
    await expect(page.getByRole("columnheader", { name: "Whole basket" })).toBeVisible();
    await page.reload();
    await expect(row).toBeVisible();
    await control("failing=");
    await expect(asked).toBeHidden({ timeout: 40_000 });
    const before = await page.getByText(/sets? of suppliers compared/).textContent();
    // a day without it: given up in words, its older offers stay
    await control("failing=brindle");
    await page.getByRole("button", { name: "Ask again" }).click();
    await expect(row).toContainText(/did not answer in 4 tries; its older offers were kept/, {
      timeout: 60_000,
    });
    expect(await page.getByText(/sets? of suppliers compared/).textContent()).toBe(before);
  } finally {
    await control("failing=");
  }
});
