import { demoRun, expect, expectAccessible, expectSaid, pressRelease, stage, test } from "./kit.ts";

test("what is open stands by what it costs not to look; a check that is closed takes its share with it", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch", "what it costs not to look", 40, "release");
  const left = page.getByRole("region", { name: "What is left open" });
  await expect(left).toContainText(/\d+ checks? left open/);
  /** Checks that are told to be open and those that are listed, and what both come to, from one moment. */
  const listed = () =>
    page.evaluate(() => {
      const money = (text: string) => Number(/([\d,]+\.\d\d) EUR/.exec(text)?.[1]?.replace(",", "") ?? 0);
      const told = document.querySelector('section[aria-label="What is left open"]')?.textContent ?? "";
      const rows = ["Blockers", "To look at", "Only not known"].flatMap((of) => [
        ...document.querySelectorAll(`section[aria-label="${of}"] > ol > li`),
      ]);
      const figures = rows.map((r) => r.querySelector('button[aria-label^="What it costs not to look"]'));
      return {
        more: rows.length - Number(/(\d+) checks? left/.exec(told)?.[1] ?? Number.NaN),
        rows: rows.length,
        lost: money(told),
        sum: figures.reduce((n, f) => n + money(f?.textContent ?? ""), 0),
      };
    });
  // the dearest of those that do not block can be accepted, and its sum tells what it is made of
  const look = page.getByRole("region", { name: "To look at" });
  const row = look.getByRole("listitem").first();
  const figure = row.getByRole("button", { name: /^What it costs not to look/ });
  const said = (await row.locator("p").first().textContent())!.slice(-60);
  await figure.click();
  await expect(page.getByRole("dialog")).toContainText("turns out to be wrong");
  await page.keyboard.press("Escape");
  await left.getByRole("button", { name: "30 minutes" }).click();
  await expect(left.getByRole("status")).toContainText(/look at [\d, ]+: [\d,.]+ EUR of it in \d+ minutes/);
  await expectAccessible(page);
  await row.getByRole("button", { name: "accept with a reason" }).click();
  await page.getByRole("textbox", { name: "Reason" }).fill("looked at on paper, one to one");
  await page.keyboard.press("Enter");
  await expectSaid(page, "Accepted with a reason");
  await expect(look).not.toContainText(said);
  await expect(page.getByRole("region", { name: "Accepted with a reason" })).toContainText(said);
  // other journeys say something of the demo's board meanwhile: at any moment what is told is what is listed
  await expect.poll(listed).toMatchObject({ more: 0 });
  const now = await listed();
  expect(now.lost).toBeGreaterThan(0);
  expect(Math.abs(now.sum - now.lost)).toBeLessThan(0.006 * (now.rows + 1));

  // released in a hurry, and taken back while nothing was done of it; what other journeys say of the demo's board meanwhile
  // blocks this run too, and is accepted
  const release = page.getByRole("button", { name: "Release and pack" });
  const blockers = page.getByRole("region", { name: "Blockers" });
  await expect(async () => {
    const accept = blockers.getByRole("button", { name: "accept with a reason" });
    if ((await accept.count()) > 0) {
      await accept.first().click();
      await page.getByRole("textbox", { name: "Reason" }).fill("said by somebody else meanwhile");
      await page.keyboard.press("Enter");
    }
    await expect(release).toBeEnabled({ timeout: 2000 });
  }).toPass({ timeout: 60_000 });
  // what is refused stands at the button until the next try
  await page.route("**/release", (route) =>
    route.fulfill({
      status: 409,
      json: {
        code: "STALE_VERSION",
        message: "Something was changed while it was being packed.",
        hint: "Look and release again.",
      },
    }),
  );
  await release.click();
  await expect(page.getByRole("alert")).toContainText("while it was being packed. Look and release again.");
  await page.unroute("**/release");
  await pressRelease(page);
  await stage(page, "Release");
  await page.getByRole("button", { name: "Take the release back" }).click();
  await expectSaid(page, "The release is taken back; the run can be changed again");
  await expect(page.getByRole("button", { name: "Release and pack" })).toBeEnabled();
});
