import type { DefectClass } from "../shape/defects.ts";

/** What a board may suffer from: a class of faults, or something that is not the board's at all. */
export type CauseKind = DefectClass | "outside";

/** Something that may be why, with the one thing that is changed or measured to know. */
export interface Cause {
  readonly key: string;
  readonly kind: CauseKind;
  readonly words: string;
  readonly check: string;
  readonly minutes: number;
  /** Of all that may be why, before anything of this shop is known. */
  readonly prior: number;
}

const cause = (
  key: string,
  kind: CauseKind,
  prior: number,
  minutes: number,
  words: string,
  check: string,
): Cause => ({ key, kind, prior, minutes, words, check });

/**
 * What people see of a board that does not do as it should, each with what may be why (needs N129, N131). The shares are
 * Kobbin's own, for hand-built boards; what the shop writes down outweighs them.
 */
export const SYMPTOMS = {
  dead: {
    words: "nothing at all",
    causes: [
      cause(
        "supply",
        "outside",
        0.3,
        1,
        "no supply reaches it",
        "volts at its own contacts, and the limit that is set",
      ),
      cause(
        "way",
        "joint",
        0.3,
        3,
        "a joint in the way of the supply is open",
        "volts step by step: contact, fuse, diode, before and behind the regulator",
      ),
      cause(
        "turned",
        "placement",
        0.12,
        1,
        "a part in the way sits the wrong way round",
        "each part in the way, with the lens",
      ),
      cause("gone", "part", 0.12, 3, "a fuse or a regulator is gone", "volts before it and none behind"),
      cause(
        "empty",
        "process",
        0.16,
        2,
        "nothing is loaded, or it stops at once",
        "load it again and have it verified",
      ),
    ],
  },
  hungry: {
    words: "draws far too much",
    causes: [
      cause("beside", "outside", 0.2, 1, "what is plugged in draws it", "unplug everything but the supply"),
      cause(
        "turned",
        "placement",
        0.3,
        1,
        "a part sits the wrong way round",
        "everything with a direction, with the lens",
      ),
      cause(
        "bridge",
        "joint",
        0.35,
        4,
        "a bridge",
        "ohms of each rail without power; then, at a low limit, what gets warm first",
      ),
      cause(
        "short",
        "board",
        0.05,
        2,
        "the bare board is shorted",
        "a bare board of the same delivery, rail against ground",
      ),
      cause("part", "part", 0.1, 8, "a part is shorted inside", "lift it off its rail: the current falls"),
    ],
  },
  restarts: {
    words: "starts and stops again and again",
    causes: [
      cause("weak", "outside", 0.3, 2, "the supply gives way", "another supply, short leads"),
      cause(
        "joint",
        "joint",
        0.3,
        4,
        "a joint at reset, clock or a capacitor of the rail",
        "volts of rail and reset while it is touched with wood",
      ),
      cause("program", "process", 0.25, 3, "the program, or its settings", "one that runs on a good board"),
      cause("part", "part", 0.1, 10, "a part", "exchange it for one of a good board"),
      cause("design", "design", 0.05, 15, "the design", "three boards alike under the same load"),
    ],
  },
  mute: {
    words: "one input, output or lamp does nothing",
    causes: [
      cause("joint", "joint", 0.5, 3, "a joint of it is open", "ohms from pin to pin along its way"),
      cause(
        "turned",
        "placement",
        0.2,
        1,
        "its part is missing, wrong or the wrong way round",
        "the part and its marks, with the lens",
      ),
      cause("program", "process", 0.15, 2, "the program does not use it", "the same program on a good board"),
      cause("part", "part", 0.1, 8, "its part is dead", "exchange it"),
      cause("beside", "outside", 0.05, 1, "what hangs there", "another lamp, key or lead"),
    ],
  },
  silent: {
    words: "a bus or a chip does not answer",
    causes: [
      cause(
        "joint",
        "joint",
        0.4,
        3,
        "a joint of the bus is open or bridged",
        "ohms along each line, then line against line",
      ),
      cause("other", "outside", 0.15, 2, "the other end", "the same lead with a board that answers"),
      cause(
        "program",
        "process",
        0.2,
        2,
        "the program: address, speed, pins",
        "one that runs on a good board",
      ),
      cause(
        "turned",
        "placement",
        0.15,
        1,
        "the chip is another or sits the wrong way round",
        "its marks and pin 1, with the lens",
      ),
      cause("part", "part", 0.1, 10, "the chip is dead", "exchange it for one of a good board"),
    ],
  },
  wrong: {
    words: "reads wrong, but steadily",
    causes: [
      cause(
        "value",
        "placement",
        0.35,
        3,
        "a part of another value",
        "marks and values along the way, against the bill",
      ),
      cause(
        "constants",
        "process",
        0.25,
        1,
        "constants of another board, or none",
        "what was given to this one",
      ),
      cause("dirt", "joint", 0.2, 10, "flux between fine joints", "wash, dry, read again"),
      cause(
        "meter",
        "outside",
        0.1,
        2,
        "what it is held against",
        "the same meter and source on a good board",
      ),
      cause("part", "part", 0.1, 10, "a part out of its limits", "exchange it for one of a good board"),
    ],
  },
  unsteady: {
    words: "reads unsteadily",
    causes: [
      cause(
        "around",
        "outside",
        0.3,
        2,
        "supply, leads or lamps around it",
        "another supply, leads twisted, lamps off",
      ),
      cause("joint", "joint", 0.35, 3, "a joint that only touches", "press gently with wood while it reads"),
      cause("design", "design", 0.2, 15, "the design", "three boards alike in the same place"),
      cause("part", "part", 0.15, 10, "a part", "exchange it for one of a good board"),
    ],
  },
  chain: {
    words: "a chain is dark from one on",
    causes: [
      cause(
        "between",
        "joint",
        0.55,
        2,
        "the joint between the last that is lit and the first that is dark",
        "ohms from the one's way out to the other's way in",
      ),
      cause(
        "turned",
        "placement",
        0.15,
        1,
        "the first dark one sits the wrong way round",
        "its corner, with the lens",
      ),
      cause(
        "first",
        "part",
        0.2,
        4,
        "the first dark one, or the last lit, is dead",
        "lead the signal past it",
      ),
      cause("volts", "outside", 0.1, 1, "too few volts at the far end", "volts there, all of them lit"),
    ],
  },
  touchy: {
    words: "works when it is pressed, bent or warm",
    causes: [
      cause(
        "joint",
        "joint",
        0.7,
        4,
        "a cold or open joint",
        "press part by part with wood, then melt that joint anew",
      ),
      cause("crack", "part", 0.15, 3, "a part is cracked", "chips near edges and screws, with the lens"),
      cause(
        "via",
        "board",
        0.1,
        4,
        "a hole or a track of the bare board",
        "ohms along the way while it is bent a little",
      ),
      cause("plug", "outside", 0.05, 1, "the plug", "another lead"),
    ],
  },
  locked: {
    words: "cannot be loaded",
    causes: [
      cause(
        "lead",
        "outside",
        0.35,
        1,
        "lead, tool or its settings",
        "a board that was loaded before, on the same lead",
      ),
      cause(
        "joint",
        "joint",
        0.3,
        3,
        "a joint between its contacts and the chip",
        "ohms from each contact to its pin",
      ),
      cause(
        "guard",
        "process",
        0.15,
        2,
        "it is locked, or clocked otherwise",
        "ask for its name, erase all of it",
      ),
      cause(
        "turned",
        "placement",
        0.1,
        1,
        "the chip is another or sits the wrong way round",
        "its marks and pin 1, with the lens",
      ),
      cause("part", "part", 0.1, 12, "the chip is dead", "exchange it"),
    ],
  },
  mended: {
    words: "was right before it was mended",
    causes: [
      cause(
        "near",
        "joint",
        0.55,
        2,
        "a bridge or an open joint near the place",
        "the place and what lies beside it, with lens and ohms",
      ),
      cause("pad", "board", 0.1, 2, "a pad came off", "ohms from the pin to where its track goes"),
      cause("dirt", "process", 0.15, 6, "flux that was left", "wash, dry, try again"),
      cause("heat", "part", 0.2, 10, "a part did not stand the heat", "exchange what was heated"),
    ],
  },
} as const satisfies Record<string, { readonly words: string; readonly causes: readonly Cause[] }>;
export type Symptom = keyof typeof SYMPTOMS;
export const isSymptom = (key: string): key is Symptom => Object.hasOwn(SYMPTOMS, key);

