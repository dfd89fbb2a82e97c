import { expect, expectAccessible, expectSaid, releasedDemoRun, stage, test } from "./kit.ts";

test("a bare board of a delivery is tried by keyboard, a short is found and kept with the lot, and stands at Receive", async ({
  page,
}) => {
  await releasedDemoRun(page, "Probe Tail", "tried bare", 20, "receive");
  const boards = page.getByRole("article").filter({ hasText: "Probe Tail A" });
  await expect(boards.getByRole("link", { name: "try one bare" })).toBeHidden();
  await boards.getByRole("button", { name: "All of it came" }).click();
  await boards.getByRole("link", { name: "try one bare" }).click();

  // what could do most harm first; nothing it could be mistaken for is on these keys meanwhile
  const asked = page.getByText("must stay silent").locator("..");
  await expect(asked).toContainText("GND – V must stay silent");
  await expect(page.getByText("of 10: supply against ground")).toBeVisible();
  await expect(page.getByText("Nothing plugged in, no cell")).toBeVisible();
  await expect(page.getByRole("application", { name: /^Place A, top side/ })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press("y");
  await expect(page.getByText("GND – V beeps (J1.3 – J1.1). Go on, or set the board aside.")).toBeVisible();
  await page.keyboard.press("Backspace");
  await expect(page.getByText("1 of 10:")).toBeVisible();
  await page.keyboard.press("y");
  const strip = (words: string) => page.getByRole("img", { name: words });
  await expect(strip("1 of 10 tried, 1 did not hold")).toBeVisible();
  // the others hold: joined beeps, apart stays silent
  for (let i = 2; i <= 10; i++) {
    await expect(page.getByText(`${i} of 10:`)).toBeVisible();
    await page.keyboard.press((await page.getByText("must beep").isVisible()) ? "y" : "n");
    // what was answered outlives the page
    if (i === 5) {
      await expect(strip("5 of 10 tried, 1 did not hold")).toBeVisible();
      await page.reload();
      await expect(strip("5 of 10 tried, 1 did not hold")).toBeVisible();
    }
  }
  await expect(page.getByText("1 of 10 does not hold")).toBeVisible();
  await expectAccessible(page);
  await expect(page.getByLabel("Which board")).toBeFocused();
  await expect(page.getByLabel("Which board")).toHaveValue("1");
  await expect(page.getByLabel("Of the delivery")).toContainText(/\d+ boards/);
  await page.keyboard.press("Enter");
  await expectSaid(page, "Board 1: 1 fault");
  // the next one
  await expect(page.getByText("1 of 10:")).toBeVisible();

  await stage(page, "Receive");
  await expect(boards).toContainText("1 tried bare, 1 with faults");
  await boards.getByRole("link", { name: "try one bare" }).click();
  await expect(page.getByText("1 of 10:")).toBeVisible();
  await page.keyboard.press("n");
  await page.getByRole("button", { name: "enough of this board" }).click();
  await expect(page.getByText("All 1 hold")).toBeVisible();
  await expect(page.getByText("1 board tried, 1 with faults")).toBeVisible();
  await page.getByRole("button", { name: "Remove the trial of board 1" }).click();
  await expect(page.getByText("1 board tried")).toBeHidden();
});
