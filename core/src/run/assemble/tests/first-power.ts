import { lettersOf } from "../../../bom/refs.ts";
import { type FirstPower, firstPower, type RailCard } from "../../../meet/first-power.ts";
import { netsOf } from "../../../meet/load-kinds.ts";
import { railLoads } from "../../../meet/loads.ts";
import { isLink } from "../../../meet/wiring.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import { type BoardWires, boardWires } from "./board-wires.ts";

/** Why somebody competent stands beside it, and what is seen to first. */
export interface PowerHazard {
  readonly kind: "mains" | "motion" | "heat" | "isolation" | "cell";
  /** What says so: a net, a part, a line. */
  readonly because: string;
  readonly do: string;
}

/** A link, strap or solder bridge before the first power: how it has to stand, or that nobody said it. */
export interface LinkToSet {
  readonly ref: string;
  /** Name of the position; none where nobody said which. */
  readonly position?: string;
  readonly joins?: readonly [string, string];
  /** What it does there. */
  readonly does: string;
  /** Why it must not stand so. */
  readonly hurts?: string;
}

/** What is done, read and held to when one board of a product is first powered. */
export interface FirstPowerCard extends FirstPower {
  readonly board: number;
  /** Connectors that stay empty, and parts that are not on yet, each with what it is. */
  readonly unplug: readonly { readonly ref: string; readonly what: string }[];
  /** Links as they have to stand before there is power. */
  readonly links: readonly LinkToSet[];
  readonly hazards: readonly PowerHazard[];
  /** Nothing is offered before somebody competent is named: the hazards that ask for it. */
  readonly isHeld: boolean;
  /** Where a rail is read, by its place in the list; a ground beside it. */
  readonly reads: readonly (string | undefined)[];
  readonly ground: string | undefined;
  /** What a part or a rail of it is called in a plan. */
  readonly called: (name: string) => string;
}

/** What is done about each. */
const CARE: Readonly<Record<PowerHazard["kind"], string>> = {
  mains:
    "Mains can kill: it stays disconnected, and a licensed person does or checks the first power-up under the local code.",
  heat: "Heaters stay disconnected; have a stop that works without the program.",
  motion: "What moves stays disconnected; have a stop that works without the program.",
  isolation:
    "What is switched stays disconnected: lamps stand in for it, and there is a stop that works without the program.",
  cell: "Leave the cell out until the rails are right; mind its polarity, never feed the board beside it, and watch its first charge: a shorted or overcharged cell burns.",
};
/** Words that say so. */
const SAID: readonly (readonly [PowerHazard["kind"], RegExp])[] = [
  ["mains", /\bmains\b|\b(1[012]\d|2[0-4]0|400) ?v ?ac\b/i],
  ["heat", /\bheat(er|ing)s?\b|\bkiln element/i],
  ["motion", /\bmotors?\b|\bservos?\b|\bsolenoids?\b|\bactuators?\b/i],
  ["isolation", /\brelays?\b|\bopto|\bisolat|\btriac|\bcontactors?\b/i],
];
const MAINS_NET = /^(MAINS|LIVE|NEUTRAL|PHASE|AC[_-]?[LN]|[LN][_-]AC|L_?IN|N_?IN|230V.*|115V.*)$/i;
const TOUCH_VOLTS = 50;

/** Parts that are such by what they are called. */
const LETTERS: Readonly<Record<string, PowerHazard["kind"]>> = {
  K: "isolation",
  RL: "isolation",
  RLY: "isolation",
  M: "motion",
  MOT: "motion",
  HTR: "heat",
};

