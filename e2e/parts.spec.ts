import type { Page } from "@playwright/test";
import {
  cell,
  demoArchive,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  perGood,
  test,
} from "./kit.ts";

/** The bill of a board of the shop's own, which nobody else works on. */
async function ownBill(page: Page, product: string): Promise<void> {
  await newShop(page, `${product} Works`);
  await keptRun(page, demoArchive("probe-tail"), product, "parts");
}

test("messy rows are pasted, two spellings become one line by keyboard, and come apart again", async ({
  page,
}) => {
  await ownBill(page, "Spelling");
  await expect(page.getByText("The same part in different spelling?")).toBeHidden();
  // rows without headings, columns in an order of their own
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData("text/plain", "10k\tR80-R83\t0603\n10K0\tR84,85\tR_0603\n100n\tC90\t0402\n9k1\tR90\t0603\n");
    document.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expectSaid(page, "4 lines pasted");
  await expect(page.getByText("The same part in different spelling?")).toBeVisible();
  await expect(page.getByText(/One line saves 1 part to lay out/)).toBeVisible();
  await expectAccessible(page);
  const merge = page.getByRole("button", { name: /^Make one line of R80/ });
  await merge.focus();
  await page.keyboard.press("Enter");
  await expectSaid(page, "2 lines became one");
  await expect(cell(page, "References of R80", "R80 R81 R82 R83 R84 R85")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(cell(page, "References of R84", "R84 R85")).toBeVisible();
  // a value used once may take its neighbour's, and be itself again
  await page.getByText("1 value may give way to a neighbour").click();
  await page.getByRole("button", { name: "Take 10k for R90" }).click();
  await expectSaid(page, "R90 is 10k now");
  await expect(cell(page, "Value of R90", "10k")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(cell(page, "Value of R90", "9k1")).toBeVisible();
});

const MESSY = [
  "Clock parts, as of May;;;;;;",
  ";;;;;;",
  "Where;What;Body;No.;Firm;timer;controller",
  "R1-R4;10k 1%;0603;OX-R0603-10k;Oxbow;1;1",
  "C1,C2;100nF;0603;PW-C0603-100n;Pellow;1;1",
  "U1;timer;SOIC-8;TB-RX85-SO8;Tarnbeck;1;DNP",
  "U2;controller;QFP-48;TB-M4864-Q48;Tarnbeck;;1",
  "R4;1k;0603;OX-R0603-1k;Oxbow;1;1",
].join("\n");

test("a messy list is read, its columns confirmed, corrected and priced by keyboard alone", async ({
  page,
}) => {
  const { keyboard } = page;
  await ownBill(page, "Clock");

  const open = async () => {
    await page.getByRole("button", { name: "Read a list" }).focus();
    await keyboard.press("Enter");
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      (async () => {
        await page.getByLabel("Parts list", { exact: true }).focus();
        await keyboard.press("Enter");
      })(),
    ]);
    await chooser.setFiles({ name: "clock.csv", mimeType: "text/csv", buffer: Buffer.from(MESSY) });
  };
  await open();
  const dialog = page.getByRole("dialog", { name: "Read a parts list" });
  const column = (name: string) => dialog.getByLabel(`What ${name} holds`);
  // recognised by what they hold; the rest is said by keyboard
  await expect(column("Where")).toHaveValue("refs");
  await expect(dialog.getByText("by what it holds").first()).toBeVisible();
  await expect(dialog.getByText(/R4 stands in row 4 and again in row 8/)).toBeVisible();
  for (const [name, letters] of [
    ["What", "value"],
    ["Body", "package"],
    ["No.", "part"],
    ["Firm", "maker"],
    ["timer", "a variant"],
    ["controller", "a variant"],
  ] as const) {
    await column(name).focus();
    // letters that come too slowly begin a word anew: then the word is typed once more
    await expect(async () => {
      await keyboard.type(letters);
      expect(await column(name).evaluate((s: HTMLSelectElement) => s.selectedOptions[0]?.text)).toMatch(
        new RegExp(`^${letters}`),
      );
    }).toPass({ intervals: [1500] });
  }
  await expect(dialog).toContainText("in versions: timer (1 otherwise), controller (1 otherwise)");
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Let it take the bill’s place" }).focus();
  await keyboard.press("Enter");
  await expectSaid(page, "5 lines took the place of the bill, with 2 variants");

  // corrected in the grid: R4 belongs to the 1k line
  await page.getByRole("grid").focus();
  await keyboard.press("Control+Home");
  await keyboard.press("ArrowRight");
  await keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: /^References of R1/ })).toBeFocused();
  await keyboard.press("Control+a");
  await keyboard.type("R1-R3");
  await keyboard.press("Enter");
  await expect(cell(page, "References of R1", "R1 R2 R3")).toBeVisible();
  await keyboard.press("Escape");

  // priced
  await keyboard.press("3");
  await page.getByRole("button", { name: "Ask the suppliers" }).focus();
  await keyboard.press("Enter");
  await expectSaid(page, /^\d+ offers/);
  await expect(page.getByRole("columnheader", { name: "Whole basket" })).toBeVisible();

  // the two versions on one page, with what each costs
  await keyboard.press("2");
  await page.getByRole("button", { name: "variants" }).focus();
  await keyboard.press("Enter");
  const variants = page.getByRole("region", { name: "Variants" });
  await expect(variants.getByRole("checkbox", { name: "U1 in controller" })).not.toBeChecked();
  // both are worked out from all that was answered: the run's own figure rests by then
  await expect(variants.getByText("…", { exact: true })).toHaveCount(0);
  await expectAccessible(page);
  const before = await perGood(page);
  await variants.getByRole("button", { name: "timer", exact: true }).focus();
  await keyboard.press("Enter");
  await expectSaid(page, "timer is made");
  await expect.poll(() => perGood(page)).toBeLessThan(before);

  // the same headings again: the columns are known
  await open();
  await expect(column("No.")).toHaveValue("mpn");
  await expect(dialog.getByText("as last time").first()).toBeVisible();
});

