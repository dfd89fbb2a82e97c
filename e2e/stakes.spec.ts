import { ask, demoRun, expect, expectAccessible, expectSaid, pressRelease, stage, test } from "./kit.ts";

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

test("what can be known without the files is typed unseen, by keys; what differs is told until one of the two is put right", async ({
  page,
}) => {
  const run = await demoRun(page, "Kiln Watch", "typed again", 12, "release");
  const fold = page.getByRole("button", { name: /^Typed again, unseen/ });
  await expect(fold).toContainText("not done yet");
  await fold.press("Enter");
  await page.getByRole("button", { name: "Type them" }).press("Enter");
  const frame = page
    .getByRole("region", { name: "Typed again, unseen" })
    .and(page.locator("[data-busy-hands]"));
  await expect(frame.getByRole("heading")).toHaveText("the longer side");
  const typed: Readonly<Record<string, string>> = {
    "the longer side": "78",
    "the shorter side": "2.126 in",
    "how many copper layers it has": "4",
    "which revision this is": "rev. b",
    "how many good ones are wanted": "20",
  };
  await page.keyboard.type("about 78");
  await page.keyboard.press("Enter");
  await expect(frame.getByRole("status")).toContainText("“about” is no length");
  await expectAccessible(page);
  // left in the middle, it goes on where it was
  await frame.getByRole("textbox").fill("78");
  await page.keyboard.press("Enter");
  await expect(frame.getByRole("heading")).toHaveText("the shorter side");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Go on typing" }).press("Enter");
  await expect(frame.getByRole("heading")).toHaveText("the shorter side");
  for (;;) {
    const what = await frame
      .getByRole("heading")
      .or(frame.getByText(/ typed\. Now they are held/))
      .textContent();
    if (/ typed\. Now/.test(what!)) break;
    const field = frame.getByRole("textbox");
    await expect(field).toBeFocused();
    const text = typed[what!];
    if (text) {
      await field.fill(text);
      await field.press("Enter");
    } else await field.press("PageDown");
    await expect(frame.getByText(what!, { exact: true })).toHaveCount(0);
  }
  await page.keyboard.press("Enter");
  await expect(fold).toContainText("2 of 5 differ");
  const rows = page.getByRole("table", { name: /^Typed unseen/ }).getByRole("row");
  await expect(rows.nth(1)).toContainText("how many copper layers it has42");
  const look = page.getByRole("region", { name: "To look at" });
  await expect(look).toContainText(
    "Typed without looking, how many good ones are wanted: 20; the run goes by 12.",
  );
  // it was the run that was wrong: the answer stands, and is held against what it goes by now
  const { version } = await ask<{ version: number }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "PATCH", `/api/runs/${run}`, { version, goodBoards: 20 });
  await page.reload();
  await expect(fold).toContainText("1 of 5 differ");
  await expect(look).not.toContainText("how many good ones");
  await expectAccessible(page);
});
