import {
  demoArchive,
  expect,
  expectAccessible,
  expectPainted,
  keptRun,
  newShop,
  test,
  unfold,
} from "./kit.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
const at = (x: number, y: number) => `X${nm(x)}Y${nm(y)}`;
const line = (x1: number, y1: number, x2: number, y2: number) => `${at(x1, y1)}D02*\nG01${at(x2, y2)}D01*\n`;
const flash = (x: number, y: number) => `${at(x, y)}D03*\n`;
const point = (net: string, ref: string, pin: string, x: number, y: number) =>
  `327${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)}      A01X+${String(x * 1000).padStart(6, "0")}Y+${String(y * 1000).padStart(6, "0")}X1200Y1200R000S0\n`;

/** Pads of five small parts in a row and one on the other side. */
const PARTS = [
  ["R1", 10, 10],
  ["R2", 20, 10],
  ["R3", 30, 10],
  ["R4", 40, 10],
  ["D1", 10, 24],
] as const;
const pins = PARTS.flatMap(([ref, x, y]) => [
  [ref, "1", x - 1, y],
  [ref, "2", x + 1, y],
]) as [string, string, number, number][];
const pad = ([ref, pin, x, y]: readonly [string, string, number, number]) =>
  `%TO.P,${ref},${pin}*%\n${flash(x, y)}`;
const places = pins.map(([, , x, y]) => flash(x, y));

/** A board of 50 × 34 mm with eight mistakes, each said where it is planted. */
const FILES: Readonly<Record<string, string>> = {
  // 1: R1.2 and R2.1 touch through a stray track; 2: the track of D1 to R4 stops short
  "bad.gtl": `${HEAD}%TA.AperFunction,SMDPad,CuDef*%\n%ADD10R,1.2X1.2*%\n%TD*%\n%ADD11C,0.3*%\nD10*\n${pins.map(pad).join("")}%TD*%\nD11*\n${line(11, 10, 19, 10)}${line(11, 24, 30, 24)}${line(39, 10, 39, 20)}M02*\n`,
  "bad.gbl": `${HEAD}%TA.AperFunction,SMDPad,CuDef*%\n%ADD10R,1.2X1.2*%\n%TD*%\nD10*\n${pad(["C1", "1", 29, 25])}${pad(["C1", "2", 31, 25])}%TD*%\nM02*\n`,
  // 3: the mask covers R3.2
  "bad.gts": `${HEAD}%ADD10R,1.3X1.3*%\nD10*\n${places.filter((_, k) => k !== 5).join("")}M02*\n`,
  "bad.gbs": `${HEAD}%ADD10R,1.3X1.3*%\nD10*\n${flash(29, 25)}${flash(31, 25)}M02*\n`,
  // 4: a paste opening where no pad is
  "bad.gtp": `${HEAD}%ADD10R,1.2X1.2*%\nD10*\n${places.join("")}${flash(45, 28)}M02*\n`,
  // 5: silkscreen over R4.1
  "bad.gto": `${HEAD}%ADD10C,0.2*%\nD10*\n${line(38, 10, 38, 13)}${line(38, 10, 39.2, 10)}M02*\n`,
  // 6: a corner of the outline is 0.12 mm short
  "bad.gko": `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 50, 0)}${line(50, 0, 50, 33.88)}${line(50, 34, 0, 34)}${line(0, 34, 0, 0)}M02*\n`,
  "bad.ipc": `P  UNITS CUST 1\n${point("IN", "R1", "2", 11, 10)}${point("OUT", "R2", "1", 19, 10)}${point("LED", "D1", "2", 11, 24)}${point("LED", "R4", "1", 39, 10)}999\n`,
  "bad parts.csv":
    "Designator;Quantity;Value;Footprint\nR1,R2,R3,R4;4;1k;0805\nD1;1;red;0805\nC1;1;100n;0805\n",
  // 7: C1's pads are below, it is placed above; 8: D1 is placed beside its pads
  "bad places.csv":
    "Ref,X,Y,Rot,Side\nR1,10,10,0,top\nR2,20,10,0,top\nR3,30,10,0,top\nR4,40,10,0,top\nD1,17,27,0,top\nC1,30,25,0,top\n",
};

