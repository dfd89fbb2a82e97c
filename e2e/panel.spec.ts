import { readFileSync } from "node:fs";
import {
  demoFiles,
  demoRun,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  perGood,
  stage,
  test,
  unfold,
} from "./kit.ts";

test("Probe Tail is paneled, changed by mouse and by keys, priced, downloaded, and known again when it is dropped", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "on sheets", 60, "panel");
  await expect(page.getByText(/^worth it: .* a good board less/)).toBeVisible();
  const before = await perGood(page);
  await page
    .getByRole("button", { name: /on a sheet, tabs/ })
    .first()
    .click();
  await expectSaid(page, /^Sheet: [\d +]+ on a sheet, tabs/);
  await expect(
    page
      .getByTitle(/^Sheet of/)
      .or(page.locator("svg title", { hasText: /^Sheet of/ }))
      .first(),
  ).toBeAttached();
  await expect(page.getByText(/^Drag a board/)).toBeVisible();
  await expect.poll(() => perGood(page)).toBeLessThan(before);
  await expectAccessible(page);

  // by keys: a rail is made wider, and the sheet with it
  const rail = page.getByRole("slider", { name: "Rail left" });
  await expect(rail).toHaveAttribute("aria-valuenow", "7");
  await rail.focus();
  await page.keyboard.press("ArrowRight");
  await expectSaid(page, "Rail left 7.5 mm");
  await expect(rail).toHaveAttribute("aria-valuenow", "7.5");

  // by mouse: a board dragged onto another is told, and goes back
  const [first, second] = [
    page.getByRole("button", { name: /^Board 1 of/ }),
    page.getByRole("button", { name: /^Board 2 of/ }),
  ];
  const at = async (l: typeof first) => {
    const b = (await l.boundingBox())!;
    return [b.x + b.width / 2, b.y + b.height / 2] as const;
  };
  const was = await first.getAttribute("transform");
  await page.mouse.move(...(await at(first)));
  await page.mouse.down();
  await page.mouse.move(...(await at(second)), { steps: 4 });
  await expect(page.getByText(/It goes back when you let go/)).toBeVisible();
  await page.mouse.up();
  await expect(page.getByText(/^Drag a board/)).toBeVisible();
  expect(await first.getAttribute("transform")).toBe(was);

  // a tab dragged beyond its board's corner is refused with the reason; along the edge it goes
  const tabs = page.getByRole("button", { name: /^Tab \d+ between/ });
  const tab = page.getByRole("button", { name: /^Tab 1 between/ });
  const count = await tabs.count();
  const path = await tab.getAttribute("d");
  const [tx, ty] = await at(tab);
  const isUpright = await tab.evaluate(
    (e) => e.getBoundingClientRect().height > e.getBoundingClientRect().width,
  );
  const along = (px: number) => (isUpright ? ([tx, ty + px] as const) : ([tx + px, ty] as const));
  const board = (await first.boundingBox())!;
  await page.mouse.move(tx, ty);
  await page.mouse.down();
  await page.mouse.move(board.x - 2, board.y - 2, { steps: 3 });
  await expect(page.getByText(/^No tab there: .* It goes back when you let go/)).toBeVisible();
  await page.mouse.up();
  expect(await tab.getAttribute("d")).toBe(path);
  await page.mouse.move(tx, ty);
  await page.mouse.down();
  await page.mouse.move(...along(-3), { steps: 3 });
  await page.mouse.up();
  await expectSaid(page, "Tab moved");
  await expect(page.getByText("put by hand")).toBeVisible();
  // by keys: one more on the board that is picked, and away again
  await first.focus();
  await page.keyboard.press("a");
  await expectSaid(page, "Tab added");
  await expect(tabs).toHaveCount(count + 1);
  await page.getByRole("button", { name: `Tab ${count + 1} between` }).focus();
  await page.keyboard.press("Delete");
  await expectSaid(page, "Tab taken away");
  await expect(tabs).toHaveCount(count);
  // an edge that is kept free has none of them
  await page.getByRole("button", { name: "find them anew" }).click();
  await expect(page.getByText("put by hand")).toBeHidden();

  // written, read back, and only then handed out
  await page.getByRole("button", { name: "Write and prove the files" }).click();
  await expect(page.getByText(/read back: \d+ figures agree/)).toBeVisible();
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "Download the sheet" }).click();
  const zip = readFileSync(await (await coming).path());
  await stage(page, "Fab");
  await unfold(page, "What the boards cost, term by term");
  await expect(page.getByText(/Price of \d+ boards on \d+ sheets of \d+/)).toBeVisible();

  await page.goto("/new");
  await page
    .getByLabel("Files of the board")
    .setInputFiles([{ name: "sheet.zip", mimeType: "application/zip", buffer: zip }]);
  await expect(
    page.getByText(/This looks like a panel already: it falls apart into \d+ boards/),
  ).toBeVisible();
  await expect(page.getByText(/^On this panel: 13 of Probe Tail A\.$/)).toBeVisible();
});

