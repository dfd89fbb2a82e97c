import { refOf } from "../board/pins.ts";

/** A part with its pins and the nets they are on. */
export interface ReachedPart {
  readonly ref: string;
  readonly pins: readonly { readonly pin: string; readonly net?: string }[];
}

/** Where an item is driven and read, and what it goes through. */
export interface ReachingItem {
  readonly drives: readonly string[];
  readonly reads: readonly string[];
  readonly through: readonly string[];
}

/** What an item exercises: the nets it drives or reads, and the parts it names. */
export interface Reach {
  readonly nets: ReadonlySet<string>;
  readonly parts: ReadonlySet<string>;
}

/**
 * Tells what items reach on some parts, as coverage has it (`cover/1`): a part of one pin may be named without it, and a
 * name that is on no board reaches nothing.
 */
export class Reaches {
  /** `ref.pin` → net. */
  readonly netOf: ReadonlyMap<string, string | undefined>;
  readonly #single: ReadonlyMap<string, string>;
  readonly #pinsOn = new Map<string, { readonly pin: string; readonly ref: string }[]>();

  constructor(parts: readonly ReachedPart[]) {
    this.netOf = new Map(parts.flatMap((p) => p.pins.map((q) => [`${p.ref}.${q.pin}`, q.net] as const)));
    this.#single = new Map(
      parts.flatMap((p) => (p.pins.length === 1 ? [[p.ref, `${p.ref}.${p.pins[0]!.pin}`] as const] : [])),
    );
    for (const [pin, net] of this.netOf) {
      if (net === undefined) continue;
      const on = this.#pinsOn.get(net);
      const one = { pin, ref: refOf(pin) };
      if (on) on.push(one);
      else this.#pinsOn.set(net, [one]);
    }
  }

  of(i: ReachingItem): Reach {
    const ends = [...i.drives, ...i.reads].map((n) => this.#single.get(n) ?? n);
    return {
      nets: new Set(ends.flatMap((n) => this.netOf.get(n) ?? [])),
      parts: new Set([...ends, ...i.through].map((n) => (this.netOf.has(n) ? refOf(n) : n))),
    };
  }

  /** Pins an item tests: on nets of it, of parts it names; net by net. */
  tests(i: ReachingItem): string[] {
    const { nets, parts } = this.of(i);
    return [...nets].flatMap((net) =>
      (this.#pinsOn.get(net) ?? []).flatMap(({ pin, ref }) => (parts.has(ref) ? [pin] : [])),
    );
  }
}
