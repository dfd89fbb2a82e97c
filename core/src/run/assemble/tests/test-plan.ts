import Big from "big.js";
import { counted } from "../../../counted.ts";
import { type CoverDocument, coverDocument } from "../../../cover/cover.ts";
import { overdue } from "../../../equipment/equipment.ts";
import type { Level } from "../../../findings.ts";
import { linesOf, lineWrong, pointWords } from "../../../testing/line-fit.ts";
import { loadOf, loadWords, USUAL_SHARE } from "../../../testing/load.ts";
import { Reaches } from "../../../testing/reach.ts";
import { hasLimit, limitsWrong, limitText } from "../../../testing/verdict.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import type { Add } from "../../document/note.ts";
import { reachOf, wiredOf } from "../../document/wired.ts";

/** How a pin stands in a test plan. */
export type PinStand = "tested" | "implied" | "never";

/** A pin on a board, with how the plan stands to it. */
export interface PaintedPin {
  readonly name: string;
  readonly board: number;
  readonly layer: string;
  readonly x: number;
  readonly y: number;
  readonly stand: PinStand;
}

/** What should come of an item, in words: its limits, what is to be minded, what is applied or it is loaded with. */
export const comesOf = (t: TestItem): string =>
  [
    t.point && pointWords(t.point),
    [limitText(t), t.expect].filter(Boolean).join("; ") ||
      (t.point ? "a point of its line" : "what should come is not said"),
    t.load && loadWords(t.load),
  ]
    .filter(Boolean)
    .join("; ");

/** What a product's test plan says of its joints. */
export interface Coverage {
  readonly cover: CoverDocument;
  readonly pins: readonly PaintedPin[];
  /** Items that name what is not there, or drive and read nothing: they exercise nothing. */
  readonly idle: readonly { readonly id: string; readonly because: string }[];
  /** Of the plan, minutes a product. */
  readonly minutes: number;
}

/** Why an item says nothing of the board; undefined where it does. */
function idleOf(
  item: TestItem,
  known: { readonly pins: ReadonlySet<string>; readonly parts: ReadonlyMap<string, number> },
): string | undefined {
  const ends = [...item.drives, ...item.reads];
  if (ends.length === 0) return "it drives and reads nothing";
  const isThere = (n: string) => known.pins.has(n) || known.parts.get(n) === 1;
  const odd = [
    ...ends.filter((n) => !isThere(n)),
    ...item.through.filter((n) => !known.pins.has(n) && !known.parts.has(n)),
  ];
  if (odd.length === 0) return undefined;
  const wide = odd.find((n) => known.parts.has(n));
  return wide ? `${wide} has ${known.parts.get(wide)} pins: say which` : `${odd.join(", ")} is on no board`;
}

/** What there is to name on a run's boards. */
const knownOn = ({ parts, at }: ReturnType<typeof wiredOf>) => ({
  pins: new Set(at.keys()),
  parts: new Map(parts.map((p) => [p.ref, p.pins.length])),
});

/**
 * How many pins leave *never* with each of some items, of a plan whose coverage is known: those on nets that an item drives or
 * reads and that nobody tested. An item that exercises nothing takes none.
 */
export function gainsOf(doc: RunDocument, c: Coverage, items: readonly Omit<TestItem, "id">[]): number[] {
  const wired = wiredOf(doc);
  const known = knownOn(wired);
  const reaches = new Reaches(wired.parts);
  const untested = new Map(c.cover.next.map(({ net, gains }) => [net, gains]));
  return items.map((i) =>
    idleOf({ ...i, id: "" }, known)
      ? 0
      : [...reaches.of(i).nets].reduce((n, net) => n + (untested.get(net) ?? 0), 0),
  );
}

/**
 * What a plan tests, what it only implies, and what it says nothing of (domain.md 9.6; `cover/1`), painted on the boards' own
 * pins. Items that name nothing that is there are left out and told; those that are tried on a few boards alone are left out,
 * and told where they name what is not there. Nothing where no file tells pins and nets.
 */
