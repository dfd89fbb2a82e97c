import type { BoardDiff } from "../board/diff-document.ts";
import type { Measure } from "../board/measure-document.ts";
import { checkHouse, type LimitCheck } from "../fab/check.ts";
import { fitOptions } from "../fab/fit-options.ts";
import type { House } from "../fab/house.ts";
import { MEASURES } from "../fab/measures.ts";
import type { FabOptions } from "../fab/options.ts";
import type { Finding } from "../findings.ts";
import { comparePartPads, type PartChange } from "./parts.ts";

/** A figure of a board that is another one now. */
export interface FigureChange {
  readonly key: string;
  readonly label: string;
  readonly unit: "mm" | "layers" | "ratio";
  /** Left out where the board has none. */
  readonly was?: number;
  readonly now?: number;
  /** Which way that is good; nothing where neither way is. */
  readonly is?: "better" | "worse";
  /** How the chosen house takes it. */
  readonly levelWas?: LimitCheck["level"];
  readonly levelNow?: LimitCheck["level"];
}

/** What may be said of a revision: nothing changed, ink only, paste only, or form, fit or function. */
export interface LetterVerdict {
  readonly says: "none" | "suffix" | "stencil" | "letter";
  readonly because: readonly ("form" | "fit" | "function" | "silkscreen" | "paste")[];
}

/** A board against another: what a person wants to know of it beside the layers. */
export interface Comparison {
  readonly diff: BoardDiff;
  readonly parts: readonly PartChange[];
  readonly figures: readonly FigureChange[];
  readonly notes: {
    readonly fresh: readonly Finding[];
    readonly solved: readonly Finding[];
    readonly same: number;
  };
  readonly letter: LetterVerdict;
}

/**
 * What follows from the difference of two boards: parts, figures against a house, findings that came and went, and which
 * letter the revision deserves (domain.md 9.8).
 *
 * @param house the one that is chosen; without it figures are told without its view of them
 */
export function compareMeasured(
  diff: BoardDiff,
  now: Measure,
  was: Measure,
  house?: House,
  options: Partial<FabOptions> = {},
): Comparison {
  return {
    diff,
    parts: comparePartPads(now, was, diff.shift),
    figures: compareFigures(now, was, house, options),
    notes: compareFindings(now.findings, was.findings),
    letter: letterOf(diff),
  };
}

const SAME = 1e-4;

function compareFigures(
  now: Measure,
  was: Measure,
  house: House | undefined,
  options: Partial<FabOptions>,
): FigureChange[] {
  const checks = [was, now].map((m) => (house ? checkHouse(house, m, fitOptions(house, options)) : []));
  const level = (list: readonly LimitCheck[], key: string) => list.find((c) => c.measure === key)?.level;
  const row = (
    key: string,
    label: string,
    unit: FigureChange["unit"],
    before: number | undefined,
    after: number | undefined,
    good?: "at least" | "at most",
  ): FigureChange[] => {
    if (before === undefined && after === undefined) return [];
    if (before !== undefined && after !== undefined && Math.abs(before - after) < SAME) return [];
    const isMore = before !== undefined && after !== undefined ? after > before : undefined;
    const [a, b] = [level(checks[0]!, key), level(checks[1]!, key)];
    return [
      {
        key,
        label,
        unit,
        ...(before === undefined ? {} : { was: before }),
        ...(after === undefined ? {} : { now: after }),
        ...(good && isMore !== undefined
          ? { is: isMore === (good === "at least") ? "better" : "worse" }
          : {}),
        ...(a ? { levelWas: a } : {}),
        ...(b ? { levelNow: b } : {}),
      },
    ];
  };
  return [
    ...row("widthMm", "board width", "mm", was.outline?.widthMm, now.outline?.widthMm),
    ...row("heightMm", "board height", "mm", was.outline?.heightMm, now.outline?.heightMm),
    ...row("copperLayers", "copper layers", "layers", was.copperLayers, now.copperLayers),
    ...row("thicknessMm", "thickness stated in the files", "mm", was.thicknessMm, now.thicknessMm),
    ...MEASURES.flatMap((s) =>
      row(s.key, s.label, s.unit, s.valueOf(was, options), s.valueOf(now, options), s.is),
    ),
  ];
}

/** What makes two findings the same one: what they are about, or their words without the numbers in them. */
const findingKey = (f: Finding): string =>
  `${f.tag} ${f.about ? [...f.about].sort().join(" ") : f.text.replace(/[\d.,−-]+/g, "#")}`;

function compareFindings(now: readonly Finding[], was: readonly Finding[]): Comparison["notes"] {
  const left = new Map<string, Finding[]>();
  for (const f of was) {
    const key = findingKey(f);
    const list = left.get(key);
    if (list) list.push(f);
    else left.set(key, [f]);
  }
  const fresh = now.filter((f) => !left.get(findingKey(f))?.pop());
  return { fresh, solved: [...left.values()].flat(), same: now.length - fresh.length };
}

/** Form, fit or function make a letter; ink alone a suffix; paste alone only a stencil. */
function letterOf({ changed }: BoardDiff): LetterVerdict {
  const because = REASONS.flatMap(([word, kind]) => (changed.some((k) => kind.test(k)) ? [word] : []));
  const has = (...words: LetterVerdict["because"]) => because.some((w) => words.includes(w));
  return {
    says: has("form", "fit", "function")
      ? "letter"
      : has("silkscreen")
        ? "suffix"
        : has("paste")
          ? "stencil"
          : "none",
    because,
  };
}

const REASONS: readonly (readonly [LetterVerdict["because"][number], RegExp])[] = [
  ["fit", /^(profile|drill)/],
  ["form", /^mask/],
  ["function", /^copper/],
  ["silkscreen", /^legend/],
  ["paste", /^paste/],
];
