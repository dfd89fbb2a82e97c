import { ask, expect, expectAccessible, expectSaid, newShop, releasedDemoRun, test } from "./kit.ts";

test("a lot is measured: what is outside sets it apart, the next lot keeps the limits and is compared", async ({
  page,
}) => {
  await newShop(page, "Measuring Works");
  await page.goto("/shelf");
  const put = async (place: string) => {
    await page.getByLabel("Part number").fill("OX-SENSE-1");
    await page.getByLabel("Pieces", { exact: true }).fill("40");
    await page.getByLabel("Place").fill(place);
    await page.getByLabel("Cost each, EUR").fill("0.50");
    await page.getByRole("button", { name: "Put on the shelf" }).click();
    await expect(page.getByRole("cell", { name: place, exact: true })).toBeVisible();
  };
  await put("drawer 1");
  await page.getByRole("button", { name: "Measured of OX-SENSE-1, drawer 1" }).click();
  const form = page.getByRole("form", { name: "What was measured of OX-SENSE-1" });
  await form.getByLabel("What is measured").fill("gain");
  await form.getByLabel("At least").fill("98");
  await form.getByLabel("At most").fill("102");
  await form.getByLabel(/^Readings/).fill("99\n100\n101\nabout 100");
  await expect(form.getByRole("alert")).toContainText("about 100: no amount");
  await expect(form.getByRole("button", { name: "Keep the readings" })).toBeDisabled();
  await form.getByLabel(/^Readings/).fill("99\n100\n101\n103");
  await expect(form.getByText("1 piece outside the limits")).toBeVisible();
  await expectAccessible(page);
  await form.getByRole("button", { name: "Keep the readings" }).click();
  await expectSaid(page, "4 readings of OX-SENSE-1 kept");
  await form.getByRole("button", { name: "Set the lot apart" }).click();
  await expectSaid(page, "OX-SENSE-1 is set apart: no run takes from it");
  await expect(page.getByLabel("Condition of OX-SENSE-1")).toHaveValue("quarantine");

  // the lot that comes in its place, with another gain
  await put("drawer 2");
  await page.getByRole("button", { name: "Measured of OX-SENSE-1, drawer 2" }).click();
  await expect(form.getByLabel("What is measured")).toHaveValue("gain");
  await expect(form.getByLabel("At least")).toHaveValue("98");
  await form.getByLabel(/^Readings/).fill("90 90.5 90.2");
  await expect(form.getByText("3 pieces outside the limits")).toBeVisible();
  await expect(form.getByText(/against the lot of .*drawer 1: more than chance would make/)).toBeVisible();
});

