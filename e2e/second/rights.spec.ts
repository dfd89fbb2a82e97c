import { demoArchive, expect, expectAccessible, keptRun, newShop, stage, test, unfold } from "../kit.ts";

test("an emblem nobody entitled to stops a run that is sold; a letter lets it go, or the run stays in the shop; questions before a sale are asked", async ({
  page,
}) => {
  await newShop(page, "Emblem Works");
  await keptRun(page, demoArchive("probe-tail"), "Tail", "release");
  const part = await unfold(page, "Whose it is");
  await expect(part).toContainText(
    "not said whether it is sold; no mark, picture or borrowed thing is written down",
  );
  await part.getByLabel("called").fill("emblem of the pottery fair");
  await part.getByLabel("called").press("Enter");
  const blockers = page.getByRole("region", { name: "Blockers" });
  const open =
    /emblem of the pottery fair \(a mark or a logo\) may not be this shop’s to use: nobody has looked/;
  await expect(blockers).toContainText(open);
  // for the shop alone it is a remark
  await part.getByLabel("for this shop alone").press("Space");
  await expect(blockers).not.toContainText("emblem");
  await part.getByLabel("made to be sold or given away").press("Space");
  await expect(blockers).toContainText(open);
  await expect(part).toContainText("Before it is sold: 6 questions open");
  const row = part.getByRole("listitem").filter({ hasText: "emblem of the pottery fair" });
  await row.getByLabel("May it be used").selectOption("granted to us");
  await expect(blockers).toContainText("is said to be allowed, and nothing shows it");
  await row.getByLabel("Whose it is").fill("Pottery Fair");
  await row.getByLabel("Whose it is").press("Enter");
  await row.getByLabel("What you would show").fill("letter of 4 May");
  await row.getByLabel("What you would show").press("Enter");
  await expect(blockers).not.toContainText("emblem");
  await expect(part).toContainText("made to be sold; all 1 may be used");
  await part
    .getByLabel(/^Is there lead/)
    .fill("none: tin-silver-copper, statements of the makers kept in the binder");
  await part.getByLabel(/^Is there lead/).press("Enter");
  await expect(part).toContainText("Before it is sold: 5 questions open");
  await expectAccessible(page);
  await stage(page, "Cost");
  await expect(page.getByRole("complementary", { name: "In the margin" })).toContainText(
    "5 questions are open",
  );
});
