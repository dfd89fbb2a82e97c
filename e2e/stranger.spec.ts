import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { cell, expect, expectAccessible, expectPainted, newShop, stage, test, walkIntoShop } from "./kit.ts";
import { LAMP as FILES, flash, HEAD, line, pads, payload } from "./made-up/lamp.ts";

test("a stranger's own files, prices and house become a package that reads back as the same board", async ({
  page,
}) => {
  await walkIntoShop(page, "Moss Lane Instruments");
  await expect(page.getByText("Nothing here yet.")).toBeVisible();
  await page.getByLabel("Files of the board").setInputFiles(payload(FILES));
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
  await expectPainted(page);
  await expect(page.getByRole("row", { name: /lamp.gko/ })).toContainText("its name, lamp.gko");
  await page.getByLabel("Product", { exact: true }).fill("Lamp");
  await page.getByLabel("Good boards wanted").fill("12");
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(page.getByRole("button", { name: /smallest track 0.35 mm, show the place/ })).toBeVisible();
  await expect(page.getByRole("button", { name: /smallest ring 0.2 mm, show the place/ })).toBeVisible();

  // nobody lists these parts; each line takes a typed or pasted offer
  await stage(page, "Source");
  await page.getByRole("button", { name: "Ask the suppliers" }).click();
  await expect(page.getByText(/“not listed”/).first()).toBeVisible();
  for (const [part, steps] of [
    ["R1", "1 0.04\n100 0.011"],
    ["D1", "1: 0,12 EUR"],
    ["M3 screw", "1\t0.02"],
  ] as const) {
    await page
      .getByRole("button", { name: new RegExp(`^${part}`), expanded: false })
      .first()
      .click();
    await expect(page.getByText("not listed").first()).toBeVisible();
    await page.getByRole("button", { name: "type or paste an offer" }).click();
    const dialog = page.getByRole("dialog");
    if (part === "R1") {
      await dialog.getByLabel("Supplier").selectOption("new");
      await dialog.getByLabel("Its name").fill("Village Electrics");
      await dialog.getByLabel("Shipping", { exact: true }).fill("2,50");
    } else await dialog.getByLabel("Supplier").selectOption({ label: "Village Electrics" });
    await dialog.getByLabel("Currency").selectOption("EUR");
    await dialog.getByRole("textbox", { name: /Price steps/ }).fill("nonsense");
    await dialog.getByRole("button", { name: "Add the offer" }).click();
    await expect(dialog.getByRole("alert")).toContainText("needs a quantity and a price");
    await dialog.getByRole("textbox", { name: /Price steps/ }).fill(steps);
    await dialog.getByRole("button", { name: "Add the offer" }).click();
    await expect(dialog).toHaveCount(0);
    await page
      .getByRole("button", { name: new RegExp(`^${part}`), expanded: true })
      .first()
      .click();
  }
  await expect(page.getByRole("row", { name: /Village/ }).first()).toContainText("all");

  // a house of one's own: a copy with other figures, then its quotation
  await stage(page, "Fab");
  await page.getByRole("button", { name: "begin a house that is not listed" }).click();
  const begun = page.getByRole("dialog");
  await begun.getByLabel("Name of the house").fill("Shed Boards");
  await begun.getByLabel("Boards", { exact: true }).fill("100");
  await begun.getByLabel("cost in all", { exact: true }).fill("50,00");
  await begun.getByLabel("Another number").fill("200");
  await begun.getByLabel("costs in all").fill("49,00");
  await begun.getByLabel("Freight").fill("7");
  await begun.getByLabel("Days at the house").fill("6");
  await begun.getByLabel("Days on the way").fill("2");
  await begun.getByRole("button", { name: "Keep the house and choose it" }).click();
  await expect(page.getByText("200 boards for 49.00 are less than 100 for 50.00.").first()).toBeVisible();
  await begun.getByLabel("costs in all").fill("80,00");
  await begun.getByRole("button", { name: "Keep the house and choose it" }).click();
  await expect(begun).toHaveCount(0);
  const shed = page.getByRole("row", { name: /Shed Boards/ });
  await expect(shed).toContainText("does not say: smallest track");
  await expect(shed).toContainText(/a guess for \d+ pieces/);
  await expect(shed).toContainText("8 days");
  await page.getByRole("button", { name: "copy it and edit the copy" }).click();
  const house = page.getByRole("dialog");
  await house.getByLabel("Name of the house").fill("Harbour Boards");
  await expect(house.getByLabel("smallest hole")).toHaveValue("");
  await house.getByLabel("smallest hole").fill("0,3");
  await house.getByRole("button", { name: "What it charges", exact: true }).click();
  await house.getByLabel("set-up, two layers").fill("20");
  await house.getByRole("button", { name: "Keep the copy and choose it" }).click();
  await expect(page.getByRole("row", { name: /Harbour Boards/ })).toContainText("chosen");
  await expect(page.getByRole("row", { name: /Harbour Boards/ })).toContainText("0.4 of 0.3");
  await page.getByRole("button", { name: "type its quotation" }).click();
  const quote = page.getByRole("dialog");
  await quote.getByLabel("Sum quoted").fill("61,20");
  await quote.getByRole("button", { name: "Use it for this run" }).click();
  await expect(page.getByText("overrides the estimate")).toBeVisible();
  await expect(page.getByRole("row", { name: /Harbour Boards/ })).toContainText("61.20");

  await stage(page, "Assemble");
  await page.getByRole("button", { name: /^Who solders/ }).click();
  await page
    .getByRole("list", { name: "Who solders: alternatives" })
    .getByRole("button", { name: /own iron/ })
    .click();
  await expect(page.getByRole("row", { name: /solder by iron/ })).toBeVisible();

  await stage(page, "Release");
  await page.getByRole("button", { name: "Release and pack" }).click();
  await expect(page.getByRole("heading", { name: "Order", level: 1 })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download the package" }).click(),
  ]);
  const zip = readFileSync(await download.path());

  // dropped back, the package is the same board
  await page.goto("/new");
  await page
    .getByLabel("Files of the board")
    .setInputFiles([{ name: "package.zip", mimeType: "application/zip", buffer: zip }]);
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
  await expectPainted(page);
  const figures = page
    .getByRole("region", { name: "As delivered" })
    .or(page.locator("section", { has: page.getByRole("heading", { name: "As delivered" }) }));
  await expect(figures.first()).toContainText("0.35");
  await expect(page.locator("svg text", { hasText: "26.00" })).toBeVisible();
  await expect(page.locator("svg text", { hasText: "18.00" })).toBeVisible();
});