test("bags are labelled, counted by keys and scanner, traced, and pick their own kind while parts are laid out", async ({
  page,
}) => {
  await page.addInitScript(() => {
    window.print = () =>
      Object.assign(window, { printed: document.querySelector("[data-printing]")?.textContent ?? "" });
  });
  const printed = () => page.evaluate(() => (window as { printed?: string }).printed);
  const run = await releasedDemoRun(page, "Kiln Watch", "in bags", 8, "receive");
  const parcel = page.getByRole("article").filter({ hasText: "TB-LV33-223" });
  // a chip that must not lie in the air: some of it in cut tape, with the date on its bag
  const wet = page
    .getByRole("listitem")
    .filter({ hasText: "TB-TK31-SO8", has: page.getByRole("button", { name: /^Count / }) });
  await wet.getByRole("button", { name: /^Count / }).press("Enter");
  await wet.getByText("by the length of its strips").click();
  await wet.getByLabel("Strips, mm").fill("2,4 cm + 16");
  await wet.getByLabel("Spacing, mm").fill("8");
  await wet.getByLabel("Empty pockets").fill("1");
  await expect(wet).toContainText("4 ± 0");
  await wet.getByRole("button", { name: "take 4" }).press("Enter");
  await expect(wet.getByLabel("Counted", { exact: true })).toHaveValue("4");
  await wet.getByLabel("Date code, since a bag that was sealed long ago is no dry bag").fill("1226");
  await expect(wet).toContainText("week 26 of 2012");
  await expect(wet).toContainText("unless it is week 12 of 2026");
  await wet.getByRole("button", { name: "It came", exact: true }).press("Enter");
  await expect(wet).toContainText(/^.*4 of \d+/);
  await expectAccessible(page);
  await parcel.getByRole("button", { name: /^(All of it|The rest) came$/ }).click();
  await parcel.getByRole("button", { name: /^print \d+ labels$/ }).click();
  await expect.poll(printed).toMatch(/B\d{4}-[0-9A-Z]TB-LV33-223\d+ on .*U4/);
  // other journeys have bags of the same parts in this shop
  type Bag = { number: number; mpn: string; qty: number; reserved: { runId: string }[] };
  const lots = await ask<Bag[]>(page, "GET", "/api/lots");
  const chip = lots.find((l) => l.mpn === "TB-LV33-223" && l.reserved.some((r) => r.runId === run))!;
  const other = lots.find((l) => l.mpn === "TB-RX80-SO8")!;
  const { ids } = await ask<{ ids: string[] }>(page, "POST", "/api/parts", {
    parts: [{ mpn: "ZQ-LEAST-1" }],
  });
  await ask(page, "PATCH", `/api/parts/${ids[0]}`, { keepLeast: 7 });

  // blind: what is written is told once something is counted; a label that is scanned goes to its row
  await page.goto("/shelf");
  const code = (l: Bag) =>
    page.getByText(new RegExp(`^B${String(l.number).padStart(4, "0")}-.$`)).textContent();
  const dated = page.getByRole("row", { name: /TB-TK31-SO8.*1226: \d+ years old/ });
  await dated.getByRole("button", { name: /^Measured of TB-TK31-SO8/ }).press("Enter");
  await page.getByLabel("Date code of TB-TK31-SO8").fill("26W12");
  await page.getByLabel("Date code of TB-TK31-SO8").press("Enter");
  await expect(page.getByText(/^week 12 of 2026, \d+ (months?|years?) old/)).toBeVisible();
  const [chipCode, otherCode] = [(await code(chip))!, (await code(other))!];
  await page.getByRole("button", { name: "count a place" }).press("Enter");
  const counting = page.getByRole("region", { name: "Counting the shelf" });
  const of = (c: string) => counting.getByLabel(new RegExp(`^Counted of .*${c}$`));
  await counting.getByRole("textbox").first().focus();
  await page.keyboard.type(chipCode.replace("-", ""));
  await page.keyboard.press("Enter");
  await expect(of(chipCode)).toBeFocused();
  await page.keyboard.type("a few");
  await expect(
    counting.getByText("no count: write it as 120 or 100+20").filter({ visible: true }),
  ).toBeVisible();
  await expect(counting.getByRole("button", { name: /^Keep/ })).toBeDisabled();
  await of(chipCode).fill(`${chip.qty - 3}+1`);
  await expect(counting).toContainText(`${chip.qty} written, 2 fewer`);
  await of(otherCode).fill(String(other.qty));
  await expect(counting).toContainText("as written");
  await expectAccessible(page);
  await counting.getByLabel("Because").fill("once a quarter");
  await counting.getByRole("button", { name: "Keep 2 counts" }).press("Enter");
  await expectSaid(page, "2 lots counted, 1 otherwise than written");
  await page.getByLabel("Find on the shelf").fill(chipCode);
  await page.getByRole("button", { name: /^Measured of TB-LV33-223/ }).click();
  const moves = page.getByRole("table", { name: "Where TB-LV33-223 came from and went" });
  await expect(moves.getByRole("row").nth(1)).toContainText("−2");
  await expect(moves.getByRole("row").nth(1)).toContainText("once a quarter");
  await expect(moves.getByRole("row").nth(2)).toContainText(`+${chip.qty}`);
  await expectAccessible(page);
  // what is to lie there always is told with how much brings it back
  await page.getByRole("button", { name: /^Too little on the shelf/ }).click();
  const low = page.getByRole("table", { name: "Too little on the shelf" });
  await expect(low.getByRole("row").filter({ hasText: "ZQ-LEAST-1" })).toContainText("077");

  // at the bench a bag lays out its own kind, once; another says what it is and presses nothing
  // scanned before the shelf is read it is taken when it is
  let answer = () => {};
  const asked = new Promise<void>((done) => {
    answer = done;
  });
  await page.route("**/api/lots", async (route) => {
    await asked;
    await route.continue();
  });
  await page.goto(`/runs/${run}/build?view=hands&unit=1`);
  const bench = page.getByRole("region", { name: "At the bench" });
  await expect(bench.getByRole("status")).toHaveText(/^0 of \d+ laid out$/);
  const scan = (text: string) =>
    page.evaluate(
      (keys) => {
        for (const key of keys)
          document.body.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
      },
      [...text, "Enter"],
    );
  await scan(chipCode.replace("-", ""));
  answer();
  await expectSaid(page, /^TB-LV33-223 laid out/);
  await expect(bench.getByRole("status")).toHaveText(/^1 of \d+ laid out$/);
  await scan(chipCode);
  await expectSaid(page, "TB-LV33-223 is laid out already");
  await scan(otherCode);
  await expectSaid(page, new RegExp(`^${otherCode} is .*: this run has none of it\\.$`));
  await expect(bench.getByRole("status")).toHaveText(/^1 of \d+ laid out$/);
});

