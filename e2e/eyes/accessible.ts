import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, type Page } from "@playwright/test";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
/** As much of the package as is called in the page. */
interface Axe {
  run(
    context: object,
    options: object,
  ): Promise<{ violations: { id: string; nodes: { target: string[]; failureSummary?: string }[] }[] }>;
}

/** Rules on colours; they take most of the time, and ask the same of every text that is written alike. */
const COLOURS = ["color-contrast", "link-in-text-block"];
/** So many of the texts that are written alike on grounds alike are held against the rules on colours. */
const OF_A_KIND = 3;

/**
 * Texts of what is shown, some of each kind: alike are those of one colour, size and weight in front of the same grounds,
 * all the way up. What lies over others by its position, or is drawn, may stand before anything: each of it is looked at.
 */
function textsOfEachKind(most: number): Element[] {
  const grounds = new Map<Element, string | undefined>();
  const groundsOf = (e: Element | null): string | undefined => {
    if (!e) return "";
    if (!grounds.has(e)) {
      const s = getComputedStyle(e);
      const above = groundsOf(e.parentElement);
      const isApart =
        e instanceof SVGElement ||
        ["absolute", "fixed", "sticky"].includes(s.position) ||
        s.transform !== "none" ||
        s.float !== "none" ||
        [s.marginTop, s.marginLeft].some((m) => m.startsWith("-"));
      const own = `${s.backgroundColor} ${s.backgroundImage} ${s.opacity} ${s.filter} ${s.mixBlendMode}`;
      grounds.set(e, above === undefined || isApart ? undefined : `${above}/${own}`);
    }
    return grounds.get(e);
  };
  const kinds = new Map<string, Element[]>();
  const single: Element[] = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let t = walk.nextNode(); t; t = walk.nextNode()) {
    const e = t.parentElement;
    if (!e || !t.textContent?.trim() || !e.checkVisibility() || e.getClientRects().length === 0) continue;
    const ground = groundsOf(e);
    if (ground === undefined) single.push(e);
    else {
      const s = getComputedStyle(e);
      const kind = `${s.color} ${s.fontSize} ${s.fontWeight} ${s.fontStyle} ${s.textShadow} ${e.tagName === "A"} ${e.closest(":disabled, [aria-disabled=true]") !== null} ${e.closest("[aria-hidden=true]") !== null} ${ground}`;
      const known = kinds.get(kind) ?? [];
      if (known.length < most) known.push(e);
      // of every kind the first ones and the last
      else known[most - 1] = e;
      kinds.set(kind, known);
    }
  }
  for (const e of document.querySelectorAll("input, textarea, select")) single.push(e);
  return [...new Set([...single, ...[...kinds.values()].flat()])];
}

/** What the rules find, each with its places; the rules are brought into a page once, and all of it is in one frame. */
async function findings(page: Page, tags: readonly string[]): Promise<string[]> {
  if (!(await page.evaluate(() => "axe" in globalThis))) await page.evaluate(AXE);
  const texts = await page.evaluateHandle(textsOfEachKind, OF_A_KIND);
  return page.evaluate(
    async ({ tags, colours, all }) => {
      const { axe } = globalThis as unknown as { axe: Axe };
      const texts = all.filter((e) => e.isConnected);
      const how = { resultTypes: ["violations"], elementRef: false };
      const found = [];
      // these first, while the texts stand as they were picked
      if (texts.length > 0)
        found.push(await axe.run({ include: texts }, { runOnly: { type: "rule", values: colours }, ...how }));
      if (tags.length > 0) {
        const rules = Object.fromEntries(colours.map((id) => [id, { enabled: false }]));
        found.push(await axe.run(document, { runOnly: { type: "tag", values: tags }, rules, ...how }));
      }
      return found
        .flatMap((f) => f.violations)
        .map(
          (v) =>
            `${v.id}: ${v.nodes.map((n) => `${n.target} ${n.failureSummary?.split("\n")[1] ?? ""}`).join(" | ")}`,
        );
    },
    { tags: [...tags], colours: COLOURS, all: texts },
  );
}

const TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];

/** No finding of the accessibility rules on what is shown now. */
export async function expectAccessible(page: Page): Promise<void> {
  expect(await findings(page, TAGS)).toEqual([]);
}

/** The same, and no finding of the rules on colours in the dark: nothing else of a view hangs on the theme. */
export async function expectAccessibleByNight(page: Page): Promise<void> {
  await expectAccessible(page);
  for (const theme of ["dark", "light"] as const) {
    await page.emulateMedia({ colorScheme: theme });
    await expect(page.locator(`html[data-theme="${theme}"]`)).toBeAttached();
    if (theme === "dark") expect(await findings(page, [])).toEqual([]);
  }
}
