import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { unzipSync } from "fflate";
import {
  cell,
  demoArchive,
  demoRun,
  enterDemo,
  expect,
  expectAccessible,
  expectColours,
  expectPainted,
  expectSaid,
  keptRun,
  newShop,
  perGood,
  setCell,
  stage,
  startShop,
  test,
} from "./kit.ts";

const value = (page: Page, line: string, text: string) => cell(page, `Value of ${line}`, text);
const setValue = (page: Page, line: string, text: string) => setCell(page, `Value of ${line}`, text);
const history = async (page: Page) => {
  await page.getByRole("link", { name: "history", exact: true }).click();
  await expect(page.getByRole("heading", { name: "History", level: 1 })).toBeVisible();
};
let names = 0;
/** A second person, let in by a link, in a browser of their own. */
async function inviteSecond(
  page: Page,
  role: "owner" | "bench",
): Promise<{ second: Page; name: string; close: () => Promise<void> }> {
  await page.goto("/settings/people");
  await page.getByLabel("As", { exact: true }).selectOption(role);
  await page.getByRole("button", { name: "Make a link" }).click();
  const link = await page.getByLabel("The link, shown this once").inputValue();
  const context = await page
    .context()
    .browser()!
    .newContext({ viewport: { width: 1280, height: 800 } });
  const second = await context.newPage();
  await second.goto(link);
  const name = `ada-${Date.now()}-${names++}`;
  await second.getByLabel("Name to sign in with").fill(name);
  await second.getByLabel("Password").fill("a long password");
  await second.getByRole("button", { name: "Join the shop" }).click();
  await expect(second.getByRole("heading", { name: "Bench" })).toBeVisible();
  return { second, name, close: () => context.close() };
}

test("a change is taken back from the history after a reload, and by Ctrl+Z, and brought again", async ({
  page,
}) => {
  await demoRun(page, "Probe Tail A", "history", 20, "parts");
  const tried = `tried ${Date.now()}`;
  await setValue(page, "U1", tried);
  await expect(value(page, "U1", tried)).toBeVisible();
  await stage(page, "Fab");
  const finish = page.getByRole("button", { name: /^Finish/ });
  const before = (await finish.textContent())!;
  const was = await perGood(page);
  await finish.click();
  await page
    .getByRole("list", { name: "Finish: alternatives" })
    .getByRole("button", { name: /immersion gold/ })
    .click();
  await expect.poll(() => perGood(page)).not.toBe(was);
  const gold = await perGood(page);
  await expect(page.getByText(/^saved \d\d:\d\d$/)).toBeVisible();
  await page.reload();
  await history(page);
  await expect(page.getByRole("listitem").filter({ hasText: tried })).toBeVisible();
  await page.getByRole("button", { name: new RegExp(`^Take back: U1: value.*${tried}`) }).click();
  await expect(
    page.getByRole("button", { name: new RegExp(`^Bring again: U1: value.*${tried}`) }),
  ).toBeVisible();
  await page.keyboard.press("Control+z");
  await expectSaid(page, /^Taken back: finish/);
  // what a board costs is also moved by the shop's other runs: the choice itself is what has come back
  await expect.poll(() => perGood(page)).not.toBe(gold);
  await expectAccessible(page);
  await stage(page, "Fab");
  await expect(finish).toHaveText(before);
  await page.keyboard.press("Control+Shift+z");
  await expectSaid(page, /^Brought again: finish/);
  await expect(finish).toContainText("immersion gold");
  await stage(page, "Parts");
  await expect(value(page, "U1", tried)).toHaveCount(0);
});

