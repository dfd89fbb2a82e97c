import type { Page } from "@playwright/test";
import {
  ask,
  demoArchive,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  openStage,
  test,
} from "../kit.ts";

interface Read {
  readonly revisionId: string;
  readonly document: {
    readonly lines: readonly { id: string; mpn: string; dnp: boolean }[];
    readonly offers: readonly { id: string; line: string; supplier: string }[];
    readonly suppliers: readonly { id: string }[];
  };
}
const read = (page: Page, run: string) => ask<Read>(page, "GET", `/api/runs/${run}`);

test("a bag that is doubted is traced to two runs and eleven boards, stops the run that counts on it, and is cleared by a test", async ({
  page,
}) => {
  await newShop(page, "Recalling Works");
  const first = await keptRun(page, demoArchive("rack-card"), "Rack Card");
  const { document, revisionId } = await read(page, first);
  const line = document.lines.find((l) => !l.dnp && l.mpn !== "")!;
  const offer = { supplierId: document.suppliers[0]!.id, stock: 5000, currency: "EUR" };
  for (const l of document.lines)
    if (!l.dnp)
      await ask(page, "POST", `/api/lines/${l.id}/offers`, { ...offer, breaks: [{ qty: 1, price: "0.1" }] });
  await ask(page, "POST", `/api/runs/${first}/release`);
  const bought = (await read(page, first)).document.offers.find((o) => o.line === line.id)!;
  await ask(page, "POST", `/api/runs/${first}/receipts`, {
    order: `parts ${bought.supplier}`,
    arrivedOn: "2026-11-02",
    items: [{ item: bought.id, qty: 400, unitCost: "0.05" }],
  });
  type Lot = { id: string; qty: number; mpn: string };
  const [lot] = await ask<Lot[]>(page, "GET", "/api/lots");
  const built = async (run: string, started: number, left: number) => {
    await ask(page, "POST", `/api/runs/${run}/work`, {
      on: "2026-11-20",
      started,
      good: started,
      minutes: 60,
    });
    await ask(page, "PUT", `/api/runs/${run}/closing`, { stays: { [lot!.id]: left } });
  };
  await built(first, 6, 300);
  const next = (name: string) =>
    ask<{ id: string }>(page, "POST", "/api/runs", { revisionId, name, goodBoards: 5 });
  const { id: second } = await next("five more");
  await ask(page, "POST", `/api/runs/${second}/release`);
  await built(second, 5, 200);
  const { id: third } = await next("the next five");

  await page.goto("/shelf");
  await page.getByRole("button", { name: new RegExp(`^Measured of ${lot!.mpn}`) }).press("Enter");
  const boards = page.getByRole("region", { name: `Boards that may have ${lot!.mpn}` });
  await expect(boards).toContainText(
    "200 pieces went to 2 runs with 11 boards; which of those have one is not written down. None of them went out yet.",
  );
  await expect(boards.getByRole("link")).toHaveText([/five more$/, /20 of A$/]);

  await page.goto("/lessons");
  await page.getByRole("button", { name: "Write one down" }).press("Enter");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("It is about").selectOption({ label: "a lot on the shelf that is doubted" });
  await dialog.getByLabel("Which").selectOption({ index: 1 });
  await dialog.getByLabel("In a sentence").fill("The bag from Monday reads low");
  await dialog.getByLabel("Where it does not hold").selectOption({ label: "the order stops" });
  await dialog.getByRole("button", { name: "Keep it" }).press("Enter");
  await expectSaid(page, "Learned: The bag from Monday reads low");
  const row = page
    .getByRole("region", { name: "Held against every board" })
    .getByRole("listitem")
    .filter({ hasText: "The bag from Monday" });
  await expect(row).toContainText(/20 of A 6 boards, 6 good \(.*100 taken.*\).*five more 5 boards, 5 good/);
  await expect(row).toContainText("11 boards in all.");
  await expectAccessible(page);
  // the run that counts on the bag is told, and cannot go
  await openStage(page, third, "source");
  const margin = page.getByRole("complementary", { name: "In the margin" });
  await expect(margin).toContainText("The bag from Monday reads low");
  await page.goto("/lessons");
  await expect(row).toContainText("does not hold");
  await row.getByRole("button", { name: "More of The bag from Monday reads low" }).press("Enter");
  await row.getByLabel("Found to be innocent, by which test").fill("ten of them held to the meter");
  await row.getByLabel("Found to be innocent, by which test").press("Enter");
  await expectSaid(page, "The bag from Monday reads low: cleared");
  await expect(page.getByText("1 doubt cleared")).toBeVisible();
  await openStage(page, third, "source");
  await expect(page.getByRole("main")).not.toContainText("The bag from Monday");
});

