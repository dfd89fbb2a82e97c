import { demoRun, expect, expectAccessible, expectSaid, pressRelease, stage, test } from "./kit.ts";

test("what is open stands by what it costs not to look; a check that is closed takes its share with it", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch", "what it costs not to look", 40, "release");
  const left = page.getByRole("region", { name: "What is left open" });
  await expect(left).toContainText(/\d+ checks? left open/);
  const read = async () => {
    const text = (await left.textContent())!;
    return {
      checks: Number(/(\d+) checks? left/.exec(text)![1]),
      lost: Number(/open, (?:at least )?([\d,]+\.\d\d) EUR/.exec(text)![1]!.replace(",", "")),
    };
  };
  // the dearest of those that do not block can be accepted, and its sum tells what it is made of
  const look = page.getByRole("region", { name: "To look at" });
  const row = look.getByRole("listitem").first();
  const figure = row.getByRole("button", { name: /^What it costs not to look/ });
  const worth = Number(/([\d,]+\.\d\d)/.exec((await figure.textContent())!)![1]!.replace(",", ""));
  await figure.click();
  await expect(page.getByRole("dialog")).toContainText("turns out to be wrong");
  await page.keyboard.press("Escape");
  await left.getByRole("button", { name: "30 minutes" }).click();
  await expect(left.getByRole("status")).toContainText(/look at [\d, ]+: [\d,.]+ EUR of it in \d+ minutes/);
  await expectAccessible(page);
  await row.getByRole("button", { name: "accept with a reason" }).click();
  await page.getByRole("textbox", { name: "Reason" }).fill("looked at on paper, one to one");
  // as late as may be: other journeys say something of the demo's board meanwhile, and that is open here too
  const before = await read();
  await page.keyboard.press("Enter");
  await expectSaid(page, "Accepted with a reason");
  await expect.poll(async () => (await read()).checks).toBe(before.checks - 1);
  expect((await read()).lost).toBeCloseTo(before.lost - worth, 1);

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
  await pressRelease(page);
  await stage(page, "Release");
  await page.getByRole("button", { name: "Take the release back" }).click();
  await expectSaid(page, "The release is taken back; the run can be changed again");
  await expect(page.getByRole("button", { name: "Release and pack" })).toBeEnabled();
});