export function coverageOf(doc: RunDocument): Coverage | undefined {
  const wired = wiredOf(doc);
  const { parts, at } = wired;
  if (parts.length === 0) return undefined;
  const known = knownOn(wired);
  const all = doc.assembly.tests ?? [];
  // what is tried on a few alone says nothing of the others
  const items = all.filter((t) => t.besides?.boards === undefined);
  const idle = all.flatMap((i) => {
    // a whole firing at another studio names no pin, and need not
    if (!items.includes(i) && i.drives.length + i.reads.length + i.through.length === 0) return [];
    const because = idleOf(i, known);
    return because ? [{ id: i.id, because }] : [];
  });
  const bad = new Set(idle.map((i) => i.id));
  const good = items.filter((i) => !bad.has(i.id));
  const cover = coverDocument({
    parts,
    items: good.map(({ id, drives, reads, through, state, minutes }) => ({
      id,
      drives,
      reads,
      through,
      state: state === "bare" ? "bare" : "powered",
      minutes,
    })),
  });
  const [never, implied] = [new Set(cover.never), new Set(cover.implied)];
  return {
    cover,
    pins: [...at].map(([name, place]) => ({
      name,
      ...place,
      stand: never.has(name) ? "never" : implied.has(name) ? "implied" : "tested",
    })),
    idle,
    minutes: items.reduce((n, i) => n + i.minutes, 0),
  };
}

/** An item that would test a net nobody tests: where it is read best, and how many pins leave *never* with it. */
export interface ProposedTest {
  readonly net: string;
  readonly read: string;
  readonly gains: number;
}

/** What everything is read against is read by itself by nobody: by the names people give it. */
const GROUND = /^(([ADP]|SIG|PWR)?GND[AD]?|0V|VSS|V-|COM|EARTH)( of .*)?$/i;

/** The tests that would say most that nobody says yet, each tried. @param most so many of them */
export function proposedTests(doc: RunDocument, c: Coverage, most = 5): ProposedTest[] {
  const { parts } = wiredOf(doc);
  const pinsOf = new Map<string, string[]>();
  for (const p of parts)
    for (const { pin, net } of p.pins)
      if (net !== undefined) pinsOf.set(net, [...(pinsOf.get(net) ?? []), `${p.ref}.${pin}`]);
  return c.cover.next
    .filter(({ net }) => !GROUND.test(net))
    .slice(0, most)
    .flatMap(({ net, gains }) => {
      const [read] = [...(pinsOf.get(net) ?? [])].sort((a, b) => reachOf(a) - reachOf(b));
      return read ? [{ net, read, gains }] : [];
    });
}

/** Why an item's limits cannot judge what is read; a point of a line without any is judged with the others of it. */
export const limitsOff = (t: TestItem): string | undefined =>
  t.unit === undefined || (t.point && !hasLimit(t)) ? undefined : limitsWrong(t);

/** What of a plan is to be looked at before it is relied on. */
export function testPlanNotes(doc: RunDocument, add: Add): void {
  const items = doc.assembly.tests ?? [];
  if (items.length === 0) return;
  const deaf = items.flatMap((i) => {
    const because = limitsOff(i);
    return because ? [{ name: i.name, id: i.id, because }] : [];
  });
  if (deaf.length > 0)
    add(
      "assemble",
      `test-limits ${deaf.map((i) => i.id).join(" ")}`.slice(0, 200),
      "warning",
      `${counted(deaf.length, "item")} of the test plan cannot judge a reading: ${deaf.map((i) => `${i.name} (${i.because})`).join("; ")}.`,
      { do: "Correct its limits under Assemble, test plan." },
    );
  meterNotes(doc, items, add);
  loadNotes(items, add);
  lineNotes(items, add);
  const c = coverageOf(doc);
  if (!c) return;
  const name = new Map(items.map((i) => [i.id, i.name]));
  if (c.idle.length > 0)
    add(
      "assemble",
      `test-idle ${c.idle.map((i) => i.id).join(" ")}`.slice(0, 200),
      "warning",
      `${counted(c.idle.length, "item")} of the test plan ${c.idle.length === 1 ? "exercises" : "exercise"} nothing: ${c.idle.map((i) => `${name.get(i.id)} (${i.because})`).join("; ")}.`,
      { do: "Correct it under Assemble, test plan; a pass of it would say nothing." },
    );
  if (Math.abs(c.minutes - doc.assembly.testMinutes) > 0.05)
    add(
      "assemble",
      "test-minutes",
      "remark",
      `The test plan takes ${Number(c.minutes.toFixed(2))} min a product, and ${doc.assembly.testMinutes} min are counted.`,
      { do: "Take the plan's minutes under Assemble, test plan." },
    );
}

