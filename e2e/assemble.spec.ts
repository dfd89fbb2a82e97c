import {
  ask,
  demoArchive,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  openStage,
  perGood,
  test,
} from "./kit.ts";
import { LAMP } from "./made-up/lamp.ts";

test("the order of work: read, changed by keys, a part that covers the programming pads mended, printed", async ({
  page,
}) => {
  await newShop(page, "Order Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  const steps = page.getByRole("list", { name: "Steps" });
  await expect(steps.getByRole("button").first()).toContainText("lay out the parts");
  const iron = steps.getByRole("button").filter({ hasText: "solder by iron" });
  await iron.click();
  await expect(page).toHaveURL(/step=\d/);
  const lines = page.getByRole("list", { name: "Lines of this step" });
  const refOf = async (n: number) =>
    (await lines.getByRole("listitem").nth(n).locator("span.num").first().textContent())!.split(" ")[0]!;
  const [first, second] = [await refOf(0), await refOf(1)];

  // by keys alone: the second before the first
  await page.getByRole("button", { name: `${second} earlier` }).focus();
  await page.keyboard.press("Enter");
  await expect(lines.getByRole("listitem").first()).toContainText(second);
  await expect(page.getByRole("table", { name: "In which order" })).toContainText("your own");
  await page.keyboard.press("Control+z");
  await expect(lines.getByRole("listitem").first()).toContainText(first);
  await expectAccessible(page);

  // it is programmed at J4, and a chip that goes through the heat is said to cover J4
  await page.getByLabel("Programmed at").fill("J4");
  await page.getByLabel("Programmed at").press("Enter");
  await expect(steps.getByRole("button").filter({ hasText: /^\d+\s*program/ })).toContainText("J4");
  await page.keyboard.press("Escape");
  await steps.getByRole("button").filter({ hasText: "place, top" }).first().click();
  await page.getByText("what its parts cover").click();
  await page.getByLabel("U4 covers").fill("J4");
  await page.getByLabel("U4 covers").press("Enter");
  const wrong = page.getByRole("region", { name: "What cannot all be" });
  await expect(wrong).toContainText("U4 covers J4");
  await expect(page.getByText("blockers left").locator("..")).not.toContainText(/\b0\b/);
  await wrong.getByRole("button", { name: "Solder U4 by hand, after the heat" }).click();
  await expectSaid(page, "U4: by hand, after the heat");
  await expect(wrong).toHaveCount(0);
  // its turn is after programming now
  const told = await steps.getByRole("button").allTextContents();
  const at = (what: RegExp) => told.findIndex((t) => what.test(t));
  expect(at(/U4/)).toBeGreaterThan(at(/^\d+\s*program/));

  await page.evaluate(() => {
    window.print = () => {
      const paper = document.querySelector("[data-printing]") as HTMLElement;
      document.body.dataset.paper = paper.textContent ?? "";
    };
  });
  await page.getByRole("button", { name: "print the traveller" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-paper", /solder by iron/);
  const paper = (await page.locator("body").getAttribute("data-paper"))!;
  // the same lines in the same order lie in the tray, filled for the four of a load
  await page.getByRole("button", { name: "tray map" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-paper", /Filled for 4 at a time/);
  const tray = (await page.locator("body").getAttribute("data-paper"))!;
  expect(tray).toMatch(/1step 3/);
  expect(tray.match(/step \d/g)!.length).toBeGreaterThan(20);
  for (const said of [/Kiln Watch/, /planned, took/, /Covers what was done before: U4/, /Readings/])
    expect(paper).toMatch(said);
});

test("a temperature log is dropped at the heat and judged; half a log is refused", async ({ page }) => {
  await newShop(page, "Heat Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  await page.getByRole("list", { name: "Steps" }).getByRole("button").filter({ hasText: "melt" }).click();
  const log = page.getByRole("region", { name: "Temperature log" });
  const drop = (name: string, text: string) =>
    log.locator("input[type=file]").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  await drop("half.csv", "s;Board °C\n0;25\n1;26\n");
  await expect(log.getByRole("status")).toContainText("half.csv: It holds 2 samples");
  // by hand: to 243 °C, above 217 °C for 46 s in all, which is inside
  const corners = [
    [0, 25],
    [60, 150],
    [150, 200],
    [176, 243],
    [195, 243],
    [300, 43],
  ] as const;
  const rows = Array.from({ length: 301 }, (_, s) => {
    const k = Math.max(
      0,
      corners.findLastIndex(([t]) => t <= s),
    );
    const [[t0, c0], [t1, c1]] = [corners[k]!, corners[k + 1] ?? corners[k]!];
    return `${s};${(t1 === t0 ? c0 : c0 + ((c1 - c0) * (s - t0)) / (t1 - t0)).toFixed(2)}`;
  });
  await drop("oven.csv", `s;Board °C\n${rows.join("\n")}\n`);
  await expect(log.getByRole("status")).toHaveText("oven.csv: inside the window");
  await expect(log.getByRole("img")).toHaveAccessibleName(/Board up to 243 °C/);
  // the same log under another alloy is judged anew
  await page.getByLabel("Alloy of the paste").selectOption("lead");
  await expect(log.getByRole("status")).toHaveText("oven.csv: outside the window");
  await expectAccessible(page);
});

test("what stands on the bench is listed, held against the board at its step, and a line soldered unlike the others is a step of its own", async ({
  page,
}) => {
  await newShop(page, "Bench Works");
  await page.goto("/settings/equipment");
  const add = async (kind: string, name: string) => {
    await page.getByLabel("Another").selectOption({ label: kind });
    await page.getByLabel("called").fill(name);
    await page.getByRole("button", { name: "Add it" }).click();
    const row = page.getByRole("group", { name: new RegExp(`^${name}`) });
    await expect(row).toBeVisible();
    return row;
  };
  const oven = await add("oven", "Small oven");
  const fill = async (row: typeof oven, label: string, text: string) => {
    await row.getByLabel(label).fill(text);
    await row.getByLabel(label).press("Enter");
  };
  // what cannot be read is refused in words, and stays as it was
  await fill(oven, "Room for boards, mm", "wide");
  await expectSaid(page, "Small oven, room for boards, mm: Write two lengths, as 200 × 150 mm.");
  await fill(oven, "Room for boards, mm", "30 x 20 cm");
  await expect(oven.getByLabel("Room for boards, mm")).toHaveValue("300 × 200");
  await fill(oven, "Hottest, °C", "400 F");
  await expect(oven.getByLabel("Hottest, °C")).toHaveValue("204");
  const iron = await add("iron", "Old iron");
  await fill(iron, "Tips, mm", "chisel 2.4, cone 0.5");
  await expect(iron.getByLabel("Tips, mm")).toHaveValue("chisel 2.4; cone 0.5");
  await expectAccessible(page);

  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  const steps = page.getByRole("list", { name: "Steps" });
  await steps.getByRole("button").filter({ hasText: "melt" }).click();
  const tools = page.getByRole("list", { name: "Done with" });
  await expect(tools).toContainText(
    "Small oven will not do: gets 204 °C, the joints of tin-silver-copper need 235 °C",
  );
  await expect(page.getByRole("complementary")).toContainText("No heater of the shop melts");
  // a paste that melts lower is what this oven can
  await page.getByLabel("Alloy of the paste").selectOption("bismuth");
  await expect(tools).toContainText("Small oven not known whether it will do: the room above is not said");
  await expect(page.getByRole("complementary")).not.toContainText("No heater of the shop melts");

  await steps.getByRole("button").filter({ hasText: "solder by iron" }).click();
  const lines = page.getByRole("list", { name: "Lines of this step" });
  const rows = lines.getByRole("listitem");
  await expect(rows.first()).toContainText("tip: chisel 2.4 mm");
  const refOf = async (n: number) =>
    (await rows.nth(n).locator("span.num").first().textContent())!.split(" ")[0]!;
  const [first, third] = [await refOf(0), await refOf(2)];
  // dragged by the mouse: the third to the first place
  await rows.nth(2).dragTo(rows.first());
  await expect(rows.first()).toContainText(third);
  await expect(rows.nth(1)).toContainText(first);
  await page.getByText("what its parts cover").click();
  await page.getByLabel(`${third} is soldered`).selectOption({ label: "soldered from the far side" });
  const far = steps.getByRole("button").filter({ hasText: "soldered from the far side" });
  await expect(far).toContainText(third);
  await far.click();
  await expect(page.getByRole("region", { name: /^Step \d/ })).toContainText("Pin 1 is mirrored");
  // flux that has to come off makes a step, and that costs time
  await page.getByLabel("Flux").selectOption({ label: "water-soluble" });
  await steps
    .getByRole("button")
    .filter({ hasText: /^\d+\s*wash/ })
    .click();
  await expect(page.getByRole("region", { name: /^Step \d/ })).toContainText("Within the working day");
  await expectAccessible(page);
});

test("a board with parts on both sides: one that would fall and one that closes the programming pads are mended by a press each", async ({
  page,
}) => {
  await newShop(page, "Two Sides Works");
  const { "lamp.gtp": paste, "lamp.gtl": copper, ...rest } = LAMP;
  const files = {
    ...rest,
    "lamp.gtl": copper!,
    "lamp.gtp": paste!,
    "lamp.gbp": paste!,
    "lamp places.csv": "Ref,X,Y,Rot,Side\nR1,8,6,0,top\nD1,8,12,180,bottom\n",
  };
  // 4 g on 60 mm² hang at 0.067 g/mm², 0.0465 hold; the other side is heavier still
  const { ids } = await ask<{ ids: string[] }>(page, "POST", "/api/parts", {
    parts: [{ mpn: "ZZ-330" }, { mpn: "ZZ-RED" }],
  });
  for (const [i, massMg] of [5000, 4000].entries())
    await ask(page, "PATCH", `/api/parts/${ids[i]}`, { version: 1, massMg, wettedMm2: 60 });
  await keptRun(page, files, "Lamp", "assemble");
  await page.getByRole("button", { name: "order of work" }).click();
  const wrong = page.getByRole("region", { name: "What cannot all be" });
  await expect(wrong).toContainText("D1 hangs below while the other side melts: 0.0667 g on each mm²");
  await page.getByLabel("Programmed at").fill("TP1");
  await page.getByLabel("Programmed at").press("Enter");
  const steps = page.getByRole("list", { name: "Steps" });
  await steps.getByRole("button").filter({ hasText: "place, top" }).click();
  await page.getByText("what its parts cover").click();
  await page.getByLabel("R1 covers").fill("TP1");
  await page.getByLabel("R1 covers").press("Enter");
  await expect(wrong.getByRole("listitem")).toHaveCount(2);
  await wrong.getByRole("button", { name: /^Solder D1 by hand/ }).click();
  await expect(wrong.getByRole("listitem")).toHaveCount(1);
  await wrong.getByRole("button", { name: /^Solder R1 by hand/ }).click();
  await expect(wrong).toHaveCount(0);
});

test("a first article in a socket is begun with its cost seen before; the run waits for it, until it is let go", async ({
  page,
}) => {
  await newShop(page, "First Works");
  const run = await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: /^First article/ }).click();
  await expect(page.getByText(/^costs (at least )?[\d.]+/)).toBeVisible();
  await page.getByRole("checkbox", { name: /^U1 .* in a socket/ }).check();
  await page.getByLabel("Number of the socket for U1").fill("SK-48");
  await page.getByRole("button", { name: "Begin a first article of 1" }).click();
  await expectSaid(page, "A first article of 1 was begun");
  await expect(page.getByRole("complementary")).toContainText(
    "The first article, 20 of A, first article, has not passed: it is not released yet.",
  );
  await page.getByRole("link", { name: "20 of A, first article" }).click();
  await expect(page).toHaveURL(/assemble/);
  await page.getByRole("button", { name: "order of work" }).click();
  const steps = page.getByRole("list", { name: "Steps" });
  await expect(steps.getByRole("button").filter({ hasText: "fit by hand" })).toContainText("U1P");
  await openStage(page, run, "assemble");
  await page.getByRole("button", { name: "wait for none" }).click();
  await expect(page.getByRole("complementary")).not.toContainText("has not passed");
  await expectAccessible(page);
});

test("a test plan says what a pass says nothing about: raised by what is proposed, an item that exercises nothing is told, by keys", async ({
  page,
}) => {
  await newShop(page, "Test Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "test plan" }).click();
  const plan = page.getByRole("region", { name: "The test plan" });
  await expect(plan).toContainText("0 of 226 pins tested");
  const most = plan.getByRole("list", { name: "Tests that would cover most" });
  const told = await most
    .getByText(/^covers \d+ pins?/)
    .first()
    .textContent();
  const gains = Number(told!.match(/\d+/)![0]);
  const never = async () =>
    Number((await plan.getByText(/ never; /).textContent())!.match(/(\d+) never/)![1]);
  const before = await never();
  await most.getByRole("button").first().press("Enter");
  await expect(plan).toContainText("1 of 226 pins tested");
  expect(before - (await never())).toBe(gains);
  const items = plan.getByRole("list", { name: "Items of the test plan" });
  await items.getByRole("button", { expanded: false }).first().press("Enter");
  await items.getByLabel("What should come").fill("3.2 to 3.4 V");
  await items.getByLabel("What should come").press("Enter");
  // the part it goes through is tested with it
  await items.getByLabel("Through").fill("u1");
  await items.getByLabel("Through").press("Enter");
  await expect(plan).not.toContainText("1 of 226 pins tested");
  // what the output is to drive, and what carries it: what is not read is said and changes nothing
  await items.getByRole("button", { name: /^As an output/ }).press("Enter");
  await items.getByLabel("As an output it drives").fill("24 volts");
  await items.getByLabel("As an output it drives").press("Enter");
  await expectSaid(page, /“24volts” was not read/);
  await items.getByLabel("As an output it drives").fill("24 V DC, 48 W");
  await items.getByLabel("As an output it drives").press("Enter");
  await expect(items).toContainText("no label may state a load");
  // its own copper is followed from contact to part, and taken as what carries it
  await items.getByRole("button", { name: "What do copper and contacts carry?" }).press("Enter");
  const carry = items.getByRole("list", { name: "What copper and contacts carry" });
  await expect(carry).toContainText(/copper J4\.1 to U1: 0\.\d+ A, 10 K warmer at its weakest track or hole/);
  await items.getByRole("button", { name: "Take it into its path" }).press("Enter");
  await expect(items.getByLabel("In its path, and what each carries")).toHaveValue(
    /^copper J4\.1 to U1: 0\.\d+ A$/,
  );
  await expect(items).toContainText("More is planned than it carries.");
  await items.getByLabel("In its path, and what each carries").fill("U3 3 A; J3: 2,5 A");
  await items.getByLabel("In its path, and what each carries").press("Enter");
  await expect(items).toContainText("Allowed 2 A: 80 % of J3’s 2.5 A, 1 × what is planned.");
  await expect(items).toContainText("At the bench: loaded with 12 Ω rated 96 W or more: 2 A, 48 W of heat.");
  await expect(items).toContainText("For a label: 24 V DC, max. 2 A");
  await items.getByLabel("Share of it used, %").fill("70");
  await items.getByLabel("Share of it used, %").press("Enter");
  await expect(page.getByRole("complementary")).toContainText("of which 70 % are to be used: 1.7 A");
  await plan.getByRole("button", { name: "Add an item" }).press("Enter");
  await expect(items).toContainText("It exercises nothing: it drives and reads nothing.");
  await items.getByLabel("Read at").fill("U99.1");
  await items.getByLabel("Read at").press("Enter");
  await expect(items).toContainText("It exercises nothing: U99.1 is on no board.");
  await expect(page.getByRole("complementary")).toContainText("1 item of the test plan exercises nothing");
  await expectAccessible(page);
  // three points typed at once are three items of one line; what makes none is said
  await items.getByLabel("Answered by").selectOption("mV");
  await items.getByRole("button", { name: /^As a point of a line/ }).press("Enter");
  const applied = items.getByLabel("Applied", { exact: true });
  await applied.fill("10; 25 mV; 0.04");
  await applied.press("Enter");
  await expectSaid(page, /“10” is in no unit that a plan has/);
  await applied.fill("10, 25, 40 mV");
  await applied.press("Enter");
  await expect(items).toContainText("item 2 at 40 mV");
  await expect(items).toContainText("how far off a point may lie is not said");
  await items.getByLabel("Off the line at most").fill("0,05");
  await items.getByLabel("Off the line at most").press("Enter");
  await expect(items).not.toContainText("how far off a point may lie");
  await items.getByLabel("Never apply more than").fill("30 mV");
  await items.getByLabel("Never apply more than").press("Enter");
  await expect(page.getByRole("complementary")).toContainText(
    "item 2 at 40 mV: 40 mV would be applied, and never more than 30 mV may be.",
  );
  await expectAccessible(page);
  await items.getByRole("button", { name: "Remove item 2 at 10 mV" }).press("Enter");
  for (const more of ["25", "40"]) {
    await items.getByRole("button", { name: `item 2 at ${more} mV` }).press("Enter");
    await items.getByRole("button", { name: `Remove item 2 at ${more} mV` }).press("Enter");
  }
  await expect(items).not.toContainText("exercises nothing");
  await plan.getByRole("button", { name: "count the plan’s minutes" }).press("Enter");
  await expect(plan).not.toContainText("The cost counts");
  await page.getByRole("button", { name: "order of work" }).click();
  await page
    .getByRole("list", { name: "Steps" })
    .getByRole("button")
    .filter({ hasText: /^\d+\s*test/ })
    .click();
  await expect(page.getByRole("region", { name: /^Step \d/ })).toContainText("3.2 to 3.4 V");
});

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

test("part by part: what is fine goes to a house and the rest to the iron, by keys; a frame on the board does the same", async ({
  page,
}) => {
  await newShop(page, "Parts Works");
  await keptRun(page, demoArchive("kiln-watch-b"), "Kiln Watch", "assemble");
  await page.getByRole("button", { name: "part by part" }).click();
  const table = page.getByRole("table", { name: "Who puts on what" });
  const of = (row: string, way: string) =>
    table.getByRole("button", { name: new RegExp(`^${row}: ${way}:`) });
  await expect(of("the top", "paste")).toHaveAttribute("aria-pressed", "true");
  // no foil lies where a house has put parts: said before it is chosen, and nothing is changed by pressing it
  const fine = of("leads out, fine pitch", "house");
  await expect(fine).toHaveAccessibleName(/no foil lies flat there/);
  await fine.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText(/by the house, it cannot be:/)).toBeVisible();
  await expect(of("leads out, fine pitch", "paste")).toHaveAttribute("aria-pressed", "true");

  // by keys: all to the iron, then down to the fine one and left to the house
  const before = await perGood(page);
  await of("the top", "iron").focus();
  const told = Number(
    (await of("the top", "iron").getAttribute("aria-label"))!
      .match(/: ([+−\d.]+) per/)![1]!
      .replace("−", "-"),
  );
  await page.keyboard.press("Enter");
  await expect(of("the top", "iron")).toHaveAttribute("aria-pressed", "true");
  await expect.poll(async () => Math.abs((await perGood(page)) - before - told)).toBeLessThan(0.011);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("ArrowLeft");
  await expect(fine).toBeFocused();
  await expect(fine).toHaveAccessibleName(/per good one/);
  await page.keyboard.press("Enter");
  await expectSaid(page, "leads out, fine pitch by the house");
  await expect(fine).toHaveAttribute("aria-pressed", "true");
  await expect(of("the top", "house")).toContainText("1 of 62");
  await expectAccessible(page);
  // it is the way that is offered as one, and the chip is in no step of ours
  await page.getByRole("button", { name: "order of work" }).click();
  const steps = page.getByRole("list", { name: "Steps" });
  await expect(steps).toContainText("solder by iron");
  await expect(steps).not.toContainText(/\bU1\b|melt/);
  await page.getByRole("button", { name: "who solders" }).click();
  await expect(page.getByRole("button", { name: /^Who solders/ })).toContainText(
    "places what is fine or hidden, the rest here by iron",
  );

  // how it will lie there is looked at once; turned, it is to be looked at anew; the next visit knows it
  await page.getByRole("button", { name: /^Directions/ }).click();
  const zero = page.getByRole("list", { name: "Packages at 0°" }).getByRole("listitem");
  await expect(zero).toHaveCount(1);
  await expect(zero.getByRole("img")).toHaveAccessibleName("QFP-48 at 0°: pin 1 to the upper left");
  await page.getByRole("button", { name: /^QFP-48 lies so/ }).click();
  await expect(page.getByRole("button", { name: /^Directions all 1 package looked at/ })).toBeVisible();
  await page.getByRole("button", { name: "QFP-48: turn by 90°" }).click();
  await expect(zero).toContainText("nobody looked yet");
  await expect(zero).toContainText("pin 1 to the lower left, turned by 90°");
  await expect(page.getByText(/Nobody looked yet at how QFP-48 will lie/).first()).toBeVisible();
  await page.getByRole("button", { name: /^QFP-48 lies so/ }).click();
  await expect(page.getByText(/Nobody looked yet at how/)).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole("button", { name: /^Directions all 1 package looked at/ })).toBeVisible();

  // a frame around the lower left: whole lines, to the house by one key
  await page.getByRole("button", { name: "part by part" }).click();
  const board = page.getByRole("figure").filter({ hasText: "top side" });
  const at = (await board.locator("svg").first().boundingBox())!;
  await page.mouse.move(at.x + 60, at.y + 140);
  await page.mouse.down();
  await page.mouse.move(at.x + 125, at.y + 190, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByText(/whole lines: \d+ more than the frame holds/)).toBeVisible();
  await page.keyboard.press("h");
  await expectSaid(page, /U4.* by the house/);
  await expect(of("the top", "house")).not.toContainText("1 of 62");
  await page.keyboard.press("Control+z");
  await expect(of("the top", "house")).toContainText("1 of 62");
});
