import { expect, type Page, test } from "@playwright/test";
import { ask, demoRun, expectAccessible, expectAccessibleByNight, expectSaid, openStage } from "../kit.ts";

/** A released run of Kiln Watch whose plan is four items: a resistance, two rails one behind the other, a lamp. */
async function plannedRun(page: Page, name: string): Promise<string> {
  const run = await demoRun(page, "Kiln Watch B", name, 3, "assemble");
  const plain = { drives: [], through: [], expect: "", minutes: 0.3 };
  const volts = { ...plain, state: "powered", unit: "V" };
  const tests = [
    {
      ...plain,
      id: "a",
      name: "VIN to ground",
      state: "bare",
      reads: ["J1.1", "J1.2"],
      unit: "Ω",
      min: "200",
      max: "121000",
    },
    {
      ...volts,
      id: "b",
      name: "V5 volts",
      reads: ["J2.5"],
      through: ["F1", "D1", "L1"],
      min: "4.75",
      max: "5.25",
    },
    {
      ...volts,
      id: "c",
      name: "V33 volts",
      reads: ["J4.1"],
      through: ["F1", "D1", "L1", "U4"],
      min: "3.135",
      max: "3.465",
    },
    { ...plain, id: "d", name: "D2 lights", state: "programmed", reads: ["D2.1"] },
  ];
  const { version } = await ask<{ version: number }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "PATCH", `/api/runs/${run}`, { version, assembly: { tests, competent: "Mira Odell" } });
  await ask(page, "POST", `/api/runs/${run}/release`);
  await openStage(page, run, "build");
  return run;
}

test("first power is worked out of the nets once somebody is named, and becomes items of the plan; limits that are crossed are told", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "to be powered", 3, "assemble");
  await page.getByRole("button", { name: "first power" }).press("Enter");
  const power = page.getByRole("region", { name: "First power" });
  // it switches relays: nothing is offered before somebody competent is named
  await expect(power).toContainText("What is switched stays disconnected");
  await expect(power.getByRole("table", { name: "Rails" })).toHaveCount(0);
  await power.getByLabel(/^Who stands beside it/).fill("Mira Odell");
  await power.getByLabel(/^Who stands beside it/).press("Enter");
  const rails = power.getByRole("table", { name: "Rails" });
  // 9 + 2 × 0.9 + 0.4 mA of the chips on V33, 0.1 of the regulator, 5 V / 110 kΩ of the divider; by hand
  await expect(rails.getByRole("row").filter({ hasText: "V33" })).toContainText("11.2 mA");
  await expect(rails.getByRole("row").filter({ hasText: "VIN" })).toContainText("200 Ω to 121 kΩ");
  await expect(
    power.getByRole("img", { name: /1 V, stop over 5 mA; 2.5 V, stop over 25 mA; 5 V/ }),
  ).toBeVisible();
  await rails.getByRole("button", { name: /^V33, at rest: 11.2 mA/ }).click();
  await expect(page.getByRole("dialog")).toContainText("U1");
  await page.keyboard.press("Escape");
  await expectAccessible(page);
  await power.getByRole("button", { name: /^Put 8 items into the test plan/ }).press("Enter");
  await expect(power.getByRole("button", { name: "They are in the test plan" })).toBeDisabled();
  await power.getByRole("button", { name: "to the test plan", exact: true }).press("Enter");
  const items = page.getByRole("list", { name: "Items of the test plan" });
  await expect(items.getByRole("listitem")).toHaveCount(8);
  // one more that is answered by yes or no; limits that are crossed are told
  await page.getByRole("button", { name: "Add an item" }).press("Enter");
  await items.getByLabel("What is tried").fill("D2 lights");
  await items.getByLabel("What is tried").press("Enter");
  await items.getByLabel("Read at").fill("D2.1");
  await items.getByLabel("Read at").press("Enter");
  await items.getByLabel("Answered by").selectOption("V");
  await items.getByLabel("At least").fill("3,4");
  await items.getByLabel("At least").press("Enter");
  await items.getByLabel("At most").fill("3");
  await items.getByLabel("At most").press("Enter");
  await expect(items).toContainText("its limits are crossed: at least 3.4 and at most 3");
  await items.getByLabel("Answered by").selectOption({ label: "yes or no" });
  await expect(items).not.toContainText("crossed");
  await expectAccessible(page);
});