test("a dry bag tells how long it was out: opened by a press, told where one waits, closed, and past its hours it is to be baked", async ({
  page,
}) => {
  await newShop(page, "Dry Bags");
  await ask(page, "POST", "/api/parts", { parts: [{ mpn: "MB-1" }] });
  const { parts } = await ask<{ parts: { id: string; version: number }[] }>(page, "GET", "/api/parts");
  await ask(page, "PATCH", `/api/parts/${parts[0]!.id}`, { version: parts[0]!.version, moisture: "5a" });
  const { id } = await ask<{ id: string }>(page, "POST", "/api/lots", {
    mpn: "MB-1",
    qty: 20,
    place: "drawer 1",
    currency: "EUR",
  });
  await page.goto(`/shelf?lot=${id}`);
  const bag = page.getByRole("region", { name: "Dry bag of MB-1" });
  await expect(bag).toContainText("moisture level 5a: whether it lies in its dry bag is not said");
  await bag.getByRole("button", { name: "MB-1: sealed in its dry bag" }).press("Enter");
  await expect(bag).toContainText("dry, all of the 24 h left that level 5a allows");
  await bag.getByRole("button", { name: "MB-1: taken out" }).click();
  await expect(bag).toContainText(/out of its dry bag for 0 h; level 5a allows 24 h · until \d/);
  await expectAccessible(page);
  await page.getByRole("link", { name: "waiting" }).click();
  const open = page.getByRole("region", { name: "Out of their dry bags" });
  await open.getByRole("button", { name: "MB-1: back, sealed dry" }).click();
  await expect(open).toHaveCount(0);
  // its label is stricter than its level
  await page.goto(`/shelf?lot=${id}`);
  await bag.getByLabel("hours its label allows").fill("a week");
  await bag.getByLabel("hours its label allows").blur();
  await expectSaid(page, "“a week” is no number of hours.");
  await bag.getByLabel("hours its label allows").fill("0,1");
  await bag.getByLabel("hours its label allows").blur();
  await expect(bag).toContainText(/0\.1 h (left )?that its label allows/);
  await bag.getByRole("button", { name: "MB-1: its card says damp" }).click();
  await expect(bag).toContainText("its card says it is damp");
  await expect(bag).toContainText("Bake it as its maker’s sheet says");
  await expect(bag).toContainText("stand 40 °C, not 125 °C");
});
