import { readFileSync } from "node:fs";
import { demoRun, expect, expectAccessible, expectSaid, stage, test, unfold } from "./kit.ts";

test("a card's contacts lead to gold and to a bevel that leaves them whole, and the figures of its edge say why", async ({
  page,
}) => {
  await demoRun(page, "Rack Card", "with a bevel", 10);
  await unfold(page, "Card edge");
  await expect(page.getByText("11 of 1.5 × 6 mm at 2.5 mm")).toBeVisible();
  await expect(
    page.getByRole("button", { name: "one position is empty, where a key of the socket goes" }),
  ).toBeVisible();
  await expect(
    page.getByRole("img", { name: /contacts begin at 1.5 mm; a bevel of 20 degrees ends at 1.511/ }),
  ).toBeVisible();
  // 5 V and ground stand on four contacts each: 4 × 1 A, four fifths of it
  await expect(page.getByText("3.2 A").first()).toBeVisible();
  await page.getByLabel("One contact carries, A").fill("0,5");
  await expect(page.getByText("1.6 A").first()).toBeVisible();
  await expectAccessible(page);

  await stage(page, "Fab");
  // the house that is taken first has no bevel: the others are named
  await expect(page.getByText(/want a bevelled edge to go into a socket\./).first()).toBeVisible();
  await page
    .getByRole("row", { name: /Gannet/ })
    .getByRole("button", { name: /choose/i })
    .click();
  await expectSaid(page, "Boards by Gannet & Daughters");
  await expect(page.getByText(/Choose 30°, which leaves 0.347 mm/).first()).toBeVisible();
  await page.getByRole("button", { name: /^Bevel/ }).click();
  // 20° would grind: it is offered with the thinner board it needs, and says why
  await expect(
    page.getByText(/with thickness .* grinds contacts: 0.211 mm are missing to their copper/),
  ).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: /^30°/ }).click();
  await expectSaid(page, "Bevel: 30°");
  await expect(page.getByText(/want a bevelled edge/)).toHaveCount(0);
  // thin gold all over, or hard gold on the contacts alone: both with what speaks for them
  await page.getByRole("button", { name: /^Finish/ }).click();
  await expect(page.getByText(/wears through after some 20 to 50 insertions/).first()).toBeVisible();
  await page.getByRole("button", { name: /^Contacts/ }).click();
  await expect(page.getByText("the 22 contacts last where thin gold wears through")).toBeVisible();
  await page.getByRole("button", { name: /^hard gold 0.8 µm/ }).click();
  await expectSaid(page, "Contacts: hard gold 0.8 µm");
  await expect(page.getByText(/wears through after some/)).toHaveCount(0);
  // what is carried to a house that makes it beside another finish only is said there before it is chosen
  await page.getByRole("button", { name: /^levelled solder/ }).click();
  await expectSaid(page, "Finish: levelled solder, lead-free");
  await expect(
    page
      .getByRole("row", { name: /Plover/ })
      .getByText(/with coating of the contacts none: |with finish immersion gold: /),
  ).toBeVisible();
  await stage(page, "Release");
  await expect(page.getByText(/grinder meets copper/)).toHaveCount(0);
});