const MISTAKES: readonly (readonly [what: RegExp, side: "top" | "bottom"])[] = [
  [/IN \(R1\.2\) and OUT \(R2\.1\) are one piece of copper/, "top"],
  [/LED falls into 2 pieces that nothing joins/, "top"],
  [/1 pad to be soldered on the top lies under the mask/, "top"],
  [/paste openings on the top have no copper under their middle/, "top"],
  [/Silkscreen is printed over 1 pad on the top/, "top"],
  [/Ends of the outline 0\.120 mm apart were joined/, "top"],
  [/C1 is placed on the top, its pads are on the bottom/, "bottom"],
  [/D1 is placed .* mm from the middle of its pads, outside all of them/, "top"],
];

test("a board with eight mistakes: each stands in the margin and on the picture, reached by one press", async ({
  page,
}) => {
  await newShop(page);
  await keptRun(page, FILES, "Eight mistakes");
  await expectPainted(page);
  const margin = page.getByRole("complementary", { name: "In the margin" });
  for (const [what, side] of MISTAKES) {
    const note = margin.getByRole("listitem").filter({ hasText: what });
    await expect(note).toHaveCount(1);
    // one press shows the place; the number beside the note is the number on the picture
    await note.getByRole("button", { name: "show it" }).click();
    const number = (await note.getByRole("img").getAttribute("aria-label"))!.split(" ")[0]!;
    const picture = page.getByRole("application", { name: new RegExp(`${side} side`) });
    await expect(picture).toBeVisible();
    await expect(picture.getByRole("listitem").filter({ hasText: `Mark ${number} at` })).toContainText(what);
  }
  await expectAccessible(page);

  // a press on a mark of the picture leads the other way, to its note
  const first = margin.getByRole("listitem").filter({ hasText: MISTAKES[0]![0] });
  await expect(first).not.toHaveAttribute("aria-current", "true");
  const one = (await first.getByRole("img").getAttribute("aria-label"))!.split(" ")[0]!;
  await page.getByRole("application").press("0");
  await page.getByRole("application").getByText(one, { exact: true }).click();
  await expect(first).toHaveAttribute("aria-current", "true");
  await expect(first).toBeInViewport();

  // what is folded says what matters of it, and opens
  const lists = page.getByRole("region", { name: "Parts list, places, pads and nets" });
  await expect(lists).toContainText("the netlist does not agree");
  await unfold(page, "Parts list, places, pads and nets");
  await expect(page.getByText("does not agree, see the margin")).toBeVisible();
  await unfold(page, "Measured, and what each house says");

  // the worst place of a measure, then the next one; the link holds it
  await page
    .getByRole("button", { name: /^smallest track 0.3 mm, show the worst place/ })
    .first()
    .click();
  await expect(page).toHaveURL(/measure=minTrack/);
  await page.getByRole("button", { name: /^smallest track 0.3 mm, show place 2 of 3/ }).click();
  await expect(page).toHaveURL(/place=2/);
  // the picture stays in view beside the table
  await expect(page.getByRole("application")).toBeInViewport({ ratio: 0.9 });
  await page.reload();
  await expect(page.getByText("smallest track: 0.3 mm, place 2 of 3")).toBeVisible();
  await page.getByRole("button", { name: "done", exact: true }).click();
  await expect(page).not.toHaveURL(/measure=/);
});

test("two points are measured with snapping, and the board goes out as a drawing", async ({ page }) => {
  await newShop(page);
  await keptRun(page, demoArchive("probe-tail"), "Measured tail");
  await expectPainted(page);
  await page.getByRole("button", { name: "measure", exact: true }).click();
  const picture = page.getByRole("application");
  await picture.focus();
  // the keyboard measures from the middle of the view, moved by arrows
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "press the second point" })).toBeVisible();
  for (let k = 0; k < 4; k++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "ΔX" })).toContainText(/[\d.]+ mm/);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("status").filter({ hasText: "ΔX" })).toHaveCount(0);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "drawing (SVG)" }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/-top\.svg$/);
});