/** What of a board wants somebody competent beside it; a cell wants care alone. */
function hazardsOf({ volts, wires, lineOf }: BoardWires, card: FirstPower): PowerHazard[] {
  const out = new Map<PowerHazard["kind"], PowerHazard>();
  const say = (kind: PowerHazard["kind"], because: string) => {
    if (!out.has(kind)) out.set(kind, { kind, because, do: CARE[kind] });
  };
  const read = (words: string, where: string) => {
    for (const [kind, is] of SAID) if (is.test(words)) say(kind, `${where}: ${words.trim()}`);
  };
  const nets = new Set(wires.parts.flatMap((p) => p.pins.flatMap((q) => q.name ?? [])));
  for (const net of nets) if (MAINS_NET.test(net)) say("mains", `the net ${net}`);
  for (const r of card.rails)
    if (r.volts !== undefined && Math.abs(r.volts) >= TOUCH_VOLTS) say("mains", `${r.name} of ${r.volts} V`);
  for (const [ref, l] of lineOf) {
    if (l.dnp) continue;
    read([l.valueText, l.description].join(" "), ref);
    const kind = LETTERS[lettersOf(ref)];
    if (kind) say(kind, ref);
  }
  for (const m of volts.meetings) read(m.row.other, m.row.ref);
  const cell = volts.power.rails.flatMap((r) => r.sources).find((x) => x.isCell);
  if (cell) say("cell", `${cell.ref} is a cell`);
  return [...out.values()];
}

/** Links that were described, as they are set for the version that is made, and those nobody described; a switch is not one. */
const linksToSet = ({ links, unset }: BoardWires["volts"]): LinkToSet[] => [
  ...links
    .filter((l) => l.part)
    .map(({ row, position, hurts }): LinkToSet => {
      const why = position && hurts[position.name];
      return {
        ref: row.ref,
        ...(position ? { position: position.name } : {}),
        ...(position?.joins ? { joins: position.joins } : {}),
        does: position?.does ?? row.positions.map((p) => p.does || p.name).join(", or "),
        ...(why ? { hurts: why } : {}),
      };
    }),
  ...unset.filter(isLink).map((p): LinkToSet => ({ ref: p.ref, does: "" })),
];

/**
 * The card for the first power-up of a board, worked out from its bill, nets and what is put onto it (needs N123, X11).
 * Nothing where its files name no pins, or none of its nets carries supply.
 */
export function firstPowerOf(doc: RunDocument, boardIndex: number): FirstPowerCard | undefined {
  const board = doc.boards[boardIndex];
  const b = board && boardWires(doc, board);
  if (!b || b.volts.power.rails.length === 0) return undefined;
  const { volts, wires, lineOf, partOf } = b;
  const card = firstPower(volts.power, railLoads(wires));
  const feeds = new Set(volts.power.rails.flatMap((r) => r.sources.map((s) => s.ref)));
  const other = new Map(volts.meetings.map((m) => [m.row.ref, m.row.other]));
  const late = [...lineOf].filter(([ref, l]) => !l.dnp && partOf(ref)?.fitAfter === "test");
  const hazards = hazardsOf(b, card);
  const grounds = new Set(wires.parts.flatMap(netsOf).filter((net) => wires.isGround(net)));
  const reads = card.rails.map((r) => b.pinOf(r.nets));
  // where nobody says what feeds a rail the supply goes onto its first pin: that connector is not left empty
  const fedAt = new Set(card.inputs.flatMap(({ rail }) => reads[rail] ?? []));
  const isFedAt = (ref: string) => [...fedAt].some((pin) => pin.startsWith(`${b.called(ref)}.`));
  return {
    ...card,
    board: boardIndex,
    unplug: [
      ...volts.connectors
        .filter((c) => !feeds.has(c.ref) && !isFedAt(c.ref))
        .map((c) => ({ ref: c.ref, what: other.get(c.ref) ?? lineOf.get(c.ref)?.valueText ?? "" })),
      ...late.map(([ref, l]) => ({ ref, what: `${l.valueText}, goes on after the test` })),
    ],
    links: linksToSet(volts),
    hazards,
    isHeld: hazards.some((h) => h.kind !== "cell") && !doc.assembly.competent,
    reads,
    ground: b.pinOf(grounds),
    called: b.called,
  };
}

const decimal = (x: number) => String(Number(x.toPrecision(4)));

/**
 * What of the card is read, as items of a test plan: each rail against ground before power, the current in stages, each
 * rail's volts. Rails whose volts are not known are left out; what is read where is taken from the nets.
 */