test("a column of marks nobody explains is asked about, answered once, and known with the next list of that make", async ({
  page,
}) => {
  await ownBill(page, "Sender");
  const dialog = page.getByRole("dialog", { name: "Read a parts list" });
  const read = async () => {
    await page.getByRole("button", { name: "Read a list" }).click();
    await dialog.getByLabel("Parts list", { exact: true }).setInputFiles({
      name: "sender.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(
        [
          "Lp.;Oznaczenie;Wartość (kΩ);Obudowa;Numer producenta;Wersja B",
          "1;R1, R2;4,7;0603;KX1001;x",
          "2;R3;10;0603;KX1002;",
          "3;R4;2,2;0805;KX1003;x",
        ].join("\n"),
      ),
    });
  };
  await read();
  await expect(dialog).toContainText("6 columns: 4 read, 1 passed over, 1 asked about");
  await expect(dialog).toContainText("“Lp.”: it counts the rows.");
  await expect(
    dialog.getByText(/“Wersja B” marks some of the lines, and nothing says what for/),
  ).toBeVisible();
  await expectAccessible(page);
  const keep = dialog.getByRole("button", { name: "Let it take the bill’s place" });
  await expect(keep).toBeDisabled();
  await dialog
    .getByRole("group", { name: "What Wersja B says" })
    .getByRole("button", { name: "“x” is left off" })
    .click();
  await expect(dialog.getByText(/marks some of the lines/)).toHaveCount(0);
  await expect(dialog).toContainText("6 columns: 5 read, 1 passed over");
  await keep.click();
  await expectSaid(page, "3 lines took the place of the bill");
  // the unit of the heading stands with each value
  await expect(page.getByRole("grid")).toContainText("4,7 kΩ");
  await read();
  await expect(dialog.getByLabel("What Wersja B holds")).toHaveValue("off x");
  await expect(dialog).toContainText("6 columns: 5 read, 1 passed over");
  await expect(dialog).toContainText("1 piece a product");
});

test("a block is filled down, pasted and taken back; a thousand lines stay fluid", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  const { keyboard } = page;
  await ownBill(page, "Long");
  const rows = Array.from({ length: 1000 }, (_, i) => `Z${i + 1}\t1\tz${i}\t0603\tZZ-${i % 40}`).join("\n");
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData("text/plain", `Reference\tQty\tValue\tPackage\tMPN\n${text}`);
    document.dispatchEvent(
      new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, rows);
  await expectSaid(page, "1000 lines pasted");
  await page.getByLabel("Find in the parts list").fill("zz-");
  const grid = page.getByRole("grid");
  await expect(grid).toHaveAttribute("aria-rowcount", "1001");
  // only what is in view is in the page
  expect(await grid.getByRole("row").count()).toBeLessThan(80);
  await grid.focus();
  await keyboard.press("Control+Home");
  for (let i = 0; i < 100; i++) await keyboard.press("ArrowDown");
  await expect(cell(page, "Sheet of Z101", undefined).first()).toBeVisible();
  await keyboard.press("Control+End");
  await expect(cell(page, "Value of Z1000").first()).toBeVisible();

  // fill down over three rows of the maker's column, as one act
  await keyboard.press("Control+Home");
  for (let i = 0; i < 5; i++) await keyboard.press("ArrowRight");
  await keyboard.type("ZZ-X");
  await keyboard.press("Enter");
  await expect(cell(page, "Part number of Z1", "ZZ-X")).toBeVisible();
  await keyboard.press("ArrowUp");
  await keyboard.press("Shift+ArrowDown");
  await keyboard.press("Shift+ArrowDown");
  await keyboard.press("Control+d");
  await expectSaid(page, "2 lines changed");
  await expect(cell(page, "Part number of Z3", "ZZ-X")).toBeVisible();
  await keyboard.press("Control+z");
  await expect(cell(page, "Part number of Z3", "ZZ-2")).toBeVisible();
  // copied as a block and pasted one row lower
  await keyboard.press("Control+c");
  await expectSaid(page, "3 cells copied");
  await keyboard.press("ArrowDown");
  await keyboard.press("Control+v");
  await expect(cell(page, "Part number of Z4", "ZZ-X")).toBeVisible();
});
