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
  stage,
  test,
} from "./kit.ts";
import { flash, HEAD, line } from "./made-up/lamp.ts";

/** A pad of a part on a net, and the tracks that join what is one net. */
const pad = (part: string, pin: string, net: string, x: number, y: number) =>
  `%TO.P,${part},${pin}*%\n%TO.N,${net}*%\nD10*\n${flash(x, y)}%TD*%\n`;
const track = (net: string, ...way: [number, number, number, number][]) =>
  `%TO.N,${net}*%\nD11*\n${way.map((w) => line(...w)).join("")}%TD*%\n`;
/** On the supply above, on ground below. */
const up = (part: string, pin: string, x: number) =>
  pad(part, pin, "V5", x, 20) + track("V5", [x, 20, x, 25]);
const down = (part: string, pin: string, x: number) =>
  pad(part, pin, "GND", x, 10) + track("GND", [x, 10, x, 5]);

/** A board of nobody's: a display's supply pins hang on two links, and two plugs could feed it. */
const READER: Readonly<Record<string, string>> = {
  "reader.gtl": [
    `${HEAD}%TF.FileFunction,Copper,L1,Top*%\n%ADD10C,1.6*%\n%ADD11C,0.5*%\n`,
    track("V5", [4, 25, 38, 25]),
    track("GND", [4, 5, 38, 5]),
    up("JP1", "1", 10) + pad("JP1", "2", "DA", 10, 15) + down("JP1", "3", 10),
    down("JP2", "1", 18) + pad("JP2", "2", "DB", 18, 15) + up("JP2", "3", 18),
    pad("J1", "1", "DA", 6, 15) + pad("J1", "2", "DB", 22, 15) + pad("J1", "3", "SIG", 26, 15),
    track("DA", [6, 15, 10, 15]) + track("DB", [18, 15, 22, 15]) + track("SIG", [26, 15, 30, 15]),
    up("U1", "1", 30) + down("U1", "2", 30) + pad("U1", "3", "SIG", 30, 15),
    up("J2", "1", 35) + down("J2", "2", 35),
    up("J3", "1", 14) + down("J3", "2", 14),
    "M02*\n",
  ].join(""),
  "reader.gko": `${HEAD}%TF.FileFunction,Profile,NP*%\n%ADD10C,0.1*%\nD10*\n${line(0, 0, 42, 0)}${line(42, 0, 42, 30)}${line(42, 30, 0, 30)}${line(0, 30, 0, 0)}M02*\n`,
  "reader parts.csv":
    "Designator,Quantity,Comment,Footprint,Part Number\nU1,1,driver,SOT-23,ZZ-DRV\nJ1,1,3 way,,ZZ-3W\nJ2,1,plug,,ZZ-PL\nJ3,1,plug,,ZZ-PL2\nJP1,1,3 way link,,ZZ-LK\nJP2,1,3 way link,,ZZ-LK2\n",
};

const face = (page: Page) => page.getByRole("region", { name: "What meets what", exact: true });
async function begin(page: Page, ref: string, other: string, pins: string): Promise<void> {
  await face(page)
    .getByRole("button", { name: `Describe ${ref}`, exact: true })
    .click();
  const form = page.getByRole("form", { name: `What is put onto ${ref}` });
  await form.getByLabel("What is put onto it").fill(other);
  await form.getByLabel(/^Its pins, pasted/).fill(pins);
  await form.getByRole("button", { name: /^Take/ }).click();
}
const hold = async (page: Page, ref: string, other: string) => {
  await page.getByRole("button", { name: "Hold them against each other" }).click();
  await expectSaid(page, `${ref} is held against ${other} from now on`);
};
async function set(page: Page, ref: string, position: string, isNew: boolean): Promise<void> {
  const open = isNew ? `Describe how ${ref} is set` : `Change how ${ref} is set`;
  await face(page).getByRole("button", { name: open }).click();
  const form = page.getByRole("form", { name: `How ${ref} is set` });
  if (isNew) {
    await form.getByLabel(`What ${ref} in 1–2 does`).fill("display of the first edition");
    await form.getByLabel(`What ${ref} in 2–3 does`).fill("display of the second edition");
  }
  await form.getByLabel("Goes out as").selectOption(position);
  await form.getByRole("button", { name: isNew ? "Keep it" : "Save" }).click();
  await expectSaid(page, `${ref} is set to ${position}`);
  // it closes once the server has it; what stands below moves up then
  await expect(form).toBeHidden();
}

