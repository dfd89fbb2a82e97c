import { AppError } from "../errors.ts";
import { type DataShape, fields, list, maybe, number, oneOf, text } from "../shape/index.ts";

/** A pin of a part, and the net it is on where it is on one. */
export interface CoverPin {
  readonly pin: string;
  readonly net?: string;
}
export interface CoverPart {
  readonly ref: string;
  readonly pins: readonly CoverPin[];
}

/** One item of a test plan: what it drives and reads (pins as `ref.pin`), and the parts it goes through. */
export interface CoverItem {
  readonly id: string;
  readonly minutes?: number;
  readonly drives?: readonly string[];
  readonly reads?: readonly string[];
  readonly through?: readonly string[];
  readonly state?: "powered" | "bare";
}
export interface CoverPlan {
  readonly parts: readonly CoverPart[];
  readonly items: readonly CoverItem[];
}

/** The document `cover/1`. */
export interface CoverDocument {
  readonly kobbin: "cover/1";
  readonly pins: { readonly tested: number; readonly implied: number; readonly never: number };
  readonly nets: { readonly tested: number; readonly never: number };
  /** Pins that no item says anything of, and those that only others' items do, in the order of the parts. */
  readonly never: readonly string[];
  readonly implied: readonly string[];
  /** Nets no item tests, by how many pins one more item there would take out of `never`. */
  readonly next: readonly { readonly net: string; readonly gains: number }[];
}

const MOST = 100_000;
const places = maybe(list(text(200, 1), MOST));
/** What a plan may be. */
export const coverShape: DataShape = fields({
  parts: list(
    fields({ ref: text(80, 1), pins: list(fields({ pin: text(80, 1), net: maybe(text(200)) }), MOST) }),
    MOST,
  ),
  items: list(
    fields({
      id: text(200),
      minutes: maybe(number(0, 1e6)),
      drives: places,
      reads: places,
      through: places,
      state: maybe(oneOf("powered", "bare")),
    }),
    MOST,
  ),
});

const bad = (what: string) =>
  new AppError("DOCUMENT_INVALID", `The test plan ${what}.`, "docs/cli.md shows the form.");

/** Parts and pins by name, each there once. */
class Named {
  readonly parts = new Map<string, CoverPart>();
  /** `ref.pin` → part and net. */
  readonly pins = new Map<string, { readonly part: CoverPart; readonly net: string | undefined }>();

  constructor(parts: readonly CoverPart[]) {
    for (const part of parts) {
      if (this.parts.has(part.ref)) throw bad(`has the part ${part.ref} twice`);
      this.parts.set(part.ref, part);
      for (const { pin, net } of part.pins) {
        const name = `${part.ref}.${pin}`;
        if (this.pins.has(name)) throw bad(`has the pin ${name} twice`);
        // a net without a name is none
        this.pins.set(name, { part, net: net === "" ? undefined : net });
      }
    }
  }

  /** A pin an item drives or reads; a part of one pin may be named without it. */
  pinOf(name: string, item: CoverItem): { readonly part: CoverPart; readonly net: string | undefined } {
    const pin = this.pins.get(name);
    if (pin) return pin;
    const part = this.parts.get(name);
    if (!part) throw bad(`names ${name} in ${item.id}: there is no such pin or part`);
    if (part.pins.length !== 1)
      throw bad(`names ${name} in ${item.id} without a pin, and it has ${part.pins.length}`);
    return this.pins.get(`${name}.${part.pins[0]!.pin}`)!;
  }

  /** A part an item goes through. */
  partOf(name: string, item: CoverItem): CoverPart {
    const part = this.parts.get(name) ?? this.pins.get(name)?.part;
    if (!part) throw bad(`goes through ${name} in ${item.id}: there is no such part`);
    return part;
  }
}

/**
 * Which joints a test plan exercises. A net is tested when an item drives or reads a pin of it. A pin is tested when its net
 * is, by an item that names its part; implied when its net is tested by items that do not; else never. A pin on no net counts
 * in none. O(pins + places named).
 *
 * @throws AppError DOCUMENT_INVALID naming what is unknown, twice, or not said
 */
export function coverDocument(given: unknown): CoverDocument {
  const wrong = coverShape(given, "");
  if (wrong) throw bad(`cannot be read: ${wrong}`);
  const plan = given as CoverPlan;
  const named = new Named(plan.parts);
  /** Net → parts that an item which tests it names. */
  const tested = new Map<string, Set<CoverPart>>();
  for (const item of plan.items) {
    const ends = [...(item.drives ?? []), ...(item.reads ?? [])].map((n) => named.pinOf(n, item));
    const through = (item.through ?? []).map((n) => named.partOf(n, item));
    const names = [...ends.map((e) => e.part), ...through];
    for (const net of new Set(ends.flatMap((e) => e.net ?? []))) {
      const by = tested.get(net) ?? new Set();
      for (const part of names) by.add(part);
      tested.set(net, by);
    }
  }
  const never: string[] = [];
  const implied: string[] = [];
  let sure = 0;
  const untested = new Map<string, number>();
  const nets = new Set<string>();
  for (const [name, { part, net }] of named.pins) {
    if (net === undefined) continue;
    nets.add(net);
    const by = tested.get(net);
    if (!by) {
      never.push(name);
      untested.set(net, (untested.get(net) ?? 0) + 1);
    } else if (by.has(part)) sure++;
    else implied.push(name);
  }
  return {
    kobbin: "cover/1",
    pins: { tested: sure, implied: implied.length, never: never.length },
    nets: { tested: nets.size - untested.size, never: untested.size },
    never,
    implied,
    next: [...untested]
      .map(([net, gains]) => ({ net, gains }))
      .sort((a, b) => b.gains - a.gains || byCodePoint(a.net, b.net)),
  };
}

/** By code points, as no language's alphabet orders them otherwise. */
function byCodePoint(a: string, b: string): number {
  const [x, y] = [[...a], [...b]];
  for (let i = 0; i < Math.min(x.length, y.length); i++) {
    const by = x[i]!.codePointAt(0)! - y[i]!.codePointAt(0)!;
    if (by !== 0) return by;
  }
  return x.length - y.length;
}