test("a house's profile goes out as a file and comes back as another house; one that contradicts itself is refused whole", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "at another house", 20, "fab");
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "its profile as a file" }).click();
  const download = await coming;
  expect(download.suggestedFilename()).toMatch(/^house-.*\.json$/);
  const profile = JSON.parse(readFileSync(await download.path(), "utf8")) as Record<string, unknown>;
  expect(profile.kobbin).toBe("house/1");
  const name = `Sent house ${Date.now()}`;
  await page.getByRole("button", { name: "begin a house that is not listed" }).click();
  const dialog = page.getByRole("dialog");
  const give = (value: object) =>
    dialog.getByLabel(/from a profile’s file/).setInputFiles({
      name: "house.json",
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify(value)),
    });
  const { price: _, ...without } = profile;
  await give({ ...without, name, currency: "euro" });
  await expect(dialog.getByRole("alert")).toContainText("house.json was not taken, and nothing is kept:");
  await expect(dialog.getByRole("alert")).toContainText("price is missing.");
  await expect(dialog.getByRole("alert")).toContainText("currency");
  await expectAccessible(page);
  await give({ ...profile, name });
  await expect(dialog).toHaveCount(0);
  await expectSaid(page, `Boards by ${name}`);
  const row = page.getByRole("row", { name: new RegExp(name) });
  await expect(row).toContainText("chosen");

  // its lists are typed: what cannot be is said beside the field, what can be changes its price
  const before = await row.textContent();
  await page.getByRole("button", { name: "edit its profile" }).click();
  const edit = page.getByRole("dialog");
  const partOf = (name: string) => edit.getByRole("button", { name, exact: true }).click();
  await partOf("What it charges");
  const steps = edit.getByLabel(/^steps of the area price/);
  await steps.fill("0: 1, 10: 0");
  await expect(edit.getByText("A factor is more than 0.")).toBeVisible();
  await expect(edit.getByRole("button", { name: "Save" })).toBeDisabled();
  await steps.fill("0: 3");
  // its choices are typed too: a value that hangs on another, and one that cannot be read
  await partOf("Choices");
  const finish = edit.getByRole("region", { name: "Finish" });
  await finish.getByRole("button", { expanded: false }).click();
  await finish.getByRole("button", { name: "one more in Finish" }).click();
  const last = finish.getByLabel(/^Finish, what it is/).last();
  await last.fill("hot tin, by hand");
  await finish
    .getByLabel(/^Finish, set-up/)
    .last()
    .fill("free");
  await expect(finish.getByRole("alert")).toContainText("“free” is no amount");
  await expect(edit.getByRole("button", { name: "Save" })).toBeDisabled();
  await finish
    .getByLabel(/^Finish, set-up/)
    .last()
    .fill("7,50");
  await expect(finish).toContainText("“hot tin, by hand” is a value of its own: no other house has it.");
  await finish
    .getByLabel(/^Finish, only beside/)
    .last()
    .fill("mask colour: green");
  await expectAccessible(page);
  await partOf("Way here");
  await edit.getByRole("button", { name: "one more in Ways here" }).click();
  for (const [label, text] of [
    ["what it is", "by messenger"],
    ["base", "30"],
    ["half a kilogram", "4"],
    ["days on the way", "1"],
    ["usual delay, days", "0.5"],
  ] as const)
    await edit
      .getByLabel(new RegExp(`^Ways here, ${label}`))
      .last()
      .fill(text);
  await edit.getByRole("button", { name: "Save" }).click();
  await expect(edit).toHaveCount(0);
  await expect.poll(() => row.textContent()).not.toBe(before);
  await page.getByRole("button", { name: /^Finish/ }).click();
  await expect(page.getByRole("button", { name: /^hot tin, by hand/ })).toBeVisible();
  await page.getByRole("button", { name: /^Way here/ }).click();
  await expect(page.getByRole("button", { name: /^by messenger/ })).toBeVisible();
  await page.getByRole("button", { name: "edit its profile" }).click();
  await partOf("What it charges");
  await expect(steps).toHaveValue("0: 3");
});

test("a day finds the cheapest house that is here in time, a sum the quickest within it; a key takes it", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail", "in a hurry", 20, "fab");
  const by = page.getByLabel("Boards here by");
  // today nothing is here; the soonest are named
  await by.fill("today");
  await by.press("Enter");
  await expect(page.getByText(/^none: the soonest are here in \d+ days$/)).toBeVisible();
  await by.fill("+9");
  await by.press("Enter");
  const found = page.getByText(/^cheapest: /);
  await expect(found).toContainText("Plover Lane Boards");
  await expectAccessible(page);
  await page.getByRole("heading", { name: "Fab", level: 1 }).click();
  await page.keyboard.press("c");
  await expectSaid(page, /^Boards by Plover Lane Boards in \d+ days$/);
  await expect(page.getByRole("row", { name: /Plover/ })).toContainText("chosen");
  await expect(found).toContainText("chosen");
  await page.getByLabel(/^Landed for at most/).fill("1");
  await expect(page.getByText(/^none: the cheapest are /)).toBeVisible();
  await page.getByLabel(/^Landed for at most/).fill("1000");
  await expect(page.getByText(/^quickest: /)).toBeVisible();
});
