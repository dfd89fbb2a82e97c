import {
  expect,
  expectAccessible,
  expectSaid,
  newShop,
  openStage,
  perGood,
  releasedDemoRun,
  stage,
  test,
} from "./kit.ts";
import { LAMP, payload } from "./made-up/lamp.ts";

test("an empty shop of one's own has a price for its board after one supplier, one house and a column of prices: fifteen acts", async ({
  page,
}) => {
  await newShop(page, "Moss Lane Instruments", "none");
  await page.goto("/");
  await expect(page.getByText("Nothing here yet.")).toBeVisible();
  let acts = 0;
  /** One thing a person does: a drop, a press, a field filled, a column pasted. */
  const act = async (done: Promise<unknown>) => {
    await done;
    acts++;
  };
  await act(page.getByLabel("Files of the board").setInputFiles(payload(LAMP)));
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
  await act(page.getByRole("button", { name: "Keep it and start a run" }).click());
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();

  await act(stage(page, "Source"));
  await act(page.getByRole("button", { name: "Type prices" }).click());
  const prices = page.getByRole("dialog", { name: "Type prices" });
  await act(prices.getByLabel("Its name").fill("Village Electrics"));
  const paste = async () => {
    await prices
      .getByRole("gridcell", { name: /^Price each of/ })
      .first()
      .click();
    await page.evaluate(() => {
      const data = new DataTransfer();
      data.setData("text/plain", "1: 0,04; 100: 0,011\n0,12\n0,02");
      document.activeElement!.dispatchEvent(
        new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
  };
  await act(paste());
  await expect(prices.getByRole("gridcell", { name: /^Price each of .*: 0,02$/ })).toBeVisible();
  await expectAccessible(page);
  await act(prices.getByRole("button", { name: "Keep 3 prices" }).click());
  await expectSaid(page, "3 prices kept");
  await expect(page.getByRole("row", { name: /Village/ }).first()).toContainText("all");

  await act(stage(page, "Fab"));
  await act(page.getByRole("button", { name: "Begin a house from its quotation" }).click());
  const house = page.getByRole("dialog", { name: "A house from its quotation" });
  await act(house.getByLabel("Name of the house").fill("Shed Boards"));
  await act(house.getByLabel(/^Or its table/).fill("pieces\tprice\n10\t38.00\n30\t52.00"));
  await act(house.getByLabel("Freight").fill("7"));
  await act(house.getByLabel("Days at the house").fill("6"));
  await act(house.getByLabel("Days on the way").fill("2"));
  await act(house.getByRole("button", { name: "Keep the house and choose it" }).click());
  await expect(page.getByRole("row", { name: /Shed Boards/ })).toContainText("chosen");
  expect(acts).toBeLessThanOrEqual(15);

  // a price for the board that rests on what was typed, and says of whom
  await expect.poll(() => perGood(page)).toBeGreaterThan(1);
  await stage(page, "Cost");
  await expect(page.getByText(/that nothing prices/)).toHaveCount(0);
});

test("a line nobody lists says who was asked, and what they have of the same value and package, to be approved there", async ({
  page,
}) => {
  await newShop(page, "Fen Works");
  await page.goto("/new");
  const files = {
    ...LAMP,
    "lamp parts.csv": LAMP["lamp parts.csv"]!.replace("330R;1206;ZZ-330", "10k;0603;ZZ-10K"),
  };
  await page.getByLabel("Files of the board").setInputFiles(payload(files));
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  const run = /runs\/([^/]+)/.exec(page.url())![1]!;
  await openStage(page, run, "source");
  await page.getByRole("button", { name: "Ask the suppliers" }).click();
  const line = page.getByRole("row", { name: /^R1/ });
  await expect(line).toContainText(/not listed by \d/);
  await expect(line).toContainText(/that may stand in (is|are) offered/);
  await line.getByRole("button", { name: /^R1/ }).click();
  await page.getByRole("link", { name: "compare and approve" }).first().click();
  await expect(page.getByRole("heading", { name: "Parts", level: 1 })).toBeVisible();
  const others = page.getByRole("list", { name: "Alternates" });
  const first = others.getByRole("listitem").filter({ hasText: "equal" }).first();
  await first.getByRole("button", { name: "approve for this run" }).click();
  await expectSaid(page, /approved for this run/);
  await stage(page, "Source");
  await expect(page.getByRole("row", { name: /^R1/ })).not.toContainText("not listed");
});

test("a run that is released and late is told on the bench, what is late first; in time it only waits", async ({
  page,
}) => {
  await releasedDemoRun(page, "Probe Tail", "to be late", 20);
  await page.goto("/");
  const row = page.getByRole("row", { name: /to be late/ });
  await expect(row).toContainText("released");
  await expect(row).not.toContainText("released, late");
  // two months on, and nothing was counted: of it, and of whatever else waits in this shop
  await page.clock.setFixedTime(new Date(Date.now() + 60 * 24 * 3600_000));
  await page.goto("/");
  await expect(row).toContainText("released, late");
  const next = page.locator("section", { has: page.getByRole("heading", { name: /^Next/ }) }).first();
  const first = next.getByRole("listitem").first();
  await expect(first).toContainText(/late: was to be ready by \d+ \w+/);
  await first.getByRole("link").last().click();
  await expect(page.getByRole("heading", { name: /Receive|Build/, level: 1 })).toBeVisible();
});