test("a sheet by one's own numbers: what cannot be says what would, and a press tries it", async ({
  page,
}) => {
  await demoRun(page, "Kiln Watch B", "own sheet", 20, "panel");
  // once the proposals stand above it the form moves no more
  await expect(page.getByText("ways to order the boards")).toBeVisible();
  await page.getByRole("button", { name: /Another sheet/ }).click();
  await page.getByLabel("Boards on the sheet").fill("30");
  await page.getByRole("button", { name: "Work it out" }).click();
  await expect(page.getByText(/30 of Kiln Watch.* do not go on a sheet of 180 × 180 mm/)).toBeVisible();
  await page.getByRole("button", { name: /^\d on the sheet$/ }).click();
  await page.getByRole("button", { name: "Work it out" }).click();
  await page.getByRole("button", { name: "Take it" }).click();
  await expectSaid(page, /^Sheet: \d on a sheet/);
  await expect(page.getByText(/^Drag a board/)).toBeVisible();
  // undone it is single boards again
  await page.keyboard.press("Control+z");
  await expect(page.getByText("The boards are ordered one by one.", { exact: false })).toBeVisible();

  // drawings for the bench come from the outline
  await page.getByRole("button", { name: /For the bench, one to one/ }).click();
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "nest for printing as SVG" }).click();
  const svg = readFileSync(await (await coming).path(), "utf8");
  expect(svg).toContain("nest for printing paste</title>");
  expect(svg).toMatch(/<svg [^>]*width="[\d.]+mm"/);
  const drilling = page.waitForEvent("download");
  await page.getByRole("button", { name: "template for drilling and cutting as SVG" }).click();
  const holes = readFileSync(await (await drilling).path(), "utf8");
  expect(holes).toContain("template for drilling and cutting</title>");
  expect(holes.match(/<circle/g)!.length).toBeGreaterThan(20);
  // a board with rounded corners lies in no corner, and that is said
  await page.getByRole("button", { name: "corners for printing as PDF" }).click();
  await expect(page.getByText(/a corner of the board is no right angle/)).toBeVisible();
});

test("two boards of a product lie on one sheet in the numbers the product has them", async ({ page }) => {
  await newShop(page);
  await keptRun(page, demoFiles("probe-tail"), "Pair");
  await page.getByRole("link", { name: "add another board" }).click();
  await page.getByLabel("Files of the board").setInputFiles(
    Object.entries(demoFiles("rack-card")).map(([name, text]) => ({
      name,
      mimeType: "text/plain",
      buffer: Buffer.from(text),
    })),
  );
  await page.getByLabel("Name of the board").fill("Card");
  await page.getByLabel("In each product").fill("2");
  await page.getByRole("button", { name: "Add it to the product" }).click();
  await expect(page.getByRole("navigation", { name: "Stages of the run" })).toContainText("2 boards");
  await stage(page, "Panel");
  await page
    .getByRole("button", { name: /on a sheet, tabs/ })
    .first()
    .click();
  // two cards for every tail
  const words = await page
    .getByText(/^Sheet: \d+ \+ \d+ on a sheet, tabs/)
    .first()
    .textContent();
  const [tails, cards] = words!.match(/\d+/g)!.map(Number) as [number, number];
  expect(cards).toBe(2 * tails);
  await page.getByRole("button", { name: "Write and prove the files" }).click();
  await expect(page.getByText(/read back: \d+ figures agree/)).toBeVisible();
});

