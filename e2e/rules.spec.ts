import { expect, expectAccessible, newShop, stage, test } from "./kit.ts";
import { messyBoard } from "./made-up/messy.ts";

test("a messy list of values and sizes becomes a complete, costed run in few actions, and the next one in fewer", async ({
  page,
}) => {
  await newShop(page);
  let actions = 0;
  /** Each thing a person does: a press, a word typed, files dropped. */
  const act = async (what: Promise<unknown>) => {
    actions++;
    await what;
  };
  const files = Object.entries(messyBoard()).map(([name, text]) => ({
    name,
    mimeType: "application/octet-stream",
    buffer: Buffer.from(text),
  }));
  const drop = async (product: string) => {
    actions = 0;
    await page.goto("/new");
    await act(page.getByLabel("Files of the board").setInputFiles(files));
    await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
    await act(page.getByLabel("Product", { exact: true }).fill(product));
    await act(page.getByRole("button", { name: "Keep it and start a run" }).click());
    await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
    await act(stage(page, "Source"));
    await act(page.getByRole("button", { name: "Ask the suppliers" }).click());
    await expect(page.getByRole("button", { name: "Ask again" })).toBeEnabled();
  };
  await drop("Sensor");
  const card = page.getByRole("region", { name: /25 lines without a part number/ });
  await expect(card.getByText("parts for all of them").first()).toBeVisible();
  await expect(page.getByText("at least", { exact: false }).first()).toBeVisible();
  await expectAccessible(page);
  await act(card.getByRole("button", { name: "Take all of these as they stand" }).click());
  await expect(page.getByText(/Taken for every product/).first()).toBeVisible();
  await expect(card.getByText("taken by the shop's rules")).toBeVisible();
  // every line is bought, and the run's figures are the price, not a part of it
  await expect(page.getByText("no offer")).toHaveCount(0);
  await act(stage(page, "Cost"));
  await expect(page.getByRole("heading", { name: "Cost", level: 1 })).toBeVisible();
  await expect(page.getByText(/not priced/)).toHaveCount(0);
  expect(actions).toBeLessThanOrEqual(10);

  // a class is asked once: another product has its prices at once; what is confirmed can be changed and taken back
  await drop("Sensor again");
  await expect(page.getByText("no offer")).toHaveCount(0);
  expect(actions).toBeLessThanOrEqual(5);
  await card.getByText("taken by the shop's rules").click();
  await card
    .getByRole("row", { name: /resistors/ })
    .getByRole("button", { name: "change" })
    .click();
  await card.getByLabel("tolerance at most").fill("0.1 %");
  await card.getByRole("button", { name: "Take resistors" }).click();
  await page.getByRole("button", { name: "undo" }).first().hover();
  await expect(card.getByText("0.1 %").first()).toBeVisible();
  await page.getByRole("button", { name: "undo" }).first().click();
  await expect(card.getByText("1 %", { exact: true }).first()).toBeVisible();

  // numbers in bulk: what they meet is seen before it is taken, what they do not meet stays and says why
  await card.getByRole("button", { name: "Paste numbers" }).click();
  const dialog = page.getByRole("dialog");
  await dialog
    .getByLabel("Rows with part numbers")
    .fill("R1-R4\tOX-R0603-10k-1\n4k7\tOX-R0603-4k7-1\n100n\tPW-C0603-100n-1\nR99\tOX-1");
  await expect(dialog.getByRole("row", { name: /R1 R2 R3 R4.*its reference/ })).toBeVisible();
  await expect(dialog.getByRole("row", { name: /R7 4k7.*its value/ })).toBeVisible();
  await expect(dialog.getByText(/Row 3 stays.*several lines have that value/)).toBeVisible();
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Take 2 numbers" }).click();
  await expect(page.getByRole("heading", { name: "23 lines without a part number" })).toBeVisible();
});
