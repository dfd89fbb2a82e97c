import { both, type DataShape, fields, list, maybe, number, oneOf, text, tuple } from "./shape.ts";

/** What a contact is, by what drives it. */
export const PIN_KINDS = ["supply", "ground", "output", "input", "both", "passive", "open"] as const;
/** How two rows of contacts are numbered; a single row counts along itself. */
export const NUMBERINGS = ["line", "zigzag", "ring"] as const;
/** How the other side may be put in. */
export const MEET_MODES = ["meant", "turned", "mirrored", "shifted"] as const;
/** Contacts of one side. */
export const MOST_PINS = 500;

const volts = number(-10_000, 10_000);

const PIN = {
  pin: text(80, 1),
  volts: maybe(volts),
  takesV: maybe((v: unknown, path: string) => {
    const wrong = tuple(volts, volts)(v, path);
    if (wrong) return wrong;
    const [least, most] = v as [number, number];
    return least > most ? `${path} takes from ${least} to ${most} V, which is nothing` : undefined;
  }),
  net: maybe(text(200)),
};
const kind = oneOf(...PIN_KINDS);
/** One contact of a connector; in a table that is being made it may not be known yet what it is. */
const pinShape: DataShape = fields({ ...PIN, kind });
const tablePinShape: DataShape = fields({ ...PIN, kind: maybe(kind) });

/** Two rows of contacts and how they are put together; what the list names must be there, each pin of a side once. */
const sides = (pin: DataShape) => ({
  ours: list(pin, MOST_PINS, 1),
  theirs: list(pin, MOST_PINS, 1),
  meant: maybe(list(tuple(text(80, 1), text(80, 1)), 2 * MOST_PINS)),
  rows: maybe(oneOf(1, 2)),
  numbering: maybe(oneOf(...NUMBERINGS)),
});

/** The document of the command line. */
export const meetShape: DataShape = both(
  fields({ ...sides(pinShape), modes: maybe(list(oneOf(...MEET_MODES), MEET_MODES.length, 1)) }),
  agreed,
);
const SPEC = {
  ...sides(tablePinShape),
  /** Ways of putting it in that something stops, and what does. */
  stopped: list(oneOf("turned", "mirrored", "shifted"), 3),
  stopBy: text(200),
  /** What the other side gives at the most, mA in all. */
  givesMa: maybe(number(0, 1e6)),
};
/** What is kept of a connector and what is put onto it. */
export const meetSpecShape: DataShape = both(fields(SPEC), agreed);
/** As it stands in a run's document. */
export const meetRowShape: DataShape = both(
  fields({ id: text(80, 1), board: maybe(text(200)), ref: text(80, 1), other: text(120, 1), ...SPEC }),
  agreed,
);

function agreed(v: unknown, path: string): string | undefined {
  const m = v as {
    ours: readonly { pin: string }[];
    theirs: readonly { pin: string }[];
    meant?: readonly (readonly [string, string])[];
    rows?: number;
    numbering?: string;
  };
  const under = path === "" ? "" : `${path}.`;
  const sets = (["ours", "theirs"] as const).map((side) => {
    const seen = new Set<string>();
    for (const { pin } of m[side]) {
      if (seen.has(pin)) return `${under}${side} has pin ${pin} twice`;
      seen.add(pin);
    }
    return seen;
  });
  for (const s of sets) if (typeof s === "string") return s;
  const [ours, theirs] = sets as Set<string>[];
  for (const [a, b] of m.meant ?? []) {
    if (!ours!.has(a)) return `${under}meant names pin ${a}, which ours has not`;
    if (!theirs!.has(b)) return `${under}meant names pin ${b}, which theirs has not`;
  }
  if (m.rows === 2 && (m.numbering ?? "line") === "line")
    return `${under}numbering of two rows is zigzag or ring`;
  return undefined;
}
