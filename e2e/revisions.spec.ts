import type { Page } from "@playwright/test";
import { demoFiles, dropFiles, expect, expectAccessible, keptRun, newShop, test } from "./kit.ts";

type Files = Readonly<Record<string, string>>;
const tail = demoFiles("probe-tail");
/** The files with something else in one of them; what is replaced must be there. */
function planted(files: Files, name: string, from: string, to: string): Files {
  if (!files[name]!.includes(from)) throw new Error(`${name} holds no ${from}`);
  return { ...files, [name]: files[name]!.replace(from, to) };
}

async function keep(page: Page, files: Files): Promise<void> {
  await dropFiles(page, files, "Compared tail");
  await page.getByRole("button", { name: "Keep this as its next revision" }).click();
  await expect(page.getByRole("heading", { name: "New revision of Compared tail" })).toBeVisible();
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
}

test("a revision with three planted changes is dropped: all three are found unasked, and the stencil is judged both ways", async ({
  page,
}) => {
  await newShop(page, "Two Letter Works");
  await keptRun(page, tail, "Compared tail");
  await expect(page.getByText("Since A:")).toBeHidden();
  const b = [
    // a hole made larger, one added, a stroke of the silkscreen a millimetre longer
    ["probe-tail-unplated.drl", "T01C2.200", "T01C2.500"],
    ["probe-tail-plated.drl", "X10.000Y11.500\n", "X10.000Y11.500\nX22.000Y3.000\n"],
    ["probe-tail-legend-top.gbr", "X3880000Y14330000D02*", "X3880000Y15330000D02*"],
  ].reduce((f, [name, from, to]) => planted(f, name!, from!, to!), tail);
  await keep(page, b);
  const since = page.getByText("Since A:").locator("..");
  await expect(since).toContainText(
    "drill plated, drill unplated, silkscreen top changed; the stencil top serves again: all 11 openings are in it",
  );
  await since.getByRole("button", { name: "compare" }).click();
  const against = page.getByRole("region", { name: "Against revision A" });
  await expect(against.getByRole("button", { name: /show on the picture/ })).toHaveCount(3);
  for (const place of [
    /^drill plated, difference 1 of 1, added, 0.3 mm/,
    /^drill unplated, difference 1 of 1, 2.2 → 2.5 mm/,
    /^silkscreen top, difference 1 of 1, added, 1.\d mm/,
  ])
    await expect(against.getByRole("button", { name: place })).toBeVisible();
  await expect(against).toContainText("No order of A is open.");
  await expectAccessible(page);

  // and one paste opening two tenths off: no stencil of before serves
  await keep(page, planted(b, "probe-tail-paste-top.gbr", "X7850000Y13000000", "X8050000Y13000000"));
  await expect(page.getByText("Since B:").locator("..")).toContainText(
    "paste top changed; the stencil top is needed anew: 1 opening moved or of another size",
  );
});
