import type { Page } from "@playwright/test";
import { ask, demoRunNamed, expect, openStage, releasedDemoRun, test } from "./kit.ts";

/** A sum as it is opened: what it says it is, its terms and what they come to. */
interface Shown {
  readonly title: string;
  readonly formula: string;
  readonly terms: readonly { readonly label: string; readonly value: string }[];
  readonly result: string;
}

const STAGES = ["source", "fab", "panel", "assemble", "cost", "build"] as const;
/** Sums of one stage that are opened: of a long list the first ones. */
const MOST = 40;

/** Every sum of a stage, opened one by one: what is folded is unfolded first. */
async function sumsOf(page: Page): Promise<Shown[]> {
  await page.evaluate(() => {
    for (const d of document.querySelectorAll("main details")) (d as HTMLDetailsElement).open = true;
  });
  for (let i = 0; i < 12; i++) {
    const folded = page.locator("main button[aria-expanded=false]:not([aria-haspopup]):visible").nth(i);
    if ((await folded.count()) === 0) break;
    await folded.click();
  }
  const whys = page.locator("button[aria-haspopup=dialog][aria-label$='Why?']:visible");
  const out: Shown[] = [];
  for (let i = 0; i < Math.min(MOST, await whys.count()); i++) {
    await whys.nth(i).click();
    const sum = page.getByRole("dialog", { name: /^Sum of/ });
    await expect(sum).toBeVisible();
    out.push(
      await sum.evaluate((el) => {
        const rows = [...el.querySelectorAll("tr")].map((r) =>
          [...r.querySelectorAll("td,th")].map((c) => (c.firstChild?.textContent ?? "").trim()),
        );
        const ps = [...el.querySelectorAll(":scope > p")].map((p) => p.textContent ?? "");
        return {
          title: ps[0] ?? "",
          formula: ps[1] ?? "",
          terms: rows.slice(0, -1).map(([label = "", value = ""]) => ({ label, value })),
          result: rows.at(-1)?.[1] ?? "",
        };
      }),
    );
    // pressed before the page listens, it goes by
    await expect(async () => {
      await page.keyboard.press("Escape");
      await expect(sum).toHaveCount(0, { timeout: 500 });
    }).toPass();
  }
  return out;
}

/** The first number of a text, as the page writes it. */
const numberIn = (text: string): number => {
  const m = /[−-]?\d[\d,]*(?:\.\d+)?/.exec(text);
  return m ? Number(m[0].replace("−", "-").replaceAll(",", "")) : Number.NaN;
};
/** Half of the last digit a text shows. */
const half = (text: string): number => {
  const m = /\.(\d+)/.exec(text);
  return 0.5 * 10 ** -(m?.[1]?.length ?? 0);
};

/** Chance that of so many started so many come out good. */
function enough(start: number, wanted: number, share: number): number {
  let [chance, term] = [0, (1 - share) ** start];
  for (let k = 0; k <= start; k++) {
    if (k >= wanted) chance += term;
    term *= ((start - k) / (k + 1)) * (share / (1 - share));
  }
  return chance;
}

/** What a sum does not come to, computed from its own terms by what it says it is; "" where it does. */
function wrongIn({ title, formula, terms, result }: Shown): string {
  const values = terms.map((t) => numberIn(t.value));
  const is = numberIn(result);
  const near = (a: number, by: number) => (Math.abs(a - is) <= by + 1e-9 ? "" : `${a} is not ${result}`);
  const margin = terms.reduce((n, t) => n + half(t.value), half(result));
  if (/^[^+]*÷ expected/.test(formula) && terms.length === 2) {
    // as exact as both are shown
    const by =
      half(result) +
      Math.abs(is) * (half(terms[0]!.value) / Math.abs(values[0]!) + half(terms[1]!.value) / values[1]!);
    return near(values[0]! / values[1]!, by);
  }
  // a share of a sum, in per cent: as exact as both are shown
  const share = terms.findIndex((t) => t.value.endsWith("%"));
  if (/^[^+÷]* × [^+÷]*$/.test(formula) && terms.length === 2 && share >= 0) {
    const of = values[1 - share]!;
    const by =
      half(result) + (of * half(terms[share]!.value) + values[share]! * half(terms[1 - share]!.value)) / 100;
    return near((of * values[share]!) / 100, by);
  }
  if (terms.length === 2 && terms[0]!.label.startsWith("measured"))
    return near(Math.sign(is) * Math.abs(values[0]! - values[1]!), margin);
  if (title.endsWith("to start")) {
    const of = (label: RegExp) => terms.find((t) => label.test(t.label))!;
    const wanted = numberIn(of(/wanted/).value);
    const chance = numberIn(of(/chance/).value) / 100;
    const share = numberIn(of(/^final yield/).value) / 100;
    if (terms.some((t) => /record/.test(t.label))) return is >= wanted ? "" : `${is} for ${wanted}`;
    return Math.abs(enough(is, wanted, share) - chance) < 0.01 ? "" : `chance ${enough(is, wanted, share)}`;
  }
  if (terms.every((t) => t.label.startsWith("from ")))
    return terms.some((t) => numberIn(t.value) === is) || /shop's rate/.test(formula)
      ? ""
      : `no step is ${result}`;
  if (values.some(Number.isNaN) || Number.isNaN(is)) return `${title}: no number`;
  if (title.includes("days until"))
    return near(
      values.reduce((a, b) => a + b, 0),
      margin,
    );
  return near(
    values.reduce((a, b) => a + b, 0),
    margin,
  );
}

/** Every sum of a run's stages, each computed again from its terms. @returns how many there were */
async function held(page: Page, run: string, stages: readonly (typeof STAGES)[number][]): Promise<number> {
  let many = 0;
  for (const at of stages) {
    await openStage(page, run, at);
    await expect(page.getByTestId("per-good")).toBeVisible();
    await expect(page.getByLabel("Effects are being computed")).toHaveCount(0);
    const sums = await sumsOf(page);
    many += sums.length;
    const wrong = sums.map((s) => [s, wrongIn(s)] as const).filter(([, w]) => w !== "");
    expect(
      wrong.map(
        ([s, w]) => `${at}: ${s.title}: ${w} (${s.terms.map((t) => t.value).join(", ")}; ${s.formula})`,
      ),
    ).toEqual([]);
  }
  return many;
}

test("every sum of an open run comes to what it stands at, computed from its own terms", async ({ page }) => {
  test.slow();
  const run = await demoRunNamed(page, "for the spring fairs");
  expect(await held(page, run, STAGES)).toBeGreaterThan(70);
});

test("the sums of a run that is released, half built and closed come to what they stand at", async ({
  page,
}) => {
  test.slow();
  const run = await releasedDemoRun(page, "Probe Tail", "every sum", 20);
  const some = await held(page, run, ["assemble", "cost", "build"]);
  expect(some).toBeGreaterThan(8);
  const work = (more: object) =>
    ask(page, "POST", `/api/runs/${run}/work`, {
      on: "2026-11-29",
      started: 0,
      good: 0,
      scrapped: 0,
      reworked: 0,
      minutes: 0,
      ...more,
    });
  await work({ started: 21, good: 9, minutes: 150 });
  expect(await held(page, run, ["cost", "build"])).toBeGreaterThan(6);
  await work({ good: 11, scrapped: 1, minutes: 120 });
  await ask(page, "PUT", `/api/runs/${run}/closing`, { lesson: "", stays: {}, counted: [] });
  expect(await held(page, run, ["cost", "build"])).toBeGreaterThan(6);
});
