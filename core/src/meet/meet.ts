import Big from "big.js";
import { AppError } from "../errors.ts";
import type { NUMBERINGS, PIN_KINDS } from "../shape/meeting.ts";
import { MEET_MODES, meetShape } from "../shape/meeting.ts";

export type PinKind = (typeof PIN_KINDS)[number];
export type Numbering = (typeof NUMBERINGS)[number];
export type MeetMode = (typeof MEET_MODES)[number];

/** One contact of a connector: what it is, and what it gives and bears, as far as it is known. */
export interface Pin {
  readonly pin: string;
  /** Left out where nobody said it yet: whatever it meets is not known. */
  readonly kind?: PinKind;
  /** What a supply or an output gives. */
  readonly volts?: number;
  /** Least and most that may be put on it. */
  readonly takesV?: readonly [number, number];
  readonly net?: string;
}

/** Two rows of contacts. */
export interface Meeting {
  readonly ours: readonly Pin[];
  readonly theirs: readonly Pin[];
  /** What belongs together, ours first; left out: pins of one name whose nets, where both state one, are the same. */
  readonly meant?: readonly (readonly [string, string])[];
  readonly rows?: 1 | 2;
  readonly numbering?: Numbering;
  readonly modes?: readonly MeetMode[];
}

export type PairVerdict = "short" | "fight" | "over" | "unknown" | "meant" | "idle";
export interface MetPair {
  readonly ours: string;
  readonly theirs: string;
  readonly verdict: PairVerdict;
}
/** What meets what in one way of putting them together. */
export interface MetMode {
  readonly mode: MeetMode;
  /** Places theirs was moved along the row. */
  readonly by?: 1 | -1;
  readonly pairs: readonly MetPair[];
  readonly verdict: "fine" | "idle" | "damage" | "unknown";
  /** Both pins of the worst pair, and what happens there. */
  readonly because?: string;
}

/** Where a pin stands: column from 1, row 0 or 1. */
interface Spot {
  readonly column: number;
  readonly row: 0 | 1;
}

/** Place of each pin of a side: its number, or its place in the list where one of them has none. */
function placesOf(pins: readonly Pin[]): number[] {
  const numbers = pins.map((p) => (/^0*[1-9]\d{0,5}$/.test(p.pin) ? Number(p.pin) : Number.NaN));
  const isNumbered = numbers.every((n) => n >= 1) && new Set(numbers).size === numbers.length;
  return isNumbered ? numbers : pins.map((_, i) => i + 1);
}

/** Where place p of n lies. Two rows by ring: down one side, up the other; the odd one leaves the place opposite 1 empty. */
function spotOf(p: number, n: number, rows: 1 | 2, numbering: Numbering): Spot {
  if (rows === 1) return { column: p, row: 0 };
  if (numbering === "zigzag") return { column: Math.ceil(p / 2), row: p % 2 === 1 ? 0 : 1 };
  const first = Math.ceil(n / 2);
  return p <= first ? { column: p, row: 0 } : { column: n - p + 1 + (n % 2), row: 1 };
}

/** How theirs is put in: its rows exchanged, its columns the other way round, and so many places along. */
export interface Put {
  readonly isAcross: boolean;
  readonly isBack: boolean;
  readonly by: number;
}

const PUTS: Readonly<Record<MeetMode, (rows: 1 | 2, by: number) => Put>> = {
  meant: () => ({ isAcross: false, isBack: false, by: 0 }),
  turned: (rows) => ({ isAcross: rows === 2, isBack: true, by: 0 }),
  mirrored: (rows) => ({ isAcross: rows === 2, isBack: rows === 1, by: 0 }),
  shifted: (_, by) => ({ isAcross: false, isBack: false, by }),
};

/** How a mode puts theirs in. @param by places along, of those that are shifted */
export const putOf = (mode: MeetMode, rows: 1 | 2, by = 0): Put => PUTS[mode](rows, by);

/** How it is put in, as a sentence goes on. */
export const PUT_IN: Readonly<Record<MeetMode, string>> = {
  meant: "as meant",
  turned: "turned by half a turn",
  mirrored: "with its rows exchanged",
  shifted: "one place aside",
};