test("a notice names weeks of a part: what comes of them is set apart by keys, and where its bags lie is told", async ({
  page,
}) => {
  await newShop(page, "Noticing Works");
  const run = await keptRun(page, demoArchive("rack-card"), "Rack Card");
  const { document } = await read(page, run);
  const line = document.lines.find((l) => !l.dnp && l.mpn !== "")!;
  const offer = { supplierId: document.suppliers[0]!.id, stock: 5000, currency: "EUR" };
  for (const l of document.lines)
    if (!l.dnp)
      await ask(page, "POST", `/api/lines/${l.id}/offers`, { ...offer, breaks: [{ qty: 1, price: "0.1" }] });
  await ask(page, "POST", `/api/runs/${run}/release`);

  // the notice comes after the order
  await page.goto("/lessons");
  await page.getByRole("button", { name: "Write one down" }).press("Enter");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("It is about").selectOption({ label: "a part that is doubted" });
  await dialog.getByLabel("Its number").fill(line.mpn);
  await dialog.getByLabel("From this date code").fill("2545");
  await dialog.getByLabel("Up to this date code").fill("2540");
  await expect(dialog.getByRole("status")).toHaveText(
    "Not kept like this: the last one lies before the first.",
  );
  await expect(dialog.getByRole("button", { name: "Keep it" })).toBeDisabled();
  await dialog.getByLabel("From this date code").fill("2540");
  await dialog.getByLabel("Up to this date code").fill("2545");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Keep it" }).press("Enter");
  const words = `${line.mpn} made from 29 September 2025 to 9 November 2025 is not used`;
  await expectSaid(page, `Learned: ${words}`);

  await openStage(page, run, "receive");
  // what is doubted is not taken with the rest of its parcel
  const parcel = page.getByRole("article").filter({ hasText: line.mpn });
  await expect(parcel).toContainText(/ counted alone, by the bag: some days are doubted\./);
  // what goes through heat and whose level nobody knows: it stands on the bag, and is kept with the part
  const chip = page.getByRole("listitem").filter({ hasText: "TB-QB04-SO8" }).first();
  await chip.getByRole("button", { name: /^Count / }).press("Enter");
  await chip.getByLabel(/^Moisture level on its bag/).fill("9");
  await expect(chip.getByRole("alert")).toContainText("“9” is no level");
  await expect(chip.getByRole("button", { name: "It came", exact: true })).toBeDisabled();
  await chip.getByLabel(/^Moisture level on its bag/).fill("MSL 3");
  await chip.getByRole("button", { name: "It came", exact: true }).press("Enter");
  await expect(chip).toContainText("moisture level 3: whether it lies in its dry bag is not said", {
    ignoreCase: true,
  });
  await parcel.getByRole("button", { name: "The others came" }).press("Enter");
  await expectSaid(page, /^The others of .* came$/);
  const row = page
    .getByRole("listitem")
    .filter({ hasText: line.mpn, has: page.getByRole("button", { name: /^Count / }) });
  const count = async (qty: string, code: string) => {
    await row.getByRole("button", { name: /^Count / }).press("Enter");
    await row.getByLabel("Counted").fill(qty);
    await row.getByLabel("Date code, since some days of it are doubted").fill(code);
  };
  await count("1", "2520");
  await expect(row).toContainText(`Not of the days doubted: ${words}.`);
  await row.getByRole("button", { name: "It came", exact: true }).press("Enter");
  await expectSaid(page, /^1 × .* came$/);
  await count("2", "2541");
  await expect(row.getByRole("alert")).toHaveText(`Made in days that are doubted: ${words}. Set it apart.`);
  await expectAccessible(page);
  await row.getByRole("button", { name: "Set apart", exact: true }).press("Enter");
  await expect(row).toContainText("2 set apart");

  await page.goto("/lessons");
  const notice = page
    .getByRole("region", { name: "Held against every board" })
    .getByRole("listitem")
    .filter({ hasText: words });
  await expect(notice).toContainText("1 piece 2520, of other days");
  await expect(notice).toContainText("2 pieces 2541, of those days, set apart");
  await expect(notice).toContainText("no board begun yet");
  // and on the shelf the bag of those days says so, the other does not
  await page.goto("/shelf");
  await page.getByLabel("Find on the shelf").fill(line.mpn);
  const bag = (code: string) => page.getByRole("row").filter({ hasText: `${code}: ` });
  await expect(bag("2541")).toContainText(`doubted: ${words}`);
  await expect(bag("2520")).not.toContainText("doubted");
});
