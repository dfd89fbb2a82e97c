import { readFileSync } from "node:fs";
import {
  demoFiles,
  dropFiles,
  expect,
  expectAccessible,
  expectSaid,
  keptRun,
  newShop,
  stage,
  test,
} from "./kit.ts";

test("a foil is worked out and kept, used again in the next run, and refused once the paste layer is another one", async ({
  page,
}) => {
  const files = demoFiles("probe-tail");
  await newShop(page);
  await keptRun(page, files, "Foiled tail", "fab");
  await page.getByRole("button", { name: "stencil", exact: true }).click();
  await expect(page.getByRole("img", { name: /The foil of the top: 11 openings, 0 at fault/ })).toBeVisible();
  await expect(page.getByText(/Written and measured again: 11 openings/)).toBeVisible();
  await expectAccessible(page);

  // so are the openings: a layer of its own is cut only where they are not as drawn
  await expect(page.getByRole("button", { name: "save the corrected layer" })).toHaveCount(0);
  await page.getByRole("radio", { name: /^corrected/ }).check();
  await expectSaid(page, "Openings corrected");
  // another thickness is a choice of the run, and stays one
  await page.getByRole("radio", { name: /0.15 mm/ }).check();
  await expectSaid(page, "Foil of 0.15 mm");
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "save the corrected layer" }).click();
  const written = readFileSync(await (await coming).path(), "utf8");
  expect(written).toContain("%TF.FileFunction,Paste,Top*%");
  expect(written.match(/G36\*/g)).toHaveLength(11);

  await page.getByRole("button", { name: "keep this foil as one the shop has" }).click();
  await page.getByLabel("Name on it").fill("tail foil");
  await page.getByLabel("Lies in").fill("drawer 3");
  await page.getByRole("button", { name: "Keep it", exact: true }).click();
  await expectSaid(page, "tail foil is kept");
  await page.getByRole("button", { name: /more printed$/ }).click();
  await expect(page.getByText(/not printed with yet/)).toHaveCount(0);
  await page.getByRole("button", { name: /^Foil/ }).click();
  await page.getByRole("button", { name: /^tail foil/ }).click();
  await expectSaid(page, "Foil: tail foil");
  await expect(page.getByText("top: all openings match")).toBeVisible();

  // the next revision has four openings elsewhere
  const paste = "probe-tail-paste-top.gbr";
  const moved = files[paste]!.replaceAll(/X(27|12|11)000000Y(\d)/g, "X$1400000Y$2");
  expect(moved).not.toBe(files[paste]);
  await dropFiles(page, { ...files, [paste]: moved }, "Foiled tail");
  await page.getByRole("button", { name: "Keep this as its next revision" }).click();
  await expect(page.getByRole("heading", { name: "New revision of Foiled tail" })).toBeVisible();
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await stage(page, "Fab");
  await page.getByRole("button", { name: "stencil", exact: true }).click();
  await expect(
    page.getByText(
      /cannot be used: the paste layer of the top is another one: \d+ openings moved or of another size/,
    ),
  ).toBeVisible();
  await page.getByRole("button", { name: /^Foil/ }).click();
  await expect(page.getByRole("button", { name: /^tail foil/ })).toBeDisabled();
});