/** Readings are held against limits, and no meter of the shop is known to be true any more. */
function meterNotes(doc: RunDocument, items: readonly TestItem[], add: Add): void {
  if (!items.some((i) => i.unit !== undefined)) return;
  const late = overdue(doc.equipment ?? [], "meter", doc.today);
  if (late.length === 0) return;
  add(
    "assemble",
    `meter-due ${late.map((e) => `${e.id} ${e.facts.trueUntil}`).join(" ")}`.slice(0, 200),
    "warning",
    `${late.map((e) => `${e.name} was to be checked by ${e.facts.trueUntil}`).join(", ")}: what it reads near a limit proves nothing.`,
    {
      do: "Have it checked, or hold it against a meter that is, and say until when under Settings, equipment.",
    },
  );
}

/** What is planned of an output against what is in its path, what can hurt, and what a part's isolation does not say. */
function loadNotes(items: readonly TestItem[], add: Add): void {
  for (const { id, name, load } of items) {
    if (!load) continue;
    const say = (key: string, ...[level, text, what]: [Level, string, string]) =>
      add("assemble", `${key} ${id}`, level, text, { do: what });
    const { stand, weakest, allowed, isDangerous } = loadOf(load);
    const planned = `${name} is to drive ${load.amps} A`;
    if (stand === "over")
      say(
        "load-over",
        "error",
        `${planned}, and ${weakest!.what} carries ${weakest!.amps} A at the most.`,
        "Plan less, or fit what carries more.",
      );
    if (stand === "tight")
      say(
        "load-tight",
        "warning",
        `${planned}; ${weakest!.what} carries ${weakest!.amps} A, of which ${Math.round((load.share ?? USUAL_SHARE) * 1000) / 10} % are to be used: ${allowed} A.`,
        "Plan less, fit what carries more, or set the share that is used higher where the data sheet allows it.",
      );
    if (stand === "not known")
      say(
        "load-unrated",
        "remark",
        `${planned}, and nobody says what anything in its path carries: no label may state a load.`,
        "Say it at the item, as the data sheets have it.",
      );
    if (isDangerous)
      say(
        "load-danger",
        "warning",
        `${name} is at ${load.volts} V ${load.kind === "direct" ? "direct" : "alternating"}, which can injure or kill whoever touches it.`,
        "Try it covered, with a switch that does not hang on the board, by somebody competent, or licensed where the law asks for it; local codes decide.",
      );
    if (load.isolation)
      say(
        "load-isolation",
        "remark",
        `${load.isolation.what} is rated for ${load.isolation.kilovolts} kV of isolation. That is the part's: what the product keeps apart hangs on the spacing on its boards, its wiring and its housing, and is not shown by this test.`,
        "Claim nothing of it without a test of the product by somebody entitled to make it.",
      );
  }
}

/** Points that make no line, a line that judges nothing, and what is applied beyond what an input stands. */
function lineNotes(items: readonly TestItem[], add: Add): void {
  for (const l of linesOf(items)) {
    const key = l.items.map((t) => t.id).join(" ");
    const wrong = lineWrong(l);
    if (wrong)
      add(
        "assemble",
        `${wrong.isNone ? "line-none" : "line-weak"} ${key}`.slice(0, 200),
        wrong.isNone ? "warning" : "remark",
        wrong.isNone
          ? `No constants come of ${l.of}: ${wrong.because}.`
          : `The line of ${l.of} proves little: ${wrong.because}.`,
        {
          do: "Correct its points under Assemble, test plan: three and more, apart, and how far off one may lie.",
        },
      );
    const most = l.most;
    if (most === undefined || wrong?.isNone) continue;
    const over = l.items.filter((t) => Big(t.point!.applied).abs().gt(Big(most).abs()));
    if (over.length > 0)
      add(
        "assemble",
        `line-over ${over.map((t) => t.id).join(" ")}`.slice(0, 200),
        "error",
        `${over.map((t) => t.name).join(", ")}: ${over.map((t) => `${t.point!.applied} ${l.unit}`).join(", ")} would be applied, and never more than ${most} ${l.unit} may be.`,
        { do: "Apply less, or say anew what the input stands." },
      );
  }
}