test("two people see each other; what they set apart joins, what they set alike is shown with both values", async ({
  page,
}) => {
  await newShop(page, "Two benches");
  const { second, name, close } = await inviteSecond(page, "owner");
  const run = await keptRun(page, demoArchive("probe-tail"), "Probe Tail", "parts");
  await second.goto(`/runs/${run}/parts`);
  await expect(page.getByText(`${name} (`)).toBeVisible();
  await expect(second.getByText("also here:")).toBeVisible();

  // apart: arrives by itself, nothing lost
  await setValue(page, "U1", "first person's");
  await expect(value(second, "U1", "first person's")).toBeVisible();
  await setCell(second, "Maker of U1", "second's maker");
  await expect(cell(page, "Maker of U1", "second's maker")).toBeAttached();

  // what one is typing stays while the other's change arrives
  await second.getByRole("button", { name: /^notes \(/ }).click();
  await second.getByRole("button", { name: "add a remark" }).click();
  await second.getByRole("textbox", { name: "Remark" }).fill("half a sent");
  await setValue(page, "U1", "first person's again");
  await expect(value(second, "U1", "first person's again")).toBeVisible();
  await expect(second.getByRole("textbox", { name: "Remark" })).toHaveValue("half a sent");
  await second.getByRole("button", { name: "not now" }).click();

  // alike: the second goes on from a state it saw before the first saved
  await second.route("**/api/live*", (route) => route.abort());
  await second.context().setOffline(true);
  await setValue(second, "U1", "B's value");
  await expect(second.getByText(/not saved: 1 change/)).toBeVisible();
  await expect(second.getByText(/kept on this page/)).toBeVisible();
  await setValue(page, "U1", "A's value");
  await expect(page.getByText(/^saved/)).toBeVisible();
  await second.context().setOffline(false);
  const dialog = second.getByRole("dialog");
  await expect(dialog).toContainText("changed the same");
  await expect(dialog.getByRole("row", { name: /value/ })).toContainText("B's value");
  await expect(dialog.getByRole("row", { name: /value/ })).toContainText("A's value");
  await expectAccessible(second);
  await dialog.getByRole("button", { name: "Put mine" }).click();
  await expect(value(second, "U1", "B's value")).toBeVisible();
  await expect(value(page, "U1", "B's value")).toBeVisible();

  // what the other changed since is not silently undone
  await page.goto(`/runs/${run}/history`);
  await page.getByRole("button", { name: /^Take back: U1: value first person's again → A's value/ }).click();
  await expect(page.getByRole("alert")).toContainText(`${name} set the value to “B's value” since`);
  await close();
});

test("the bench looks and notes; it cannot choose, order or invite, and is told so", async ({ page }) => {
  await enterDemo(page);
  const { second, close } = await inviteSecond(page, "bench");
  await second
    .getByRole("link", { name: /for the autumn market/ })
    .first()
    .click();
  await expect(second.getByText("You are at the bench here")).toBeVisible();
  await stage(second, "Parts");
  await expect(second.getByRole("button", { name: "Add a line" })).toHaveCount(0);
  await second.getByRole("button", { name: /^notes \(/ }).click();
  await second.getByRole("button", { name: "add a remark" }).click();
  await second.getByRole("textbox", { name: "Remark" }).fill("two of these were loose in the bag");
  await second.keyboard.press("Control+Enter");
  await expect(second.getByRole("region", { name: "Remarks" })).toContainText("two of these were loose");
  await stage(second, "Release");
  await expect(second.getByRole("button", { name: "Release and pack" })).toHaveCount(0);
  await second.goto("/settings");
  await expect(second.getByRole("link", { name: "The shop" })).toHaveCount(0);
  await expectAccessible(second);
  await second.goto("/settings/people");
  await expect(second.getByRole("button", { name: "Make a link" })).toHaveCount(0);
  await close();
});

test("while the server is away one goes on working; what is not saved is said, kept over a reload, and saved", async ({
  page,
}) => {
  page.on("dialog", (d) => d.accept());
  await demoRun(page, "Rack Card A", "away", 9, "parts");
  // writes do not get through; pages and reads do, as with a database that is gone for a moment
  let isAway = true;
  await page.route(/\/api\/(lines|runs)\//, (route) =>
    isAway && route.request().method() !== "GET" ? route.abort() : route.continue(),
  );
  const [typed, maker] = [`typed while away ${Date.now()}`, `also typed ${Date.now()}`];
  await setValue(page, "U1", typed);
  await expect(value(page, "U1", typed)).toBeVisible();
  await expect(page.getByText("not saved: 1 change")).toBeVisible();
  await setCell(page, "Maker of U1", maker);
  await expect(page.getByText("not saved: 2 changes")).toBeVisible();
  await page.reload();
  await expect(page.getByText("not saved: 2 changes")).toBeVisible();
  isAway = false;
  await expect(value(page, "U1", typed)).toBeVisible();
  await expect(cell(page, "Maker of U1", maker)).toBeAttached();
  await expect(page.getByText(/^saved/)).toBeVisible();
  await history(page);
  await expect(page.getByRole("listitem").filter({ hasText: typed })).toHaveCount(1);
});

test("a session that ended elsewhere: signing in over the page, and what was typed is saved", async ({
  page,
}) => {
  await newShop(page, "Ended");
  await page.goto("/settings");
  await page.getByLabel("Own hours a day").fill("6");
  await page.getByLabel("Name of the shop").fill("Ended and back");
  const person = await page.evaluate(() =>
    fetch("/api/session").then(async (r) => ((await r.json()) as { person: string }).person),
  );
  // as from another device: the session is ended while the page stands
  await page.evaluate(async () => {
    const [one] = (await (await fetch("/api/sessions")).json()) as { id: string }[];
    await fetch(`/api/sessions/${one!.id}`, { method: "DELETE" });
  });
  await page.getByRole("button", { name: "Save", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "You were signed out" });
  await expect(dialog).toBeVisible();
  await expect(dialog.getByLabel("Sign-in name")).toHaveValue(person);
  await dialog.getByLabel("Your password").fill("a long password");
  await dialog.getByRole("button", { name: "Sign in" }).click();
  await expectSaid(page, "The shop's settings were saved");
  await page.reload();
  await expect(page.getByLabel("Own hours a day")).toHaveValue("6");
  await expect(page.getByLabel("Name of the shop")).toHaveValue("Ended and back");
});

test("a backup is downloaded and read back as a shop of its own", async ({ page }) => {
  await enterDemo(page);
  await page.goto("/settings/data");
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download the backup" }).click(),
  ]);
  const path = await download.path();
  expect(Object.keys(unzipSync(new Uint8Array(readFileSync(path))))).toEqual(
    expect.arrayContaining(["manifest.json", "tables/bom_line.jsonl", "tables/change.jsonl"]),
  );
  await newShop(page, "Takes over");
  await page.goto("/settings/data");
  await page
    .getByLabel("Backup to read")
    .setInputFiles({ name: "b.zip", mimeType: "application/zip", buffer: Buffer.from("nothing") });
  await expectSaid(page, /This is no backup Kobbin can read/);
  await page.getByLabel("Backup to read").setInputFiles(path);
  // as long as it takes: the shop of all journeys is read, checked and numbered anew
  await expectSaid(page, "Ashglaze Works is here", 150_000);
  await expect(page.getByRole("link", { name: /for the spring fairs/ }).first()).toBeVisible();
  await page.goto("/settings/access");
  // by its key: the list above comes a moment later and moves it
  await page.getByRole("button", { name: "Go to Takes over" }).press("Enter");
  await expect(page.getByText("Nothing here yet.")).toBeVisible();
});

