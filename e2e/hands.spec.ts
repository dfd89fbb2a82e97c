import { readFileSync } from "node:fs";
import type { Locator, Page } from "@playwright/test";
import { unzipSync } from "fflate";
import { enterDemo, expect, expectAccessible, expectPainted, expectSaid, test } from "./kit.ts";

/** Tab until the thing has the focus, which must be seen. */
async function tabTo(page: Page, what: Locator, most = 120): Promise<void> {
  const target = what.first();
  await expect(target).toBeVisible();
  for (let i = 0; i < most; i++) {
    if (await target.evaluate((el) => el === document.activeElement)) {
      const isSeen = await target.evaluate((el) => {
        const s = getComputedStyle(el);
        return (s.outlineStyle !== "none" && Number.parseFloat(s.outlineWidth) > 0) || s.boxShadow !== "none";
      });
      expect(isSeen).toBe(true);
      return;
    }
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab does not reach ${what}`);
}

test("the whole first run by keyboard alone: door, files, parts, prices, choices, release, package", async ({
  page,
}) => {
  const { keyboard } = page;
  await page.goto("/");
  await tabTo(page, page.getByLabel("Name of the shop"));
  await keyboard.type("Hands only");
  await tabTo(page, page.getByLabel("Name to sign in with"));
  await keyboard.type(`hands-${Date.now()}`);
  await keyboard.press("Tab");
  await keyboard.type("a long password");
  await keyboard.press("Enter");
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    (async () => {
      await tabTo(page, page.getByRole("button", { name: /choose/i }));
      await keyboard.press("Enter");
    })(),
  ]);
  await chooser.setFiles("demo/boards/kiln-watch-b.zip");
  await tabTo(page, page.getByLabel("Good boards wanted"));
  await keyboard.press("Control+a");
  await keyboard.type("25");
  await tabTo(page, page.getByRole("button", { name: "Keep it and start a run" }));
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Board", level: 1 })).toBeVisible();
  await expectPainted(page);

  // the picture, by keys
  await tabTo(page, page.getByRole("application", { name: /Board, top side/ }));
  await keyboard.press("+");
  await keyboard.press("ArrowRight");
  await keyboard.press("0");
  await keyboard.press("f");
  await expectPainted(page, "bottom");
  // larger, whole again and turned over within one movement of the hand: what was left behind does not come back
  for (const side of ["top", "bottom", "top", "bottom"]) {
    await Promise.all(["+", "0", "f"].map((key) => keyboard.press(key)));
    // longer than the picture waits for the hand to rest
    await page.waitForTimeout(150);
    await expectPainted(page, side);
  }

  // parts: the grid, edited in place, taken back
  await keyboard.press("2");
  await tabTo(page, page.getByRole("grid"));
  await keyboard.press("ArrowDown");
  for (let i = 0; i < 3; i++) await keyboard.press("ArrowRight");
  const name = await page.evaluate(
    () =>
      document
        .getElementById(document.activeElement?.getAttribute("aria-activedescendant") ?? "")
        ?.getAttribute("aria-label") ?? "",
  );
  expect(name).toMatch(/^Value of /);
  await keyboard.press("Enter");
  await keyboard.type(" tried");
  await keyboard.press("Enter");
  await expect(page.getByRole("gridcell", { name: /tried$/ })).toBeVisible();
  await keyboard.press("Control+z");
  await expect(page.getByRole("gridcell", { name: /tried$/ })).toHaveCount(0);
  await keyboard.press("Escape");

  // source
  await keyboard.press("3");
  await tabTo(page, page.getByRole("button", { name: "Ask the suppliers" }));
  await keyboard.press("Enter");
  await expectSaid(page, /^\d+ offers/);

  // fab: a choice with its effect, the focus stays
  await keyboard.press("4");
  await tabTo(page, page.getByRole("button", { name: /^Finish/ }));
  await keyboard.press("Enter");
  await tabTo(
    page,
    page.getByRole("list", { name: "Finish: alternatives" }).getByRole("button", { name: /immersion gold/ }),
    12,
  );
  await keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Finish immersion gold/ })).toBeFocused();

  // what blocks is accepted with a reason, by keys; then release and the package
  await keyboard.press("/");
  await expect(page.getByRole("combobox")).toBeFocused();
  await keyboard.type("release");
  await expect(page.getByRole("option", { name: /^stage Release/ })).toHaveAttribute("aria-selected", "true");
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Release", level: 1 })).toBeVisible();
  await tabTo(page, page.getByRole("button", { name: "Release and pack" }));
  await keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Order", level: 1 })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    (async () => {
      await tabTo(page, page.getByRole("link", { name: "Download the package" }));
      await keyboard.press("Enter");
    })(),
  ]);
  expect(Object.keys(unzipSync(new Uint8Array(readFileSync(await download.path()))))).toContain(
    "manifest.json",
  );
});

/** A touch at some points of the picture, moved and let go. */
async function touch(
  page: Page,
  target: Locator,
  from: readonly (readonly [number, number])[],
  to: readonly (readonly [number, number])[],
): Promise<void> {
  const box = (await target.boundingBox())!;
  const client = await page.context().newCDPSession(page);
  const points = (list: readonly (readonly [number, number])[]) =>
    list.map(([x, y], id) => ({ x: box.x + box.width * x, y: box.y + box.height * y, id }));
  await client.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: points(from) });
  for (let i = 1; i <= 6; i++)
    await client.send("Input.dispatchTouchEvent", {
      type: "touchMove",
      touchPoints: points(
        from.map(([x, y], k) => [x + ((to[k]![0] - x) * i) / 6, y + ((to[k]![1] - y) * i) / 6] as const),
      ),
    });
  await client.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
}

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test("bench, board picture with touch, lists, history and a remark; nothing runs off the side", async ({
    page,
  }) => {
    await enterDemo(page);
    const fits = async () =>
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
      ).toBeLessThanOrEqual(1);
    await fits();
    await page
      .getByRole("link", { name: /for the autumn market/ })
      .last()
      .tap();
    await expectPainted(page);
    await fits();
    const picture = page.getByRole("application", { name: /Board, top side/ });
    const shown = () =>
      picture.evaluate((el) =>
        [...el.querySelectorAll("svg text")]
          .slice(0, 2)
          .map((t) => t.getAttribute("x"))
          .join(" "),
      );
    const first = await shown();
    await touch(page, picture, [[0.5, 0.5]], [[0.7, 0.6]]);
    await expect.poll(shown).not.toBe(first);
    const panned = await shown();
    await touch(
      page,
      picture,
      [
        [0.45, 0.5],
        [0.55, 0.5],
      ],
      [
        [0.2, 0.5],
        [0.8, 0.5],
      ],
    );
    await expect.poll(shown).not.toBe(panned);
    const wide = await picture.evaluate((el) => {
      const d = el.querySelector("svg path")!.getAttribute("d")!;
      const [a, b] = [...d.matchAll(/M(-?[\d.]+) /g)].map((m) => Number(m[1]));
      return Math.abs(b! - a!);
    });
    expect(wide).toBeGreaterThan(350);
    await expectAccessible(page);
    for (const [stage, heading] of [
      ["Parts", "Parts"],
      ["Source", "Source"],
      ["Release", "Release"],
    ] as const) {
      await page
        .getByRole("navigation", { name: "Stages of the run" })
        .getByRole("link", { name: new RegExp(stage) })
        .tap();
      await expect(page.getByRole("heading", { name: heading, level: 1 })).toBeVisible();
      await fits();
    }
    await page.getByRole("button", { name: /^notes \(/ }).tap();
    await page.getByRole("button", { name: "add a remark" }).tap();
    await page.getByRole("textbox", { name: "Remark" }).fill("counted: 124");
    await page.getByRole("button", { name: "keep it" }).tap();
    await expect(page.getByText("counted: 124").first()).toBeVisible();
    await page.getByRole("button", { name: "Close the margin" }).tap();
    await page.goto(`${page.url().split("/release")[0]}/history`);
    await expect(page.getByText("remark: counted: 124").first()).toBeVisible();
    await fits();
    await page.goto("/settings/people");
    await expect(page.getByRole("heading", { name: "Members" })).toBeVisible();
    await fits();
    await expectAccessible(page);
  });
});
