import {
  demoFiles,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  pressRelease,
  releasedDemoRun,
  stage,
  test,
} from "./kit.ts";

/** The demo's Rack Card as bare boards: nothing is fitted, so nothing has to be bought. */
const bareCard = () =>
  Object.fromEntries(Object.entries(demoFiles("rack-card")).filter(([name]) => !/\.csv$/.test(name)));

test("a card's contacts lead to gold and a bevel, the released order sheet says so in the house's own words, and the order is sent, asked about, paid", async ({
  page,
}) => {
  await newShop(page, "Heath Row Cards");
  await keptRun(page, bareCard(), "Bare card", "fab");
  await page
    .getByRole("row", { name: /Gannet/ })
    .getByRole("button", { name: /choose/i })
    .click();
  await expectSaid(page, "Boards by Gannet & Daughters");
  // the bevel that leaves the contacts whole, and gold that lasts, each with its reason
  await expect(page.getByText(/Choose 30°, which leaves 0.347 mm/).first()).toBeVisible();
  await page.getByRole("button", { name: /^Bevel/ }).click();
  await page.getByRole("button", { name: /^30°/ }).click();
  await expectSaid(page, "Bevel: 30°");
  await page.getByRole("button", { name: /^Contacts/ }).click();
  await expect(page.getByText("the 22 contacts last where thin gold wears through")).toBeVisible();
  await page.getByRole("button", { name: /^hard gold 0.8 µm/ }).click();
  await expectSaid(page, "Contacts: hard gold 0.8 µm");
  await stage(page, "Release");
  await page.getByRole("button", { name: "accept with a reason" }).first().click();
  await page.getByRole("textbox", { name: "Reason" }).first().fill("sold bare");
  await page.getByRole("button", { name: "accept", exact: true }).click();
  await expectSaid(page, "Accepted with a reason");
  await pressRelease(page);

  const slip = page.getByRole("article", { name: "Gannet & Daughters" });
  await slip.getByRole("button", { name: /^its order sheet/ }).click();
  const sheet = slip.getByRole("region", { name: "Fabrication: Bare card A" });
  // what is decided stands under the house's names, with what was measured for the grinder
  await expect(sheet).toContainText("Contact platingelectroplated hard gold");
  await expect(sheet).toContainText("Bevel30°");
  await expect(sheet).toContainText("11 on the bottom edge, copper from 1.5 mm on: keep it whole");
  await expectAccessible(page);

  // sent over the network: it accepts, and waits for the money
  await slip.getByRole("button", { name: "Send it to Gannet & Daughters" }).click();
  await expect(slip.getByText(/Waits for you to pay/)).toBeVisible({ timeout: 30_000 });
  await expect(slip.getByText(/Its number G-\d{4}/)).toBeVisible();
  await expect(slip.getByRole("list").first()).toContainText(/files sent.*files accepted/);
  const orderRow = page
    .getByRole("navigation", { name: "Stages of the run" })
    .getByRole("link", { name: /Order/ });
  await expect(orderRow.getByRole("img", { name: "1 to look at" })).toBeVisible();
  // the day it promises is the lead time with what the gold takes longer, and its way
  await expect(slip.getByLabel("Promised for")).toHaveValue(/\d{4}$/);
  // by telephone it asks something after all: that is written down, and answered
  await slip.getByRole("button", { name: "write down what became of it" }).click();
  const form = slip.getByRole("form", { name: /^What became of the order/ });
  await form.getByLabel("What", { exact: true }).selectOption({ label: "it asks" });
  await form.getByLabel("Its question").fill("Which way round is the key?");
  await form.getByRole("button", { name: "Write it down" }).click();
  await expect(slip.getByText("Gannet & Daughters asks: Which way round is the key?")).toBeVisible();
  await expectAccessible(page);
  await slip.getByLabel("Answer to Gannet & Daughters").fill("As in the files.");
  await slip.getByRole("button", { name: "Answer", exact: true }).click();
  await expect(slip.getByText("Gannet & Daughters asks:")).toHaveCount(0);
  // the bench says what waits for whom, until it is done
  await page.getByRole("link", { name: "Kobbin" }).first().click();
  const next = page.getByRole("region", { name: /^Next/ });
  await expect(next).toContainText("Gannet & Daughters waits for you to pay");
  await next
    .getByRole("link", { name: /Bare card/ })
    .first()
    .click();
  await slip.getByRole("button", { name: "It is paid" }).click();
  await expect(
    slip.getByText(/Waits for Gannet & Daughters to make it.*; it was promised for \d/),
  ).toBeVisible();
  await expect(orderRow.getByRole("img", { name: "ready" })).toBeVisible();
  await slip.getByRole("button", { name: /^what was said, \d entries/ }).click();
  await expect(slip.getByRole("listitem").filter({ hasText: "answered: As in the files." })).toBeVisible();
  // what the house was told stays told; what was written down of a call can be taken away
  await expect(slip.getByRole("button", { name: "Take away: paid" })).toHaveCount(0);
  await slip.getByRole("button", { name: "Take away: it asks" }).click();
  await expect(slip.getByRole("listitem").filter({ hasText: "Which way round" })).toHaveCount(0);
});