test("a rail that fails is read, explained, noted as a fault, mended and tried again on the phone, by keys", async ({
  page,
  browser,
}) => {
  const run = await plannedRun(page, "to be read");
  await page.getByRole("button", { name: "Tests" }).press("Enter");
  await expect(page.getByText("Nothing is tried yet: 4 items a board.")).toBeVisible();
  await page.getByRole("button", { name: "try board 1" }).press("Enter");
  const bench = page.getByRole("region", { name: "At the bench" });
  const status = bench.getByRole("status");
  const meter = bench.getByLabel("What the meter shows, Ω");
  await expect(meter).toBeFocused();
  await expect(bench.getByText("200 to 121000 Ω")).toBeVisible();
  await expectAccessible(page);
  const read = async (text: string) => {
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  };
  // refused, then asked about, then an error that is no failure; nothing of it passes
  await read("1,8 V");
  await expect(bench.getByRole("alert")).toHaveText("“V” is V, and the plan asks for Ω.");
  await meter.fill("");
  await read("1,8");
  await expect(bench.getByRole("alert")).toContainText("would be right as 1.8 kΩ");
  await meter.fill("");
  await read("OL");
  await expect(bench.getByRole("alert")).toContainText("beyond the range of the meter");
  await expect(status).toHaveText("0 of 4 tried");
  await read("1k8");
  await expect(status).toHaveText("1 of 4 tried");
  await expect(bench.getByLabel("What the meter shows, V")).toBeFocused();
  await read("4.93");
  await read("2,71");
  await expect(bench.getByRole("alert")).toContainText("2.71 V is outside");
  // what passes speaks for the parts before: the regulator is left, and what hangs behind it
  const may = bench.getByRole("region", { name: "What it may be" });
  await expect(may.getByRole("listitem").filter({ hasText: "U4" })).toContainText("must beep");
  await expectAccessibleByNight(page);
  // what it was is two presses: where by a digit, what by a letter
  await page.keyboard.press("f");
  const pad = bench.getByRole("region", { name: "What is wrong" });
  await expect(pad.getByRole("button", { name: /^U4 / })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("Escape");
  await expect(pad).toHaveCount(0);
  await expect(bench.getByLabel("What the meter shows, V")).toBeFocused();
  await page.keyboard.press("f");
  const where = await pad.getByRole("button", { name: /^U4 / }).textContent();
  await page.keyboard.press(where!.match(/\d$/)![0]);
  await expect(pad.getByRole("button", { name: /^U4 / })).toHaveAttribute("aria-pressed", "true");
  // a photo is taken before it is said what it shows
  await pad.getByLabel("Photos of what is wrong").setInputFiles("docs/screenshots/board.png");
  await expect(pad.getByRole("status")).toHaveText("1 photo goes with it");
  await page.keyboard.press("o");
  await expectSaid(page, "board 1, U4: open");
  await expectSaid(page, "A photo of board 1: open is kept");
  await page.keyboard.press("d");
  await expect(status).toHaveText("3 of 4 tried, 1 failed");
  // yes or no: one press
  await expect(bench.getByText("D2 lights")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(bench.getByText("All 4 are tried, 1 failed.")).toBeVisible();
  await page.keyboard.press("Escape");
  const boards = page.getByRole("table", { name: "Each board by its tests" });
  await expect(page.getByText(/0 of 1 boards tried pass, 0 at the first try, 1 fails/)).toBeVisible();
  await expect(page.getByRole("link", { name: /Build 1 at the bench/ })).toHaveAccessibleName(/1/);

  // mended, it is tried again on the phone; the first try counts for first pass
  const phone = await browser.newContext({ viewport: { width: 390, height: 800 } });
  const small = await phone.newPage();
  await ask(small, "POST", "/api/session/demo");
  await small.goto(`/runs/${run}/build?view=tests`);
  await small.getByRole("button", { name: "V33 volts of board 1 fails: try it" }).click();
  const there = small.getByRole("region", { name: "At the bench" });
  await expect(there.getByRole("list", { name: "Tried so far" })).toContainText("2.71 V fails");
  await there.getByLabel("What the meter shows, V").fill("3,29 V");
  await there.getByRole("button", { name: "enter it" }).click();
  await expect(small.getByText(/1 of 1 boards tried passes, 0 at the first try\./)).toBeVisible();
  await phone.close();
  await expect(boards.getByRole("row")).toContainText("passes");
  const wrong = page.getByRole("region", { name: "What was found wrong" });
  await expect(wrong.getByRole("img", { name: "How often: open 1" })).toBeVisible();
  const photo = wrong.getByRole("button", { name: "Photo 1 of board 1, U4: open" }).locator("img");
  await expect.poll(() => photo.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(1280);
  await wrong.getByLabel("Minutes for board 1, U4: open").fill("6");
  await wrong.getByLabel("Minutes for board 1, U4: open").press("Enter");
  await wrong.getByRole("button", { name: "board 1, U4: open: it is mended" }).press("Enter");
  await expect(wrong.getByRole("button", { name: "board 1, U4: open: not mended after all" })).toBeVisible();
  const table = page.getByRole("table", { name: "Items of the test plan over all boards" });
  await expect(table.getByRole("row").filter({ hasText: "V33 volts" })).toContainText("0 of 1");
  await expectAccessible(page);
});

test("the meter is read at a key; unplugged it gives nothing, beyond its range it is a try without a reading", async ({
  page,
  request,
}) => {
  const control = (query: string) => request.post(`${process.env.STANDINS_URL}/control?${query}`);
  await plannedRun(page, "to be metered");
  await page.getByRole("button", { name: "Tests" }).press("Enter");
  // what it shows is held against the limits as if it were typed
  await page.getByRole("button", { name: "try board 1" }).press("Enter");
  const bench = page.getByRole("region", { name: "At the bench" });
  const status = bench.getByRole("status");
  const meter = bench.getByLabel("What the meter shows, Ω");
  await expect(meter).toBeFocused();
  await page.keyboard.press("m");
  await expect(status).toHaveText("1 of 4 tried");
  await control("unplugged=hand");
  await page.keyboard.press("m");
  await expect(bench.getByRole("alert")).toHaveText(
    "Hand meter gives nothing: The meter is not plugged in. Type what it shows.",
  );
  await control("unplugged=&overflowing=hand");
  await page.keyboard.press("m");
  await expect(bench.getByRole("alert")).toContainText("beyond the range of the meter");
  await control("overflowing=");
  await expect(status).toHaveText("1 of 4 tried");
  await page.keyboard.press("m");
  await expect(status).toHaveText("2 of 4 tried");
  await expect(bench.getByText("kept", { exact: true })).toBeVisible();
  // a slip of the hand is no try
  await expect(bench.getByText("V33 volts", { exact: true })).toBeVisible();
  await page.keyboard.type("33,1");
  await page.keyboard.press("Enter");
  await bench.getByRole("button", { name: "a slip: take it back" }).press("Enter");
  await expect(bench.getByRole("list", { name: "Tried so far" })).toHaveCount(0);
  await page.keyboard.press("Escape");
  const table = page.getByRole("table", { name: "Items of the test plan over all boards" });
  await expect(table.getByRole("row").filter({ hasText: "V5 volts" })).toContainText("1 not read");
});

test("a board is found by its label from anywhere, and at the bench a scanned label brings its board and presses nothing", async ({
  page,
}) => {
  const run = await plannedRun(page, "to be labelled");
  const on = "2026-11-30";
  for (const value of ["2.71", "3.29"])
    await ask(page, "POST", `/api/runs/${run}/tries`, { unit: 1, item: "c", on, value });
  // a label of each, and a board is found by what its label says: typed by a scanner, in any case
  await page.getByRole("button", { name: "Labels" }).press("Enter");
  const labels = page.getByRole("region", { name: "Sheet of labels" });
  const code = labels.getByRole("img").first();
  const serial = (await code.getAttribute("aria-label"))!.replace("Code of ", "");
  expect(serial).toMatch(/^KW\d[0-9A-Z]{3}0001[0-9A-Z]$/);
  await expectAccessible(page);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Bench" })).toBeVisible();
  await page.keyboard.press("/");
  await expect(page.getByRole("combobox")).toBeFocused();
  await page.keyboard.type(serial.toLowerCase());
  await expect(page.getByRole("option", { selected: true })).toContainText("board 1 of to be labelled");
  await page.keyboard.press("Enter");
  const passport = page.getByRole("region", { name: "Passport of board 1" });
  await expect(passport).toContainText(serial);
  await expect(passport.getByRole("table", { name: "What it read" })).toContainText("2.71 V fails → 3.29 V");
  await expect(passport.getByText("not tried to the end")).toBeVisible();
  await expectAccessible(page);
  // at the bench a scanned label brings its board, and none of its letters is taken for a press
  await passport.getByRole("button", { name: "to the bench" }).press("Enter");
  const bench = page.getByRole("region", { name: "At the bench" });
  const which = bench.getByLabel("Which board");
  await expect(bench.getByRole("heading", { level: 1 })).toContainText("lay out the parts");
  await page.goto(page.url().replace("unit=1", "unit=3"));
  await expect(which).toHaveValue("3");
  await expect(bench.getByRole("heading", { level: 1 })).toContainText("lay out the parts");
  // a scanner's keys come at once, whatever the pace of this machine
  const scan = (text: string) =>
    page.evaluate(
      (keys) => {
        for (const key of keys)
          document.body.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
      },
      [...text, "Enter"],
    );
  await scan(serial);
  await expect(which).toHaveValue("1");
  await expect(bench.getByRole("status")).toHaveText(/^0 of \d+ laid out$/);
  await scan(`${serial.slice(0, -1)}${serial.endsWith("0") ? "1" : "0"}`);
  await expectSaid(page, /was mistyped: its last symbol would be/);
  await expect(bench.getByRole("status")).toHaveText(/^0 of \d+ laid out$/);
  // a letter by itself is a press still
  await page.keyboard.press("x");
  await expect(bench.getByText(/^1 piece short of \d+/)).toBeVisible();
});
