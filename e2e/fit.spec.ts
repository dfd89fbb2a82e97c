import type { Page } from "@playwright/test";
import {
  demoFiles,
  demoRun,
  dropFiles,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  stage,
  test,
} from "./kit.ts";

const watch = demoFiles("kiln-watch-a");
const drop = (page: Page, files: Readonly<Record<string, string>>) => dropFiles(page, files, "Fitted watch");
const keep = async (page: Page) => {
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
};

test("a slot too narrow for its tab is found before ordering, mended by the size that is proposed, and holds on the next revision", async ({
  page,
}) => {
  await newShop(page, "Fitting Works");
  await keptRun(page, watch, "Fitted watch");
  await page.getByRole("button", { name: "does it fit" }).click();
  const sheet = page.getByRole("region", { name: "Fit sheet" });
  await expect(sheet).toContainText("What the board must go into, before any money moves.");
  await sheet.getByRole("button", { name: "Add what it must fit" }).click();
  const form = page.getByRole("form", { name: "A row of the fit sheet" });
  await form.getByRole("button", { name: "a tab in a slot" }).click();
  await form.getByRole("button", { name: "Judge it" }).click();
  await expect(form.getByRole("alert")).toContainText("Pick the slot on the picture.");
  // the board's side is picked, the other typed: with a slipped mark first
  await form.getByRole("radio", { name: /1.6 × 13.6 at 6.5 \/ 34.0/ }).check();
  await form.getByLabel("What it must fit").fill("Tab of the lid");
  await form.getByLabel("The tab is, mm").fill("1.69 17.1 1.7");
  await expect(form.getByRole("alert")).toContainText("The reading 17.1 is far from the others");
  await form.getByLabel("The tab is, mm").fill("1.7");
  await form.getByLabel("± mm").fill("0.05");
  await expectAccessible(page);
  await form.getByRole("button", { name: "Judge it" }).click();
  await expectSaid(page, "Tab of the lid is judged from now on");
  // 1.6 − 1.7 is a tenth too little: 1.7 + 0.05 + 0.15 always takes it
  const row = sheet.getByRole("listitem").filter({ hasText: "Tab of the lid" });
  await expect(row).toContainText("does not always fit");
  await expect(row).toContainText("a slot of 1.9 mm instead of 1.6 always fits");
  await expect(
    row.getByRole("img", { name: /^Room from −0.3 to 0.1 mm, 0.1 mm missing as drawn/ }),
  ).toBeVisible();
  await expectAccessible(page);
  // and it stands in the way of the release
  await stage(page, "Release");
  await expect(
    page.getByText(/Tab of the lid does not always fit: 0.3 mm are missing at worst/).first(),
  ).toBeVisible();

  // the next revision has the slot as proposed
  const name = Object.keys(watch).find((n) => n.endsWith("unplated.drl"))!;
  const wider = watch[name]!.replace("C1.600", "C1.900");
  expect(wider).not.toBe(watch[name]);
  await drop(page, { ...watch, [name]: wider });
  await page.getByRole("button", { name: "Keep this as its next revision" }).click();
  await expect(page.getByRole("heading", { name: "New revision of Fitted watch" })).toBeVisible();
  await keep(page);
  await page.getByRole("button", { name: "does it fit" }).click();
  await expect(sheet).toContainText("1 row, all fit; with the tolerances of");
  await expect(row).toContainText("slot 1.9 × 13.9 mm ± 0.15, for a tab of 1.7 mm ± 0.05");
  await stage(page, "Release");
  await expect(page.getByText(/Tab of the lid/)).toHaveCount(0);
});

test("a socket holds at an exact house and not at an ordinary one; posts in inches are asked about", async ({
  page,
}) => {
  await demoRun(page, "Rack Card", "in its socket", 10);
  await page.getByRole("button", { name: "does it fit" }).click();
  const sheet = page.getByRole("region", { name: "Fit sheet" });
  const socket = sheet.getByRole("listitem").filter({ hasText: "Socket of the rack" });
  await expect(sheet.getByRole("listitem").filter({ hasText: "Contacts of the rack" })).toContainText(
    "11 contacts of 1.5 at 2.5 mm on a tab of 32.5 mm ± 0.2, slips up to 0.5 mm each way at worst",
  );
  // the cheapest house is chosen first, and holds a tenth of the thickness
  await expect(socket).toContainText("board 1.6 mm thick ± 0.16, in what takes 1.46 to 1.74 mm");
  await expect(socket).toContainText("does not always fit");
  await expect(socket).toContainText("Gannet & Daughters holds it as it is");
  await stage(page, "Fab");
  await page
    .getByRole("row", { name: /Gannet/ })
    .getByRole("button", { name: /choose/i })
    .click();
  await expectSaid(page, "Boards by Gannet & Daughters");
  await stage(page, "Board");
  await page.getByRole("button", { name: "does it fit" }).click();
  await expect(socket).toContainText("board 1.6 mm thick ± 0.112");
  await expect(sheet).toContainText("2 rows, all fit; with the tolerances of Gannet & Daughters");

  await sheet.getByRole("button", { name: "Add what it must fit" }).click();
  const form = page.getByRole("form", { name: "A row of the fit sheet" });
  for (const hole of await form.getByRole("checkbox").all()) await hole.check();
  await form.getByLabel("What it must fit").fill("Rails of the rack");
  await form.getByLabel(/^Posts: x and y/).fill("0 0\n2.047244 0");
  await form.getByLabel("Diameter, mm").fill("2.5");
  await expect(form.getByRole("alert")).toContainText("if a number were an inch");
  await form.getByRole("button", { name: "that is what they are" }).click();
  await form.getByRole("button", { name: "Judge it" }).click();
  await expect(sheet.getByRole("listitem").filter({ hasText: "Rails of the rack" })).toContainText(
    "on posts of 2.5 mm",
  );
  await sheet.getByRole("button", { name: "Remove Rails of the rack" }).click();
  await expect(sheet.getByText("Rails of the rack")).toHaveCount(0);
});
