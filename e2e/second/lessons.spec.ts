import type { Page } from "@playwright/test";
import {
  ask,
  demoArchive,
  expect,
  expectAccessible,
  expectAccessibleByNight,
  expectSaid,
  keptRun,
  newShop,
  openStage,
  test,
} from "../kit.ts";

interface Kept {
  readonly productId: string;
  readonly document: {
    readonly lines: readonly { id: string; dnp: boolean }[];
    readonly suppliers: readonly { id: string }[];
  };
}
/** The next revision of a run's product, and a run of it. */
async function nextRevision(page: Page, run: string, label: string): Promise<string> {
  const { productId } = await ask<Kept>(page, "GET", `/api/runs/${run}`);
  const form = new FormData();
  for (const [key, text] of Object.entries({ productId, revision: label, corrections: "{}" }))
    form.set(key, text);
  for (const [name, bytes] of Object.entries(demoArchive("kiln-watch-b")))
    form.append("files", new File([bytes as BlobPart], name));
  const { revisionId } = await ask<{ revisionId: string }>(page, "POST", "/api/products", form);
  return (
    await ask<{ id: string }>(page, "POST", "/api/runs", { revisionId, name: "of the next", goodBoards: 6 })
  ).id;
}

test("a note becomes a lesson in two presses, stops the next revision at import, is told what it caught, and lets a product off", async ({
  page,
}) => {
  await newShop(page, "Learning Works");
  const first = await keptRun(page, demoArchive("kiln-watch-a"), "Kiln Watch");
  const margin = page.getByRole("complementary", { name: "In the margin" });
  const note = margin.getByRole("listitem").filter({ hasText: "which way round these parts sit" });
  await note.getByRole("button", { name: "so that it costs once" }).press("Enter");
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("radio").first()).toBeChecked();
  await expect(dialog).toContainText(
    "It would have caught it: Nothing on silkscreen or copper tells it of D2, D3.",
  );
  await expectAccessible(page);
  await dialog.getByRole("button", { name: "Keep it" }).press("Enter");
  await expectSaid(page, "Learned: Every D tells on the board which way round it sits");

  const next = await nextRevision(page, first, "B");
  await openStage(page, next, "board");
  await expect(margin).toContainText(/Learned from a note on Kiln Watch A .*Here it is not so: .* D2, D3\./);
  await expect(page.getByRole("region", { name: "What was learned" })).toContainText(
    "0 of 1 check hold, 1 does not",
  );
  await openStage(page, next, "release");
  await expect(page.getByRole("main")).toContainText("Every D tells on the board which way round it sits");

  await page.keyboard.press("e");
  await expect(page.getByRole("heading", { name: "Lessons", level: 1 })).toBeVisible();
  const held = page.getByRole("region", { name: "Held against every board" });
  await expect(held).toContainText(
    /Caught Kiln Watch B, .*: Nothing on silkscreen or copper tells it of D2, D3\./,
  );
  await expect(held).toContainText("does not hold");
  await expectAccessibleByNight(page);
  await page.getByPlaceholder("did we ever have …").fill("wrong slot");
  await expect(held).toContainText("Nothing of what counts is like that.");
  await page.getByPlaceholder("did we ever have …").fill("way round");
  await held.getByRole("button", { name: /^More of Every D/ }).press("Enter");
  await held.getByLabel("Let off").selectOption({ label: "Kiln Watch" });
  await held.getByLabel("because", { exact: true }).fill("the sheet at the bench shows it");
  await held.getByLabel("because", { exact: true }).press("Enter");
  await expect(held).toContainText("Kiln Watch is let off: the sheet at the bench shows it");
  await openStage(page, next, "board");
  await expect(page.getByRole("region", { name: "What was learned" })).toBeVisible();
  await expect(margin.getByText(/Learned from/)).toHaveCount(0);
});