/** Where a place of theirs comes to lie. */
const putAt = (s: Spot, columns: number, how: Put): Spot => ({
  column: (how.isBack ? columns + 1 - s.column : s.column) + how.by,
  row: (how.isAcross ? 1 - s.row : s.row) as 0 | 1,
});

/** A contact where it lies: of ours as it is, of theirs as it is put in. */
export interface Laid extends Spot {
  readonly pin: Pin;
}

/** Both sides laid over each other, however theirs is put in: what a drawing shows. */
export function laidOver(
  m: Meeting,
  how: Put,
): { readonly columns: number; readonly ours: readonly Laid[]; readonly theirs: readonly Laid[] } {
  const rows = m.rows ?? 1;
  const numbering = m.numbering ?? "line";
  const [a, b] = [placesOf(m.ours), placesOf(m.theirs)];
  const n = [...a, ...b].reduce((most, p) => Math.max(most, p), 0);
  const columns = rows === 1 ? n : Math.ceil(n / 2);
  const spot = (p: number) => spotOf(p, n, rows, numbering);
  return {
    columns,
    // in the order of their places
    ours: m.ours
      .map((pin, i) => ({ pin, place: a[i]! }))
      .sort((x, y) => x.place - y.place)
      .map(({ pin, place }) => ({ pin, ...spot(place) })),
    theirs: m.theirs.map((pin, i) => ({ pin, ...putAt(spot(b[i]!), columns, how) })),
  };
}

const DRIVES: ReadonlySet<PinKind> = new Set(["supply", "output"]);
/** What has to say what it bears once something drives it; a supply's own is looked at where it is stated. */
const MUST_SAY: ReadonlySet<PinKind> = new Set(["passive", "input", "both", "output"]);
/** Supplies that differ by more feed one another. */
const SUPPLIES_APART_V = "0.1";

/** What a driver does to the other pin: beyond what it takes, not known, or nothing that is. */
function onto(driver: Pin, other: Pin): "over" | "unknown" | undefined {
  if (!DRIVES.has(driver.kind!)) return undefined;
  const takes = other.takesV;
  if (takes === undefined) return MUST_SAY.has(other.kind!) ? "unknown" : undefined;
  if (driver.volts === undefined) return "unknown";
  return driver.volts < takes[0] || driver.volts > takes[1] ? "over" : undefined;
}

/** Verdict on two contacts that touch, the worst first. */
export function judgePair(a: Pin, b: Pin, isMeant: boolean): PairVerdict {
  if (a.kind === undefined || b.kind === undefined) return "unknown";
  const are = (x: PinKind, y: PinKind) => (a.kind === x && b.kind === y) || (a.kind === y && b.kind === x);
  if (are("supply", "ground")) return "short";
  if (are("output", "output") || are("output", "ground")) return "fight";
  const areSupplies = are("supply", "supply");
  const isStated = a.volts !== undefined && b.volts !== undefined;
  if (areSupplies && isStated && Big(a.volts!).minus(b.volts!).abs().gt(SUPPLIES_APART_V)) return "fight";
  const done = [onto(a, b), onto(b, a)];
  if (done.includes("over")) return "over";
  if (done.includes("unknown") || (areSupplies && !isStated)) return "unknown";
  return isMeant ? "meant" : "idle";
}

const WORST: readonly PairVerdict[] = ["short", "fight", "over", "unknown", "idle", "meant"];
const SAYS: Readonly<Record<PairVerdict, string>> = {
  short: "a supply on ground",
  fight: "two that drive each other",
  over: "more volts than it takes",
  unknown: "not known what it gives or takes",
  idle: "not meant for each other",
  meant: "as meant",
};

type Partners = ReadonlyMap<string, ReadonlySet<string>>;

