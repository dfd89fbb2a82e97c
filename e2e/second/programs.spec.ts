import { ask, demoRun, expect, expectAccessible, expectSaid, test } from "../kit.ts";

test("images are listed with their revisions, one that is refused stops the release; loaded board by board, wiped, and in the passport", async ({
  page,
}) => {
  const run = await demoRun(page, "Kiln Watch", "programmed", 4, "assemble");
  await page.getByRole("button", { name: "Order of work" }).click();
  const made = page.getByRole("region", { name: "What the order is made from" });
  await made.getByLabel("Programmed at", { exact: true }).fill("J4");
  await made.getByLabel("Programmed at", { exact: true }).press("Enter");
  const list = page.getByRole("region", { name: "What is loaded" });
  await list.getByRole("button", { name: "add an image" }).press("Enter");
  const form = list.getByRole("group", { name: "1. image 1" });
  await form.getByLabel("Name").fill("watch");
  await form.getByLabel("Name").press("Enter");
  const watch = list.getByRole("group", { name: "1. watch" });
  const keep = async (label: string | RegExp, text: string) => {
    await watch.getByLabel(label, { exact: true }).fill(text);
    await watch.getByLabel(label, { exact: true }).press("Tab");
  };
  await keep("Version", "1.2");
  await keep("By which tool", "clip on the header");
  await keep(/^What the tool says/, "verified");
  await keep(/^What is run/, "load --psk=attic1234 watch.bin");
  await keep(/^Contacts/, "J4.1 = red\nJ4.2 = black");
  await keep(/^Given to each board/, "number; Light points; network key (wiped)");
  await watch.getByLabel("File of watch").setInputFiles({
    name: "watch.bin",
    mimeType: "application/octet-stream",
    buffer: Buffer.from("abc"),
  });
  // its hash is told, the file stays here (the hash of "abc" as published)
  await expect(watch).toContainText("begins ba7816bf8f01");
  // rows that cannot be read are told and not half kept
  await keep(/^Versions and revisions/, "1.0–1.3 on A: yes\n1.4 B yes");
  await expectSaid(page, /“1.4 B yes” cannot be read/);
  await keep(/^Versions and revisions/, "1.0–1.3 on B: no, pin map\n1.4–1.9 on B: yes");
  await expect(list).toContainText("not for B");
  await expectAccessible(page);
  // what stops and what is told stands in the margin
  const notes = page.getByRole("complementary");
  await expect(notes).toContainText("watch 1.2 is not for B: pin map.");
  await expect(notes).toContainText("holds a psk");
  await keep("Version", "1.4");
  await expect(list).toContainText("runs on B");
  await keep(/^What is run/, "load watch.bin");
  await expect(notes).not.toContainText("psk");

  type Kept = { document: { assembly: { images: { command: string }[] } } };
  const command = async () =>
    (await ask<Kept>(page, "GET", `/api/runs/${run}`)).document.assembly.images.map((i) => i.command);
  await expect.poll(command).toEqual(["load watch.bin"]);
  // what a value is called after is calibrated from point to point
  const points = ["10", "100"].map((applied) => ({
    ...{
      id: `p${applied}`,
      name: `light at ${applied} lx`,
      state: "powered",
      unit: "V",
      minutes: 0.2,
      expect: "",
    },
    ...{ drives: [], reads: ["J4.1"], through: [] },
    point: { of: "light", applied, unit: "lx", form: "pieces" },
  }));
  const { version } = await ask<{ version: number }>(page, "GET", `/api/runs/${run}`);
  await ask(page, "PATCH", `/api/runs/${run}`, { version, assembly: { tests: points } });
  await ask(page, "POST", `/api/runs/${run}/release`);
  for (const [item, value] of [
    ["p10", "0.3"],
    ["p100", "2.1"],
  ])
    await ask(page, "POST", `/api/runs/${run}/tries`, { unit: 1, item, value, on: "2026-11-30", words: "" });
  // at the bench: one image, one key; what the tool says speaks against whoever is in a hurry
  const step = (await stepOf(page, run))!;
  await page.goto(`/runs/${run}/build?view=hands&unit=1&step=${step}`);
  const bench = page.getByRole("region", { name: "At the bench" });
  await expect(bench).toContainText("watch 1.4");
  await expect(bench.getByRole("table", { name: "How it is joined" })).toContainText("J4.1");
  await expect(bench.getByRole("status").first()).toHaveText("0 of 1 loaded");
  await bench.getByLabel("number of this one").fill("0042");
  await expect(bench.getByLabel("Light points, as it was worked out")).toHaveValue("0.3:10 2.1:100");
  await bench.getByLabel("Socket").fill("2");
  await bench.getByLabel(/^It should say/).fill("timeout at 0x40");
  await bench.getByLabel(/^It should say/).press("Enter");
  await expectSaid(page, /It does not say “verified”/);
  await expect(bench.getByRole("list", { name: "Loaded so far" })).toContainText("not loaded");
  await expectAccessible(page);
  await bench.getByLabel(/^It should say/).fill("64 pages, Verified");
  await bench.getByLabel(/^It should say/).press("Enter");
  await expect(bench.getByText("All 1 are loaded.")).toBeVisible();
  await page.keyboard.press("Escape");

  await page.goto(`/runs/${run}/build?view=board&unit=1`);
  const passport = page.getByRole("region", { name: "Passport of board 1" });
  const loaded = passport.getByRole("table", { name: "What is loaded" });
  await expect(loaded).toContainText("loaded, at the second go");
  await expect(loaded).toContainText("0042");
  await expect(loaded).toContainText("0.3:10 2.1:100");
  await expect(passport).toContainText("not to be shipped like this");
  await loaded.getByRole("button", { name: "watch: it is wiped" }).press("Enter");
  await expect(loaded.getByRole("button", { name: "watch: not wiped after all" })).toContainText("wiped on");
  await expect(passport).not.toContainText("not to be shipped");
  await page.goto(`/runs/${run}/build?view=tests`);
  const far = page.getByRole("region", { name: "What is loaded so far" });
  await expect(far).toContainText("1 of 4 boards, 0 at the first go");
  await expect(far).toContainText("socket 2: 1 of 2 goes wrong");
  await expectAccessible(page);
});

/** Number of the step at which boards are programmed. */
async function stepOf(page: Parameters<typeof ask>[0], run: string): Promise<number | undefined> {
  await page.goto(`/runs/${run}/assemble`);
  await page.getByRole("button", { name: "Order of work" }).click();
  const row = page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /program/i });
  const text = await row.textContent();
  return Number(/\d+/.exec(text ?? "")?.[0]);
}
