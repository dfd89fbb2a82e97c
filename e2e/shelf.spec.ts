import { expect, expectAccessible, expectSaid, newShop, test } from "./kit.ts";

test("a lot is measured: what is outside sets it apart, the next lot keeps the limits and is compared", async ({
  page,
}) => {
  await newShop(page, "Measuring Works");
  await page.goto("/shelf");
  const put = async (place: string) => {
    await page.getByLabel("Part number").fill("OX-SENSE-1");
    await page.getByLabel("Pieces", { exact: true }).fill("40");
    await page.getByLabel("Place").fill(place);
    await page.getByLabel("Cost each, EUR").fill("0.50");
    await page.getByRole("button", { name: "Put on the shelf" }).click();
    await expect(page.getByRole("cell", { name: place, exact: true })).toBeVisible();
  };
  await put("drawer 1");
  await page.getByRole("button", { name: "Measured of OX-SENSE-1, drawer 1" }).click();
  const form = page.getByRole("form", { name: "What was measured of OX-SENSE-1" });
  await form.getByLabel("What is measured").fill("gain");
  await form.getByLabel("At least").fill("98");
  await form.getByLabel("At most").fill("102");
  await form.getByLabel(/^Readings/).fill("99\n100\n101\nabout 100");
  await expect(form.getByRole("alert")).toContainText("about 100: no amount");
  await expect(form.getByRole("button", { name: "Keep the readings" })).toBeDisabled();
  await form.getByLabel(/^Readings/).fill("99\n100\n101\n103");
  await expect(form.getByText("1 piece outside the limits")).toBeVisible();
  await expectAccessible(page);
  await form.getByRole("button", { name: "Keep the readings" }).click();
  await expectSaid(page, "4 readings of OX-SENSE-1 kept");
  await form.getByRole("button", { name: "Set the lot apart" }).click();
  await expectSaid(page, "OX-SENSE-1 is set apart: no run takes from it");
  await expect(page.getByLabel("Condition of OX-SENSE-1")).toHaveValue("quarantine");

  // the lot that comes in its place, with another gain
  await put("drawer 2");
  await page.getByRole("button", { name: "Measured of OX-SENSE-1, drawer 2" }).click();
  await expect(form.getByLabel("What is measured")).toHaveValue("gain");
  await expect(form.getByLabel("At least")).toHaveValue("98");
  await form.getByLabel(/^Readings/).fill("90 90.5 90.2");
  await expect(form.getByText("3 pieces outside the limits")).toBeVisible();
  await expect(form.getByText(/against the lot of .*drawer 1: more than chance would make/)).toBeVisible();
});