/** What is meant for what, each way. */
function partnersOf(m: Meeting): { readonly ours: Partners; readonly theirs: Partners } {
  const byName = new Map(m.theirs.map((p) => [p.pin, p]));
  const same = (p: Pin) => {
    const q = byName.get(p.pin);
    const isSame = q && (p.net === undefined || q.net === undefined || p.net === q.net);
    return isSame ? [[p.pin, p.pin] as const] : [];
  };
  const ours = new Map<string, Set<string>>();
  const theirs = new Map<string, Set<string>>();
  for (const [a, b] of m.meant ?? m.ours.flatMap(same)) {
    ours.set(a, (ours.get(a) ?? new Set()).add(b));
    theirs.set(b, (theirs.get(b) ?? new Set()).add(a));
  }
  return { ours, theirs };
}

/** The first pin that is meant for another and meets none of those. */
function aloneIn(pairs: readonly MetPair[], meant: ReturnType<typeof partnersOf>): string | undefined {
  const met = new Map(pairs.map((p) => [p.ours, p.theirs]));
  const back = new Map(pairs.map((p) => [p.theirs, p.ours]));
  for (const [pin, others] of meant.ours)
    if (!others.has(met.get(pin)!)) return `our ${pin} does not meet their ${[...others].join(", ")}`;
  for (const [pin, others] of meant.theirs)
    if (!others.has(back.get(pin)!)) return `our ${[...others].join(", ")} does not meet their ${pin}`;
  return undefined;
}

/** What meets what, put in so: in the order of our places. */
function metAt(m: Meeting, how: Put, meant: ReturnType<typeof partnersOf>): MetPair[] {
  const { ours, theirs } = laidOver(m, how);
  const key = (s: Spot) => `${s.column} ${s.row}`;
  const at = new Map(theirs.map((t) => [key(t), t.pin]));
  return ours.flatMap((o) => {
    const other = at.get(key(o));
    if (!other) return [];
    const isMeant = meant.ours.get(o.pin.pin)?.has(other.pin) ?? false;
    return [{ ours: o.pin.pin, theirs: other.pin, verdict: judgePair(o.pin, other, isMeant) }];
  });
}

/** What meets what, put in so, and what that does. */
export function putTogether(
  m: Meeting,
  how: Put,
  meant: ReturnType<typeof partnersOf> = partnersOf(m),
): Pick<MetMode, "pairs" | "verdict" | "because"> {
  const pairs = metAt(m, how, meant);
  const worst = WORST.map((v) => pairs.find((p) => p.verdict === v)).find((p) => p !== undefined);
  const because = worst && `our ${worst.ours} on their ${worst.theirs}: ${SAYS[worst.verdict]}`;
  switch (worst?.verdict) {
    case "short":
    case "fight":
    case "over":
      return { pairs, verdict: "damage", because: because! };
    case "unknown":
    case "idle":
      return { pairs, verdict: worst.verdict, because: because! };
    default: {
      const alone = aloneIn(pairs, meant);
      return alone ? { pairs, verdict: "idle", because: alone } : { pairs, verdict: "fine" };
    }
  }
}

const modeOf = (m: Meeting, mode: MeetMode, by: 1 | -1, meant: ReturnType<typeof partnersOf>): MetMode => ({
  mode,
  ...(mode === "shifted" ? { by } : {}),
  ...putTogether(m, putOf(mode, m.rows ?? 1, by), meant),
});

/** As {@link meet}, of tables that may have pins nobody described yet. */
export function meetTables(m: Meeting): readonly MetMode[] {
  const meant = partnersOf(m);
  return (m.modes ?? MEET_MODES).flatMap((mode) =>
    mode === "shifted"
      ? [modeOf(m, mode, 1, meant), modeOf(m, mode, -1, meant)]
      : [modeOf(m, mode, 1, meant)],
  );
}

/**
 * What meets what when two rows of contacts are put together as meant, turned by half a turn, with their rows exchanged, and
 * one place aside; and what that does. Volts are compared as they are written, bounds included.
 * @throws AppError DOCUMENT_INVALID where a pin is twice, or one is meant that nobody has
 */
export function meet(m: Meeting): readonly MetMode[] {
  const wrong = meetShape(m, "");
  if (wrong) throw new AppError("DOCUMENT_INVALID", `${wrong}.`, "docs/cli.md shows the form.");
  return meetTables(m);
}
