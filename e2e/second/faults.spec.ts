import { expect, expectAccessible, releasedDemoRun, test } from "../kit.ts";

test("what ails a board is looked for by keys, one look at a time, kept, and told of the next board that does the same", async ({
  page,
}) => {
  const run = await releasedDemoRun(page, "Probe Tail", "ailing", 4, "build");
  await page.goto(`/runs/${run}/build?view=board&unit=1`);
  const finder = page.getByRole("region", { name: "What may ail it" });
  await finder.getByLabel("What this board does").selectOption({ label: "draws far too much" });
  const causes = finder.getByRole("list", { name: "What it may be" }).getByRole("listitem");
  await expect(causes).toHaveCount(5);
  // the cheapest look for its share comes first: a part the wrong way round, a minute with the lens
  await expect(causes.first()).toContainText("30 %a part sits the wrong way round");
  await expect(finder).toContainText(/found in \d+ min on average; after \d+ min another board is cheaper/);
  await expect(finder).toContainText("nothing that would do so was found on this product yet");
  await expect(finder).toContainText("Current limit first, one hand");
  await finder.getByRole("button", { name: "a part sits the wrong way round: not it" }).press("Enter");
  await expect(causes).toHaveCount(4);
  await expect(causes.first()).toContainText("29 %what is plugged in draws it");
  await finder.getByRole("button", { name: "a bridge: that was it" }).press("Enter");
  await expect(causes.filter({ hasText: "a bridge" })).toContainText("that was it");
  await expectAccessible(page);
  await expect
    .poll(async () => {
      const { record } = (await (await page.request.get(`/api/runs/${run}`)).json()) as {
        record: { sittings?: { marks: Record<string, string> }[] };
      };
      return record.sittings?.[0]?.marks;
    })
    .toEqual({ "check hungry turned": "done", "check hungry bridge": "doubt" });
  await page.reload();
  await expect(
    finder.getByRole("button", { name: "a part sits the wrong way round: open again" }),
  ).toBeVisible();
  await finder.getByRole("button", { name: "not after all" }).press("Enter");
  await expect(finder.getByRole("button", { name: "a bridge: that was it" })).toBeVisible();

  // a second one that does so: what befalls boards one by one is less likely by far
  await page.goto(`/runs/${run}/build?view=board&unit=2&symptom=hungry`);
  await expect(finder).toContainText(
    "2 boards do so: that each has a bad joint, placing or part of its own is 0.2 times as likely",
  );
  await expect(causes.first()).toContainText("50 %what is plugged in draws it");
});
