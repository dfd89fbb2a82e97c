import { enterDemo, expect, expectAccessible, startRun, test } from "./kit.ts";

test("drills, pads joined to nothing and what differs from another revision: each is shown on the picture at a press", async ({
  page,
}) => {
  test.setTimeout(120_000);
  await enterDemo(page);
  await startRun(page, "Kiln Watch B", "each at its place", 5);
  const id = /runs\/([^/]+)/.exec(page.url())![1];
  await page.goto(`/runs/${id}/board`);
  const drills = page.getByRole("region", { name: "Drills" });
  await expect(
    drills.getByRole("row", { name: /^T2, 1 mm.* plated 20 – the house's component/ }),
  ).toBeVisible();
  // a press leads to the first of its holes, the next press to the second
  const picture = page.getByLabel(/^Board, top side/);
  const tool = drills.getByRole("button", { name: /^T2, 1 mm, show hole 1 of 20/ });
  await tool.click();
  await expect(picture).toBeInViewport();
  await expect(drills.getByRole("button", { name: /^T2, 1 mm, show hole 2 of 20/ })).toBeVisible();
  const pads = page.getByRole("region", { name: "19 pads joined to nothing" });
  await expect(pads.getByRole("button", { name: /show on the picture/ })).toHaveCount(12);
  await pads.getByRole("button", { name: "7 more" }).click();
  await expect(pads.getByRole("button", { name: /show on the picture/ })).toHaveCount(19);
  await pads.getByRole("button", { name: "U1.19, show on the picture" }).press("Enter");
  await expect(picture).toBeInViewport();

  await page.getByRole("button", { name: "against A" }).click();
  const against = page.getByRole("region", { name: "Against revision A" });
  await expect(against).toContainText("Revision B against A");
  await expect(against.getByRole("term").filter({ hasText: "copper top" })).toBeVisible();
  await expect(against).toContainText(/stencil/);
  await expectAccessible(page);
  await against.getByRole("button", { name: /^copper top, difference 1 of/ }).click();
  await expect(picture).toBeInViewport();
  await against.getByRole("button", { name: "close" }).click();
  await expect(against).toHaveCount(0);
});