test("bad drops are refused in words, the good ones after them work, a wrong role is corrected", async ({
  page,
}) => {
  await newShop(page, "Careful shop");
  await page.goto("/new");
  const input = page.getByLabel("Files of the board");
  await input.setInputFiles([
    { name: "broken.zip", mimeType: "application/zip", buffer: Buffer.from("PK\u0003\u0004 cut") },
  ]);
  await expect(page.getByRole("alert")).toContainText("cut off");
  await input.setInputFiles([
    { name: "photo.gtl", mimeType: "image/png", buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2]) },
  ]);
  await expect(page.getByRole("alert")).toContainText("No file in the drop has a role");
  await expect(page.getByRole("alert")).toContainText("photo.gtl");
  const { "lamp.gtl": copper, "lamp parts.csv": _, ...rest } = FILES;
  const utf16 = Buffer.concat([
    Buffer.from([0xff, 0xfe]),
    Buffer.from("Ref\tQty\tValue\nR1\t1\t<img src=x onerror=alert(1)>\nD1\t-2\tred\n", "utf16le"),
  ]);
  await input.setInputFiles([
    ...payload({ ...rest, "strange.dat": copper! }),
    { name: "parts.txt", mimeType: "text/plain", buffer: utf16 },
  ]);
  await expect(
    page.getByText("The quantity “-2” is negative; the references were counted instead."),
  ).toBeVisible();
  await expect(page.getByRole("alert")).toHaveCount(0);
  await page.getByLabel("Role of strange.dat").selectOption("copper top");
  await expect(page.getByRole("row", { name: /strange.dat/ })).toContainText("you said so");
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await stage(page, "Parts");
  await expect(cell(page, "Value of R1", "<img src=x onerror=alert(1)>")).toBeVisible();
});

test("of a board one layer of which is at another scale that layer is told, with how it would lie right", async ({
  page,
}) => {
  await newShop(page, "Two scales");
  await page.goto("/new");
  const mask = `${HEAD}%ADD10R,33.02X38.1*%\nD10*\n${pads.map(([x, y]) => flash(x * 25.4, y * 25.4)).join("")}M02*\n`;
  await page.getByLabel("Files of the board").setInputFiles(payload({ ...FILES, "lamp.gts": mask }));
  await expect(
    page.getByText(
      "lamp.gts (mask top) is drawn 25.4 times too large: as it stands 0 % of its openings lie where the other files have theirs, taken at 1/25.4 of that 100 %.",
    ),
  ).toBeVisible();
  await expect(page.getByText(/is drawn .* too (large|small)/)).toHaveCount(1);
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(page.getByText(/lamp\.gts \(mask top\) is drawn 25\.4 times too large/).first()).toBeVisible();
});