test("boards that are made here are sent for nowhere", async ({ page }) => {
  await newShop(page, "Etched Cards");
  await keptRun(page, demoFiles("probe-tail"), "Own tail", "fab");
  await page
    .getByRole("row", { name: /Own bench/ })
    .getByRole("button", { name: /choose/i })
    .click();
  await stage(page, "Order");
  const slip = page.getByRole("article", { name: /bench/i });
  await expect(slip).toContainText("boards made here");
  await expect(slip.getByRole("button", { name: /order sheet|Send it/ })).toHaveCount(0);
});

test("what a supplier does of an order is written down, and one page says whom every order waits for, what is late and what is to be paid", async ({
  page,
}) => {
  await releasedDemoRun(page, "Probe Tail", "to be waited for", 4);
  // whoever sells parts of it cheapest, and whoever makes its boards
  const supplier = (await page
    .getByRole("article")
    .filter({ hasText: /lines? of parts/ })
    .first()
    .getAttribute("aria-label"))!;
  const maker = (await page
    .getByRole("article")
    .filter({ hasText: "bare boards" })
    .first()
    .getAttribute("aria-label"))!;
  const slip = page.getByRole("article", { name: supplier });
  await slip.getByRole("button", { name: "it is ordered" }).click();
  await expect(slip.getByText(`Waits for ${supplier} to confirm it`)).toBeVisible();
  // parts that are bought are confirmed, never made
  await slip.getByRole("button", { name: "write down what became of it" }).click();
  const form = slip.getByRole("form", { name: /^What became of the order/ });
  await expect(form.getByLabel("What", { exact: true }).getByRole("option")).toHaveText([
    "it asks",
    "confirmed",
    "paid",
    "on its way",
    "taken back",
  ]);
  await form.getByLabel("What", { exact: true }).selectOption({ label: "confirmed" });
  await form.getByRole("button", { name: "Write it down" }).click();
  await expect(slip.getByText(/Waits for you to pay/)).toBeVisible();
  await expectAccessible(page);

  await page.keyboard.press("Escape");
  await page.keyboard.press("o");
  await expect(page.getByRole("heading", { name: "Waiting", level: 1 })).toBeVisible();
  const table = page.getByRole("table", { name: "Orders that are not all here" });
  const row = (name: string) =>
    table.getByRole("row").filter({ hasText: "to be waited for" }).filter({ hasText: name });
  await expect(row(supplier)).toContainText("you to pay");
  await expect(row(supplier)).toContainText("confirmed, since");
  await expect(row(supplier).getByRole("img", { name: /to be here/ })).toBeVisible();
  // nothing is written down of the others: they are to be ordered, and no day is claimed
  await expect(row(maker)).toContainText("you to order it");
  await expect(row(maker).getByRole("img", { name: /no day yet/ })).toBeVisible();
  await expectAccessible(page);
  // paid, and of all pieces that come nothing is waited for any more
  await row(supplier).getByRole("link").first().click();
  await slip.getByRole("button", { name: "It is paid" }).click();
  await expect(slip.getByText(`Waits for ${supplier} to send it`)).toBeVisible();
  await page.goto("/waiting");
  await expect(row(supplier)).toContainText("paid");
  // taken back, the run wants it all the same: it is waited for, and nowhere told as ordered
  await row(supplier).getByRole("link").first().click();
  const ordered = page.getByRole("link", { name: /ordered$/ });
  await expect(ordered).toContainText("1 of");
  await slip.getByRole("button", { name: "write down what became of it" }).click();
  await form.getByLabel("What", { exact: true }).selectOption({ label: "taken back" });
  await form.getByRole("button", { name: "Write it down" }).click();
  await expect(ordered).toContainText("0 of");
  await page.getByRole("link", { name: / came$/ }).click();
  await expect(page.getByRole("article", { name: supplier })).toContainText(
    "taken back: to be ordered again",
  );
  await page.goto("/waiting");
  await expect(row(supplier)).toContainText("you to order it again, or elsewhere");
  await expect(row(supplier)).not.toContainText("paid");
});