/** What the priors count as, in faults: so many of the shop's own weigh as much as they do. */
export const PRIOR_FAULTS = 10;
/** A further board with the same symptom makes what befalls boards one by one so much less likely. */
export const ALIKE = 0.2;
/** What befalls boards one by one; the rest befalls all of a batch alike. */
const SINGLE: ReadonlySet<CauseKind> = new Set(["joint", "placement", "part"]);

/** A cause as it stands now. */
export interface RankedCause extends Cause {
  /** Of all that is not ruled out, 0 to 1. */
  readonly share: number;
  /** The shop's own faults of its class that count in it. */
  readonly own: number;
  /** Minutes until it is known, with what is looked at before it. */
  readonly after: number;
}

/**
 * What may be why, in the order that finds it soonest on average: by share over minutes, which no other order of looks that
 * tell for certain beats (exchange of neighbours; recalled). Shares are a Dirichlet's means: ten faults spread by the
 * priors, and the shop's own faults of a class spread over its causes by theirs; where k boards fail alike, what befalls
 * boards one by one weighs 0.2^(k − 1).
 *
 * @param own the shop's faults by class
 * @param alike boards that fail in the same way, this one among them
 * @param not keys of causes that were looked at and are not it
 * @returns what is left, the next look first; empty where everything is ruled out
 */
export function rankedCauses(
  symptom: Symptom,
  own: Readonly<Partial<Record<DefectClass, number>>>,
  alike = 1,
  not: ReadonlySet<string> = new Set(),
): RankedCause[] {
  const all: readonly Cause[] = SYMPTOMS[symptom].causes;
  const of = (kind: CauseKind) => all.filter((c) => c.kind === kind).reduce((n, c) => n + c.prior, 0);
  const left = all
    .filter((c) => !not.has(c.key))
    .map((c) => {
      const seen = c.kind === "outside" ? 0 : ((own[c.kind] ?? 0) * c.prior) / of(c.kind);
      const befalls = SINGLE.has(c.kind) ? ALIKE ** (Math.max(1, alike) - 1) : 1;
      return { c, seen, weight: (PRIOR_FAULTS * c.prior + seen) * befalls };
    });
  const total = left.reduce((n, l) => n + l.weight, 0);
  let after = 0;
  return left
    .sort((a, b) => b.weight / b.c.minutes - a.weight / a.c.minutes)
    .map(({ c, seen, weight }) => {
      after += c.minutes;
      return { ...c, share: weight / total, own: seen, after };
    });
}

/** Minutes until it is found, in the middle, when one looks in this order. */
export const minutesToFind = (ranked: readonly Pick<RankedCause, "share" | "after">[]): number =>
  ranked.reduce((n, r) => n + r.share * r.after, 0);