test("marks in a dropped list are asked about, block until they are answered, and are known with the next drop", async ({
  page,
}) => {
  await newShop(page, "Marked");
  const list =
    "Tunnus;Kpl;Comment;Kotelo;Part Number;Versio 1\nR1;1;330R;1206;ZZ-330;x\nD1;1;red;1206;ZZ-RED;\n";
  const drop = async () => {
    await page.goto("/new");
    await page.getByLabel("Files of the board").setInputFiles(payload({ ...FILES, "lamp parts.csv": list }));
  };
  await drop();
  const own = page.getByRole("region", { name: "The parts list, as it is read" });
  await expect(own).toContainText("6 columns: 4 read, 1 passed over, 1 asked about.");
  const question = page.getByText(/“Versio 1” marks some of the lines, and nothing says what for/);
  await expect(question.first()).toBeVisible();
  await expectAccessible(page);
  await own
    .getByRole("group", { name: "What Versio 1 says" })
    .getByRole("button", { name: "“x” is left off" })
    .press("Enter");
  await expect(own).toContainText("6 columns: 5 read, 1 passed over.");
  await expect(own.getByLabel("What Versio 1 holds")).toHaveValue("off x");
  await expect(question).toHaveCount(0);
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await drop();
  await expect(own).toContainText("6 columns: 5 read, 1 passed over.");
  await expect(question).toHaveCount(0);
});

test("where the outline is open the picture and the spine tell no size, and say so; closed, they tell it", async ({
  page,
}) => {
  await newShop(page, "Open ends");
  await page.goto("/new");
  const open = { ...FILES, "lamp.gko": FILES["lamp.gko"]!.replace(line(26, 18, 0, 18), "") };
  const input = page.getByLabel("Files of the board");
  const said = page.getByText("without a closed outline: the box of the copper, not the board's size");
  const width = page.locator("svg text", { hasText: /^26\.\d\d$/ });
  await input.setInputFiles(payload(FILES));
  await expect(width).toHaveCount(1);
  await expect(said).toHaveCount(0);
  await input.setInputFiles(payload(open));
  await expect(page.getByText(/The outline does not close: .* the next end is 26\.00 mm away/)).toBeVisible();
  await expect(said).toBeVisible();
  await expect(width).toHaveCount(0);
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(said).toBeVisible();
  await expect(width).toHaveCount(0);
  await expect(page.getByText("outline open", { exact: true })).toBeVisible();
  await expect(page.getByText(/26(\.\d+)? × 18/)).toHaveCount(0);
});

test("a hole that cannot be read is an error, and the figures say that they are of what could be", async ({
  page,
}) => {
  await newShop(page, "Lost hole");
  await page.goto("/new");
  const lost = page.getByText(
    "Not everything in lamp-pth.drl could be read; these figures are of what could.",
  );
  const holes = page.getByRole("term").filter({ hasText: /^holes/ });
  const input = page.getByLabel("Files of the board");
  await input.setInputFiles(payload(FILES));
  await expect(holes).toHaveText("holes");
  await expect(lost).toHaveCount(0);
  await input.setInputFiles(
    payload({ ...FILES, "lamp-pth.drl": FILES["lamp-pth.drl"]!.replace("M30", "X18.0.1Y9.0\nM30") }),
  );
  await expect(holes).toHaveText("holes, at least");
  await expect(lost).toBeVisible();
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(holes).toHaveText("holes, at least");
  await expect(lost).toBeVisible();
  await expectAccessible(page);
});

test("a folder dropped as it lies on the disk is read with the folders in it", async ({ page }, info) => {
  const folder = info.outputPath("lamp for the house");
  mkdirSync(join(folder, "drills"), { recursive: true });
  const nothing = info.outputPath("empty");
  mkdirSync(nothing);
  for (const [name, text] of Object.entries(FILES))
    writeFileSync(join(folder, name.endsWith(".drl") ? "drills" : ".", name), text);
  await newShop(page, "Folder shop");
  await page.goto("/new");
  let box = (await page.getByText("Drop the files here").boundingBox())!;
  const browser = await page.context().newCDPSession(page);
  const drop = async (path: string) => {
    for (const type of ["dragEnter", "dragOver", "drop"] as const)
      await browser.send("Input.dispatchDragEvent", {
        type,
        x: box.x + 20,
        y: box.y + 5,
        data: { items: [], files: [path], dragOperationsMask: 1 },
      });
  };
  await drop(folder);
  await expect(page.getByRole("heading", { name: "What was found" })).toBeVisible();
  await expect(page.getByRole("row", { name: /lamp-pth.drl/ })).toBeVisible();
  box = (await page.getByText("Drop other files here").boundingBox())!;
  await drop(nothing);
  await expect(page.getByRole("alert")).toContainText("no file to read in what was dropped");
  await expect(page.getByLabel("Product", { exact: true })).toHaveValue("lamp");
  await page.getByRole("button", { name: "Keep it and start a run" }).click();
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expect(page.getByRole("button", { name: /smallest track 0.35 mm, show the place/ })).toBeVisible();
});