test("a display with swapped supply is held against a board and found; its links are set, the card says how; a second source is refused", async ({
  page,
}) => {
  await newShop(page, "Reader Works");
  await keptRun(page, READER, "Reader");
  await page.getByRole("button", { name: "what meets what" }).click();
  await expect(face(page)).toContainText("3 connectors; what is put onto them is not known yet.");
  // a pin that may be anything is not taken, and said
  await begin(page, "J2", "wall supply", "1 V5 supply 5\n1 V5 supply 5 V\n2 GND ground");
  const j2 = page.getByRole("form", { name: "What is put onto J2" });
  await expect(j2).toContainText("Line 1: “5” may be anything: write volts as “5 V”; it is not taken.");
  await j2.getByLabel("What J2.1 is").selectOption("input");
  await j2.getByLabel("Volts that J2.1 takes").fill("5.5");
  await page.getByRole("button", { name: "Hold them against each other" }).click();
  await expect(j2.getByRole("alert")).toContainText("What J2.1 takes reads like 0 … 5.5");
  await j2.getByLabel("Volts that J2.1 takes").fill("4.5 … 5.5");
  await expectAccessible(page);
  await hold(page, "J2", "wall supply");
  await expect(
    face(page).getByRole("img", { name: /^Supplies: V5 of 5 V, fed by wall supply/ }),
  ).toBeVisible();

  // the display: what its supply pins meet hangs on links nobody described yet
  await begin(page, "J1", "display", "1 GND ground\n2 VCC in 4.5…5.5\n3 SIG in 0…5.5");
  const j1 = page.getByRole("form", { name: "What is put onto J1" });
  await j1.getByLabel("What J1.3 is").selectOption("output");
  await j1.getByLabel("Volts of J1.3").fill("5");
  await j1.getByLabel("Volts that J1.3 takes").fill("0 … 5.5");
  await hold(page, "J1", "display");
  const met = face(page).getByRole("listitem").filter({ hasText: "J1 with display" });
  await expect(met).toContainText("Not known what 2 pins are: 1, 2.");
  await set(page, "JP1", "1–2", true);
  await set(page, "JP2", "1–2", true);
  await expect(met.getByRole("row").filter({ hasText: "as meant" })).toContainText("damage");
  await expect(met).toContainText("our 1 on their 1: a supply on ground");
  await stage(page, "Release");
  await expect(
    page.getByText("J1 with display: our 1 on their 1: a supply on ground.").first(),
  ).toBeVisible();
  await stage(page, "Board");
  await page.getByRole("button", { name: "what meets what" }).click();
  await set(page, "JP1", "2–3", false);
  await set(page, "JP2", "2–3", false);
  await expect(met.getByRole("row").filter({ hasText: "as meant" })).toContainText("fine");
  const card = face(page).getByRole("region", { name: "Setting card" });
  await expect(card).toContainText("JP1: 2–3, display of the second edition");

  // slid by keys: theirs one place aside, turned, and back
  const slide = met.getByRole("application");
  await slide.focus();
  await page.keyboard.press("ArrowRight");
  await expect(slide).toHaveAccessibleName(
    /1 place to the right: damage, our 2 on their 1: a supply on ground/,
  );
  await page.keyboard.press("Home");
  await page.keyboard.press("t");
  await expect(slide).toHaveAccessibleName(/turned by half a turn/);
  await page.keyboard.press("Home");
  await expect(slide).toHaveAccessibleName(/as meant: fine/);
  await expectAccessible(page);

  // on paper there is the card alone
  await page.evaluate(() => {
    document.querySelector<HTMLElement>('[aria-label="Setting card"]')!.dataset.printing = "";
  });
  await page.emulateMedia({ media: "print" });
  await expect(card).toBeVisible();
  await expect(page.getByText("J1 with display", { exact: true })).toBeHidden();
  await page.emulateMedia({ media: "screen" });

  // a second plug on the same rail, described by what was described before, blocks
  await page.reload();
  await face(page).getByRole("button", { name: "Describe J3", exact: true }).click();
  const j3 = page.getByRole("form", { name: "What is put onto J3" });
  await j3.getByLabel("Described before").selectOption({ label: "wall supply, Reader" });
  await j3.getByLabel("What J3.1 is").selectOption("input");
  await j3.getByLabel("Volts that J3.1 takes").fill("4.5 … 5.5");
  await hold(page, "J3", "wall supply");
  await expect(face(page)).toContainText("both feed V5: between them is nothing.");
  await stage(page, "Release");
  await expect(page.getByText(/both feed V5: between them is nothing/).first()).toBeVisible();
});

test("currents are followed through the copper: what each net loses and warms, what carries them, a bead too weak is told", async ({
  page,
}) => {
  await newShop(page, "Current Works");
  const parts = [{ mpn: "TB-M4864-Q48" }, { mpn: "TB-LV33-223" }, { mpn: "PW-B0805-600" }];
  const { ids } = await ask<{ ids: string[] }>(page, "POST", "/api/parts", { parts });
  await ask(page, "PATCH", `/api/parts/${ids[0]}`, { mostMa: 400 });
  await ask(page, "PATCH", `/api/parts/${ids[1]}`, { mostMa: 1 });
  await keptRun(page, demoArchive("kiln-watch-b"), "Watch");
  await page.getByRole("button", { name: "what meets what" }).click();
  const flow = page.getByRole("region", { name: "What flows in its copper" });
  const nets = flow.getByRole("table", { name: "Currents by net" });
  const row = (net: string) =>
    nets.getByRole("row").filter({ hasText: new RegExp(`^\\W*${net} (from|back)`) });
  // at least: other chips draw too, and are named to be typed
  await expect(row("V5")).toContainText(/from L1.*at least 4\d\d mA/);
  await expect(row("GND")).toContainText("back to J1");
  await row("V33")
    .getByRole("button", { name: /Why\?$/ })
    .click();
  await expect(page.getByRole("dialog")).toContainText("U1");
  await page.keyboard.press("Escape");
  await row("GND").getByRole("button", { name: "GND", exact: true }).click();
  await expect(flow.getByRole("table", { name: "Warmest copper of GND" })).toContainText(/track of|hole of/);
  await expect(flow.locator("image")).toHaveCount(1);
  await expectAccessibleByNight(page);
  // what it goes through: a bead for a tenth of it is typed where it stands, and is told in the margin
  const through = flow.getByRole("table", { name: "What it goes through" });
  await through.getByLabel("L1 is made for, mA").fill("50");
  await page.keyboard.press("Enter");
  await expect(through.getByRole("row").filter({ hasText: /^L1/ })).toContainText(/at least 8\d\d %/);
  await expect(
    page.getByText(/L1 carries at least 4\d\d mA into V5 and is made for 50 mA/).first(),
  ).toBeVisible();
});