test("a fault of a revision stops the next until it is decided on, stands at each board that was built, is worked off one by one, and is what an owner tells of", async ({
  page,
}) => {
  await newShop(page, "Erring Works");
  const first = await keptRun(page, demoArchive("kiln-watch-a"), "Kiln Watch");
  const part = page.getByRole("region", { name: "What was learned" });
  await part.getByRole("button", { expanded: false }).click();
  await part.getByRole("button", { name: "something is wrong with Kiln Watch A" }).press("Enter");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("What is wrong, in a sentence").fill("The slot is too narrow");
  await dialog.getByLabel("Where", { exact: true }).fill("somewhere on the left");
  await expect(dialog.getByRole("button", { name: "Keep it" })).toBeDisabled();
  await dialog.getByLabel("Where", { exact: true }).fill("6,5 / 34");
  await dialog.getByLabel("On each board").fill("file it open to 1.9 mm");
  await dialog.getByLabel("Minutes a board").fill("3,5");
  await dialog.getByLabel("Minutes a board").press("Enter");
  await expectSaid(page, "Kiln Watch A: The slot is too narrow");
  const margin = page.getByRole("complementary", { name: "In the margin" });
  await expect(margin).toContainText(/Known of this revision since .*: The slot is too narrow\./);

  const next = await nextRevision(page, first, "B");
  await openStage(page, next, "board");
  // the slot is 1.6 mm wide in A and 1.82 in B
  await expect(margin).toContainText(
    /nobody has decided on it for B: .* Changed at its place: Drilled \d+ → \d+ %/,
  );
  await page.keyboard.press("e");
  const wrong = page.getByRole("region", { name: "Known to be wrong" });
  await expect(wrong).toContainText("1 revision not decided");
  await wrong.getByRole("group", { name: "The slot is too narrow in B" }).getByLabel("stays").press("Space");
  await expect(wrong).not.toContainText("not decided");
  await wrong.getByLabel("Why it is so in B").fill("the lid is thinner now");
  await wrong.getByLabel("Why it is so in B").press("Enter");
  await openStage(page, next, "board");
  await expect(margin).toContainText(
    "Known since A and left as it is (the lid is thinner now): The slot is too narrow.",
  );

  const { document } = await ask<Kept>(page, "GET", `/api/runs/${next}`);
  const offer = {
    supplierId: document.suppliers[0]!.id,
    stock: 5000,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.1" }],
  };
  for (const l of document.lines) if (!l.dnp) await ask(page, "POST", `/api/lines/${l.id}/offers`, offer);
  await ask(page, "POST", `/api/runs/${next}/release`);
  await ask(page, "POST", `/api/runs/${next}/work`, { on: "2026-11-30", started: 6, good: 5, minutes: 60 });
  await page.goto(`/runs/${next}/build?view=board&unit=2`);
  const known = page.getByRole("region", { name: "Known to be wrong" });
  await expect(known).toContainText("not worked around yet");
  await known.getByRole("button", { name: "worked around", exact: true }).press("Enter");
  await expect(known).toContainText("worked around");
  await expect(page.getByText("Kiln Watch B + 1 rework")).toBeVisible();
  await page.keyboard.press("e");
  await expect(wrong).toContainText("1 of 5 worked around");
  await wrong.getByRole("button", { name: "Board 3: not yet" }).click();
  await expect(wrong).toContainText("2 of 5 worked around");
  await wrong.getByRole("button", { name: "Board 3: worked around" }).click();
  await expect(wrong).toContainText("1 of 5 worked around, 1 given up");
  await expectAccessible(page);

  // three go to a fair, one of them to somebody who writes
  await page.goto(`/runs/${next}/build?view=board&unit=2`);
  const went = page.getByRole("region", { name: "Where it went" });
  const which = went.getByLabel("Which boards");
  await which.fill("1-3, x");
  await expect(went).toContainText("“x” is no board");
  await which.fill("1-3");
  await went.getByLabel("Where to").fill("winter fair");
  await went.getByLabel("Who has it").fill("Wilma Ferncastle");
  await went.getByLabel("Who has it").press("Enter");
  await expectSaid(page, "3 boards to winter fair");
  await expect(went).toContainText("winter fair");
  await went.getByRole("button", { name: "forget who has it" }).press("Enter");
  await expectSaid(page, "who has it is forgotten");
  await expect(went).not.toContainText("Ferncastle");
  const says = page.getByRole("region", { name: "What its owner says" });
  await says.getByLabel("What an owner says").fill("the lid does not close");
  await says.getByLabel("When it is so").fill("with gloves on");
  await says.getByRole("button", { name: "Write it down" }).press("Enter");
  await expect(says).toContainText("not answered");
  await expectAccessibleByNight(page);
  await says.getByLabel("It is", { exact: true }).selectOption({ label: "The slot is too narrow" });
  await expect(says).not.toContainText("not answered");
  await page.keyboard.press("Escape");
  await page.goto("/lessons");
  await expect(wrong).toContainText(
    "Owners told of it: 1 of the 3 boards that went out, likely 6 to 79 % of all.",
  );
  // the slot stays as it is: no other revision is made for it
  const plans = page.getByRole("region", { name: "Next revisions" });
  await expect(plans).toContainText("now B: 1 thing speaks for another");
  await plans.getByLabel("none is needed").press("Space");
  await plans.getByLabel("Why, for Kiln Watch").fill("a file does it");
  await plans.getByLabel("Why, for Kiln Watch").press("Enter");
  await expect(plans).toContainText("decided on");
  const owners = page.getByRole("region", { name: "What owners say" });
  await page.getByPlaceholder("did we ever have …").fill("gloves");
  await owners.getByLabel("Answered").fill("open it with a file");
  await owners.getByLabel("Answered").press("Enter");
  await expectSaid(page, "The answer is kept");
  await expectAccessible(page);
});