test("what is waited for goes into a calendar under a secret address, until it is closed", async ({
  page,
}) => {
  await newShop(page, "Calendar Works");
  await page.goto("/waiting");
  const part = page.getByRole("region", { name: "In your calendar" });
  await part.getByRole("button", { name: "Make the address" }).press("Enter");
  const address = await part.getByLabel("Address of the calendar").inputValue();
  expect(new URL(address).pathname).toMatch(/^\/api\/calendars\/[\w-]{32}$/);
  const fetched = async () => (await fetch(address)).status;
  expect(await fetched()).toBe(200);
  await expectAccessible(page);
  await page.reload();
  // it is shown once
  await expect(part).toContainText("There is an address, made by");
  await expect(part.getByLabel("Address of the calendar")).toHaveCount(0);
  await part.getByRole("button", { name: "close it" }).press("Enter");
  await expectSaid(page, "The address opens nothing any more");
  expect(await fetched()).toBe(404);
});

test("a supplier's purchase order is paper with a number, its lines as they will be invoiced, and rows to paste", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await releasedDemoRun(page, "Probe Tail", "on paper", 30, "order");
  const slip = page.getByRole("article").filter({ hasText: "of parts," }).first();
  await slip.getByRole("button", { name: /^Purchase order/ }).press("Enter");
  const paper = slip.getByRole("region", { name: /^Purchase order \d{4}-\d+-1$/ });
  const lines = paper.getByRole("table").locator("tbody tr");
  const asked = slip.getByRole("table").first().locator("tbody tr");
  await expect(lines).toHaveCount(await asked.count());
  const cents = (text: string) => Math.round(Number(text.replace(/[^\d.]/g, "")) * 100);
  const sums = (await lines.locator("td:last-child").allTextContents()).map(cents);
  expect(sums).toEqual((await asked.locator("td:nth-child(4)").allTextContents()).map(cents));
  const total = await paper.getByRole("table").locator("tfoot td").last().textContent();
  expect(cents(total!)).toBe(sums.reduce((a, b) => a + b, 0));
  await expect(slip).toContainText("Where parcels go is not said yet");
  await expectAccessible(page);
  await slip.getByRole("button", { name: "Copy its rows" }).press("Enter");
  await expectSaid(page, "Its rows are copied");
  const rows = (await page.evaluate(() => navigator.clipboard.readText())).split("\n");
  expect(rows).toHaveLength(sums.length);
  for (const r of rows) expect(r).toMatch(/^[^\t]+\t\d+\t\d{4}-\d+-1\/\d+$/);
});