export function firstPowerItems(c: FirstPowerCard): Omit<TestItem, "id">[] {
  const at = (rail: number) => c.reads[rail];
  const absent = c.unplug.map((u) => c.called(u.ref));
  const ground = c.ground === undefined ? [] : [c.ground];
  const base = { drives: [], through: [], expect: "", absent } as const;
  const ohms = c.rails.flatMap((r, i): Omit<TestItem, "id">[] => {
    const pin = at(i);
    if (pin === undefined || r.leastOhm === undefined) return [];
    return [
      {
        ...base,
        name: `${c.called(r.name)} to ground`,
        state: "bare",
        reads: [pin, ...ground],
        expect: "it may climb while capacitors charge; swap the probes if it is low",
        minutes: 0.3,
        unit: "Ω",
        min: decimal(r.leastOhm),
        ...(r.mostOhm === undefined ? {} : { max: decimal(r.mostOhm) }),
        because: `at least ${decimal(r.volts!)} V / ${r.limitMa} mA${r.mostOhm === undefined ? "" : "; at most what its resistors let through"}`,
      },
    ];
  });
  const amps = c.inputs.flatMap(({ rail, stages }) => {
    const r = c.rails[rail]!;
    const pin = at(rail);
    return pin === undefined
      ? []
      : stages.map(
          (s): Omit<TestItem, "id"> => ({
            ...base,
            name: `${c.called(r.name)} at ${decimal(s.volts)} V`,
            state: "powered",
            drives: [pin],
            reads: [pin],
            expect: `supply at ${decimal(s.volts)} V, limited to ${r.limitMa} mA`,
            minutes: 0.3,
            unit: "mA",
            // what is known is drawn at the least, where the full volts are there and nothing is unknown
            ...(s.volts === r.volts && isRestKnown(c) && r.restMa > 0 ? { min: decimal(r.restMa / 2) } : {}),
            max: decimal(s.stopMa),
            because: s.volts === r.volts ? limitWords(r) : s.because,
          }),
        );
  });
  const volts = c.rails.flatMap((r, i): Omit<TestItem, "id">[] => {
    const pin = at(i);
    if (pin === undefined || r.volts === undefined || r.reads === undefined || r.over === undefined)
      return [];
    return [
      {
        ...base,
        name: `${c.called(r.name)} volts`,
        state: "powered",
        reads: [pin],
        through: r.by.map(c.called),
        minutes: 0.2,
        unit: "V",
        min: decimal(r.reads[0]),
        max: decimal(r.reads[1]),
        because: `${decimal(r.volts)} V${r.isByName ? " by its name" : ""} ± 5 %, as nobody says more`,
      },
    ];
  });
  return [...closed(c), ...ohms, ...amps, ...volts];
}

/** A closed link is next to nothing: more is one that was forgotten, or stands elsewhere. */
const CLOSED_OHM = "1";
const closed = (c: FirstPowerCard): Omit<TestItem, "id">[] =>
  c.links.flatMap(({ ref, position, joins, does, hurts }) =>
    joins === undefined || hurts !== undefined
      ? []
      : [
          {
            name: `${c.called(ref)} in ${position}`,
            state: "bare",
            drives: [`${c.called(ref)}.${joins[0]}`],
            reads: [`${c.called(ref)}.${joins[1]}`],
            through: [c.called(ref)],
            expect: does,
            absent: [],
            minutes: 0.2,
            unit: "Ω",
            max: CLOSED_OHM,
            because: "a link that is closed lets everything through",
          },
        ],
  );

/** Everything that draws is known at rest, none of it taken to be so. */
const isRestKnown = (c: FirstPowerCard): boolean =>
  c.rails.every((r) => r.unknown.length === 0 && r.own.loads.every((l) => !l.isRestTaken));

/** Where the limit of a rail comes from. */
export const limitWords = (r: RailCard): string =>
  r.unknown.length > 0
    ? `${r.restMa} mA are known, 20 mA are added to begin with: nothing is known of ${r.unknown.join(", ")}`
    : `${r.restMa} mA are expected at rest; half as much again, at least 10 mA more`;