test("another product shares the sheet: its boards are drawn, proven and paid with it, and leaving it away says what is left", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "shared", 60, "panel");
  await page.getByRole("button", { name: /^Another product on the sheet/ }).click();
  await page.getByLabel("Board", { exact: true }).selectOption({ label: "Kiln Watch A, 2 layers" });
  await page.getByLabel("Boards wanted").fill("0");
  await expect(page.getByRole("button", { name: "Let it share" })).toBeDisabled();
  await page.getByLabel("Boards wanted").fill("20");
  await page.getByRole("button", { name: "Let it share" }).click();
  await expectSaid(page, "20 of Kiln Watch A, 2 layers share the sheet");
  await expect(page.getByText(/are to share a sheet, and the boards are ordered one by one/)).toBeVisible();
  const before = await perGood(page);
  await page
    .getByRole("button", { name: /^7 \+ 2 on a sheet, tabs/ })
    .first()
    .click();
  await expectSaid(page, /^Sheet: 7 \+ 2 on a sheet, tabs/);
  await expect(page.getByText(/^20 of Kiln Watch A come on the same sheets, 20 are wanted/)).toBeVisible();
  await expect.poll(() => perGood(page)).toBeLessThan(before);
  await page.getByRole("button", { name: "Write and prove the files" }).click();
  await expect(page.getByText(/read back: \d+ figures agree/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: /^One layout or several/ }).click();
  await expect(page.getByRole("row", { name: /^one layout 10 of/ })).toContainText(
    "7 of Probe Tail A and 2 of Kiln Watch A",
  );
  await expect(page.getByText(/^Wanted: 6\d of Probe Tail A, 20 of Kiln Watch A/)).toBeVisible();
  await page.getByRole("button", { name: "take it off" }).click();
  await expect(
    page
      .getByText(/no longer part of the product, nor its guest/)
      .filter({ visible: true })
      .first(),
  ).toBeVisible();
});

test("a score is refused where a connector hangs over it, and the change that is proposed mends it", async ({
  page,
}) => {
  const files = demoFiles("kiln-watch-b");
  const list = "kiln-watch-parts.csv";
  const hung = files[list]!.replace(/^(J3,.*)TERM-4/m, "$1HDR-6x4-P5.08mm");
  expect(hung).not.toBe(files[list]);
  await newShop(page);
  await keptRun(page, { ...files, [list]: hung }, "Hung over", "panel");
  await page.getByRole("button", { name: /Another sheet/ }).click();
  await page.getByLabel("Boards on the sheet").fill("4");
  await page.getByLabel("Parted by").selectOption("score");
  await page.getByLabel("Rails", { exact: true }).selectOption("all");
  await page.getByLabel("Largest sheet, mm").selectOption("line");
  await page.getByRole("button", { name: "Work it out" }).click();
  await expect(
    page.getByRole("alert").filter({ hasText: /cannot be made: J3 hangs over the edge/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "part them by tabs" }).click();
  await expect(page.getByLabel("Parted by")).toHaveValue("tabs");
  await page.getByRole("button", { name: "Work it out" }).click();
  await page.getByRole("button", { name: "Take it" }).click();
  await expectSaid(page, "Sheet: 4 on a sheet, tabs");
  await expectAccessible(page);
});