test("find or do: a part, a stage and an action by words; rows copied and pasted; mil beside mm; a decimal comma", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await demoRun(page, "Probe Tail A", "hands", 11);
  await expectPainted(page);
  await page.keyboard.press("u");
  await expect(page.getByText(/^\d+\.\d mil$/).first()).toBeVisible();
  await page.keyboard.press("/");
  const box = page.getByRole("combobox", { name: /A product, a run/ });
  await box.fill("spring fairs");
  await expect(page.getByRole("option", { name: /Kiln Watch, for the spring fairs/ })).toBeVisible();
  // what is found is seen: the run's board in small, in more than one colour
  await expectColours(page.getByRole("dialog").locator("canvas"));
  await expectAccessible(page);
  await box.fill("parts");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Parts", level: 1 })).toBeVisible();
  await expect(page.getByText("11 good boards")).toBeVisible();
  const rows = await page.getByRole("grid").getByRole("row").count();
  await cell(page, "References of C1").first().click();
  await page.keyboard.press("Shift+End");
  await page.keyboard.press("Control+c");
  await expectSaid(page, "11 cells copied");
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied.split("\t")[0]).toMatch(/^C1/);
  await page.evaluate(() =>
    navigator.clipboard.writeText("Value\tQty\tMPN\nspacer 5 mm\t4\tQQ-77\nleaflet\t1\tQQ-78"),
  );
  await page.keyboard.press("Control+v");
  await expectSaid(page, "2 lines pasted");
  await expect(page.getByRole("grid").getByRole("row")).toHaveCount(rows + 2);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("grid").getByRole("row")).toHaveCount(rows);

  await newShop(page, "Comma");
  await page.goto("/settings");
  await page.getByLabel("Numbers", { exact: true }).selectOption(",");
  await page.getByLabel("Dates").selectOption("ymd");
  await page.getByLabel("An own hour, EUR").fill("31,50");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expectSaid(page, "The shop's settings were saved");
  await page.reload();
  await expect(page.getByLabel("An own hour, EUR")).toHaveValue("31,50");
});

test("lists say when they are empty, loading, refused, and come back", async ({ page }) => {
  await startShop(page, "States");
  await expect(page.getByText("Nothing here yet. Drop the archive")).toBeVisible();
  let mode: "slow" | "broken" | "open" = "slow";
  let go: () => void = () => undefined;
  const gate = new Promise<void>((done) => {
    go = done;
  });
  await page.route("**/api/{bench,history*,people}", async (route) => {
    if (mode === "slow") await gate;
    if (mode === "broken")
      return route.fulfill({
        status: 503,
        contentType: "application/json",
        body: JSON.stringify({
          kind: "error",
          code: "DATABASE_AWAY",
          message: "The database does not answer at the moment; nothing was changed.",
          hint: "It is tried again.",
        }),
      });
    return route.continue();
  });
  await page.goto("/");
  await expect(page.getByRole("status", { name: "Loading" })).toBeVisible();
  mode = "broken";
  go();
  await expect(page.getByRole("alert")).toContainText("The database does not answer");
  await page.goto("/history");
  await expect(page.getByRole("alert")).toContainText("The database does not answer");
  mode = "open";
  await page.getByRole("button", { name: "try again" }).click();
  await expect(page.getByText("Nothing was changed yet.")).toBeVisible();
  await page.goto("/settings/people");
  await expect(page.getByRole("cell", { name: /\(you\)/ })).toBeVisible();
  await expectAccessible(page);
  await page.goto("/nowhere");
  await expect(page.getByText("There is nothing at this address")).toBeVisible();
});
