import { demoFiles, demoRun, expect, expectAccessible, expectSaid, keptRun, newShop, test } from "./kit.ts";

const standIns = process.env.STANDINS_URL;

test("a supplier goes down in the middle of a refresh: the others' answers are kept, its own come later", async ({
  page,
  request,
}) => {
  expect(standIns, "STANDINS_URL tells where the simulated suppliers are; npm test sets it").toBeTruthy();
  const control = (query: string) => request.post(`${standIns}/control?${query}`);
  // in a shop of its own, with a part nobody else asks for: it is a bad day for this bill alone
  await newShop(page, "Bad Day Works");
  const files = demoFiles("probe-tail");
  const bill = `${files["probe-tail-parts.csv"]!.trimEnd()}\n,1,wall plug,,,ZZ-BAD-DAY,,\n`;
  await keptRun(page, { ...files, "probe-tail-parts.csv": bill }, "Probe Tail", "source");
  try {
    await control("of=ZZ-BAD-DAY&failing=brindle");
    await page.getByRole("button", { name: /Ask (the suppliers|again)/ }).click();
    const asked = page.getByRole("list", { name: "Suppliers asked" });
    const row = asked.getByRole("listitem").filter({ hasText: "Brindle & Otter" });
    await expect(row).toContainText(/asked again in a moment/);
    await expect(row).toContainText("The feed is down for maintenance.");
    await expect(asked.getByRole("listitem").filter({ hasText: "Fennimore Parts" })).toContainText(
      /\d+ offers/,
    );
    await expectAccessible(page);
    // what is there already can be worked with, and a reload loses nothing of it
    await expect(page.getByRole("columnheader", { name: "Whole basket" })).toBeVisible();
    await page.reload();
    await expect(row).toBeVisible();
    const compared = () => page.getByText(/sets? of suppliers compared/).textContent();
    const without = await compared();
    await control("of=ZZ-BAD-DAY&failing=");
    // where all of this took so long that it was given up meanwhile, it is asked again
    await expect(async () => {
      if (await row.getByText(/nothing usable/).isVisible())
        await page.getByRole("button", { name: "Ask again" }).click();
      await expect(asked).toBeHidden({ timeout: 8000 });
    }).toPass();
    await expect.poll(compared).not.toBe(without);
    const before = await compared();
    // a day without it: given up in words, its older offers stay
    await control("of=ZZ-BAD-DAY&failing=brindle");
    await page.getByRole("button", { name: "Ask again" }).click();
    await expect(row).toContainText(/nothing usable after 4 tries; its older offers were kept/);
    expect(await compared()).toBe(before);
    // ten days later prices and stock have moved, and what moved is told
    await control("of=ZZ-BAD-DAY&failing=&day=2026-12-04");
    await page.getByRole("button", { name: "Ask again" }).click();
    await expect(page.getByText(/^Since .*(rose|fell|went down)/)).toBeVisible();
    await page.getByText(/^Since /).click();
    await expect(page.getByText(/at a hundred/).first()).toBeVisible();
    await expectAccessible(page);
  } finally {
    await control("of=ZZ-BAD-DAY&failing=");
  }
});

test("a quotation file is read, its doubtful price asked once, and kept for the lines it names", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "quoted", 21, "source");
  await page.getByRole("button", { name: "Read a quotation" }).click();
  const dialog = page.getByRole("dialog", { name: "Read a quotation" });
  const read = (text: string) =>
    dialog
      .getByLabel("Quotation", { exact: true })
      .setInputFiles({ name: "quote.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await read("colour;taste\nred;sweet");
  await expect(dialog.getByRole("alert")).toContainText("names a part number and a price");
  await read("Part number;Price;Stock\nTB-TH11-23;1,234;400\nNOBODY-1;2,345;5");
  await expect(dialog.getByRole("alert")).toContainText("“1,234” can be read two ways");
  await dialog.getByLabel(/1\.234 [A-Z]{3}, the mark before decimals/).check();
  await expect(dialog.getByRole("row", { name: /NOBODY-1/ })).toContainText("not in this bill");
  await expect(dialog.getByRole("row", { name: /TB-TH11-23/ })).toContainText("1: 1.234");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Keep 1 offer" }).click();
  await expectSaid(page, /1 offer of .* kept/);
  await page.getByRole("button", { name: /^U1/, expanded: false }).click();
  await expect(page.getByText(/pasted/).first()).toBeVisible();
});
