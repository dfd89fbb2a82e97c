import { numberKey } from "../../../bom/number.ts";
import { partsByNumber } from "../../../library/candidates.ts";
import { type FirstPower, firstPower, type RailCard } from "../../../meet/first-power.ts";
import { railLoads } from "../../../meet/loads.ts";
import { type WiredPart, wiringOf } from "../../../meet/wiring.ts";
import { railOf } from "../../../netlist/rails.ts";
import type { RunBoard } from "../../document/boards.ts";
import type { RunDocument, TestItem } from "../../document/document.ts";
import { reachOf } from "../../document/wired.ts";
import { voltsOn } from "../../stage/meetings.ts";

/** Why somebody competent stands beside it, and what is seen to first. */
export interface PowerHazard {
  readonly kind: "mains" | "motion" | "heat" | "isolation" | "cell";
  /** What says so: a net, a part, a line. */
  readonly because: string;
  readonly do: string;
}

/** What is done, read and held to when one board of a product is first powered. */
export interface FirstPowerCard extends FirstPower {
  readonly board: number;
  /** Connectors that stay empty, and parts that are not on yet, each with what it is. */
  readonly unplug: readonly { readonly ref: string; readonly what: string }[];
  readonly hazards: readonly PowerHazard[];
  /** Nothing is offered before somebody competent is named: the hazards that ask for it. */
  readonly isHeld: boolean;
  /** Where a rail is read, by its place in the list; a ground beside it. */
  readonly reads: readonly (string | undefined)[];
  readonly ground: string | undefined;
  /** What its parts are called by beside their reference, where the product has several boards. */
  readonly of: string;
}

const CANDID: readonly (readonly [PowerHazard["kind"], RegExp, string])[] = [
  [
    "mains",
    /\bmains\b|\b(1[012]\d|2[0-4]0|400) ?v ?ac\b/i,
    "Mains can kill: it stays disconnected, and a licensed person does or checks the first power-up under the local code.",
  ],
  [
    "heat",
    /\bheat(er|ing)s?\b|\bkiln element/i,
    "Heaters stay disconnected; have a stop that works without the program.",
  ],
  [
    "motion",
    /\bmotors?\b|\bservos?\b|\bsolenoids?\b|\bactuators?\b/i,
    "What moves stays disconnected; have a stop that works without the program.",
  ],
  [
    "isolation",
    /\brelays?\b|\bopto|\bisolat|\btriac|\bcontactors?\b/i,
    "What is switched stays disconnected: lamps stand in for it, and there is a stop that works without the program.",
  ],
];
const MAINS_NET = /^(MAINS|LIVE|NEUTRAL|PHASE|AC[_-]?[LN]|[LN][_-]AC|L_?IN|N_?IN|230V.*|115V.*)$/i;
const TOUCH_VOLTS = 50;

/** What of a board wants somebody competent beside it; a cell wants care alone. */
function hazardsOf(
  doc: RunDocument,
  board: RunBoard,
  card: FirstPower,
  parts: readonly WiredPart[],
): PowerHazard[] {
  const out = new Map<PowerHazard["kind"], PowerHazard>();
  const say = (kind: PowerHazard["kind"], because: string) => {
    const words = CANDID.find(([k]) => k === kind)?.[2];
    if (!out.has(kind)) out.set(kind, { kind, because, do: words ?? "" });
  };
  const nets = new Set(parts.flatMap((p) => p.pins.flatMap((q) => q.name ?? [])));
  for (const net of nets) if (MAINS_NET.test(net)) say("mains", `the net ${net}`);
  for (const r of card.rails)
    if (r.volts !== undefined && Math.abs(r.volts) >= TOUCH_VOLTS) say("mains", `${r.name} of ${r.volts} V`);
  for (const l of doc.lines) {
    if (l.dnp || (l.board !== undefined && l.board !== board.id)) continue;
    const said = [l.valueText, l.description].join(" ");
    for (const [kind, is] of CANDID) if (is.test(said)) say(kind, `${l.refs[0] ?? "a line"}: ${said.trim()}`);
  }
  for (const m of voltsOn(doc, board).meetings)
    for (const [kind, is] of CANDID) if (is.test(m.row.other)) say(kind, `${m.row.ref}: ${m.row.other}`);
  const cell = voltsOn(doc, board)
    .power.rails.flatMap((r) => r.sources)
    .find((s) => s.isCell);
  if (cell)
    out.set("cell", {
      kind: "cell",
      because: `${cell.ref} is a cell`,
      do: "Leave the cell out until the rails are right; mind its polarity, never feed the board beside it, and watch its first charge: a shorted or overcharged cell burns.",
    });
  return [...out.values()];
}

/**
 * The card for the first power-up of a board, worked out from its bill, nets and what is put onto it (needs N123, X11).
 * Nothing where its files name no pins, or nothing is known that could feed it.
 */
export function firstPowerOf(doc: RunDocument, boardIndex: number): FirstPowerCard | undefined {
  const board = doc.boards[boardIndex];
  if (!board) return undefined;
  const v = voltsOn(doc, board);
  if (!v.isNamed || v.power.rails.length === 0) return undefined;
  const lines = doc.lines.filter((l) => l.board === undefined || l.board === board.id);
  const lineOf = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const library = partsByNumber(doc.library ?? []);
  const partOf = (ref: string) => library.get(numberKey(lineOf.get(ref)?.mpn ?? ""));
  const words = (ref: string) => {
    const l = lineOf.get(ref);
    return l ? [l.valueText, l.description].filter(Boolean).join(", ") : "";
  };
  const parts = wiringOf(board.measure).filter((p) => !lineOf.get(p.ref)?.dnp);
  const loads = railLoads(parts, v.power, {
    drawsOf: (ref) => partOf(ref) ?? {},
    valueOf: (ref) => lineOf.get(ref)?.valueText ?? "",
    wordsOf: words,
  });
  const card = firstPower(v.power, loads);
  const feeds = new Set(v.power.rails.flatMap((r) => r.sources.map((s) => s.ref)));
  const other = new Map(v.meetings.map((m) => [m.row.ref, m.row.other]));
  const late = lines.filter((l) => !l.dnp && library.get(numberKey(l.mpn))?.fitAfter === "test");
  const hazards = hazardsOf(doc, board, card, parts);
  const pinsOf = (nets: ReadonlySet<number>) =>
    parts
      .flatMap((p) => p.pins.filter((q) => nets.has(q.net)).map((q) => `${p.ref}.${q.pin}`))
      .sort((a, b) => reachOf(a) - reachOf(b));
  const of = doc.boards.length > 1 ? ` of ${board.name}` : "";
  const named = (pin: string | undefined) =>
    pin && `${pin.slice(0, pin.lastIndexOf("."))}${of}${pin.slice(pin.lastIndexOf("."))}`;
  const grounds = new Set(
    parts.flatMap((p) => p.pins.flatMap((q) => (railOf(q.name ?? "") === "ground" ? [q.net] : []))),
  );
  return {
    ...card,
    board: boardIndex,
    unplug: [
      ...v.connectors.flatMap((c) =>
        feeds.has(c.ref)
          ? []
          : [{ ref: c.ref, what: other.get(c.ref) ?? lineOf.get(c.ref)?.valueText ?? "" }],
      ),
      ...late.flatMap((l) => l.refs.map((ref) => ({ ref, what: `${l.valueText}, goes on after the test` }))),
    ],
    hazards,
    isHeld: hazards.some((h) => h.kind !== "cell") && !doc.assembly.competent,
    reads: card.rails.map((r) => named(pinsOf(new Set(r.nets))[0])),
    ground: named(pinsOf(grounds)[0]),
    of,
  };
}

/** Volts a rail may be off by where nobody says more. */
const RAIL_SPREAD = 0.05;
const decimal = (x: number) => String(Number(x.toPrecision(4)));

/**
 * What of the card is read, as items of a test plan: each rail against ground before power, the current in stages, each
 * rail's volts. Rails whose volts are not known are left out; what is read where is taken from the nets.
 */
export function firstPowerItems(c: FirstPowerCard): Omit<TestItem, "id">[] {
  const at = (rail: number) => c.reads[rail];
  const absent = c.unplug.map((u) => u.ref);
  const ground = c.ground === undefined ? [] : [c.ground];
  const base = { drives: [], through: [], expect: "", absent } as const;
  const ohms = c.rails.flatMap((r, i): Omit<TestItem, "id">[] => {
    const pin = at(i);
    if (pin === undefined || r.leastOhm === undefined) return [];
    return [
      {
        ...base,
        name: `${r.name} to ground`,
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
            name: `${r.name} at ${decimal(s.volts)} V`,
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
    if (pin === undefined || r.volts === undefined || r.over === undefined) return [];
    return [
      {
        ...base,
        name: `${r.name} volts`,
        state: "powered",
        reads: [pin],
        through: r.by.map((ref) => `${ref}${c.of}`),
        minutes: 0.2,
        unit: "V",
        min: decimal(r.volts - RAIL_SPREAD * Math.abs(r.volts)),
        max: decimal(r.volts + RAIL_SPREAD * Math.abs(r.volts)),
        because: `${decimal(r.volts)} V${r.isByName ? " by its name" : ""} ± ${100 * RAIL_SPREAD} %, as nobody says more`,
      },
    ];
  });
  return [...ohms, ...amps, ...volts];
}

/** Everything that draws is known at rest, none of it taken to be so. */
const isRestKnown = (c: FirstPowerCard): boolean =>
  c.rails.every((r) => r.unknown.length === 0 && r.own.loads.every((l) => !l.isRestTaken));

/** Where the limit of a rail comes from. */
export const limitWords = (r: RailCard): string =>
  r.unknown.length > 0
    ? `${r.restMa} mA are known and 20 are added to begin with: of ${r.unknown.join(", ")} nothing is known`
    : `${r.restMa} mA at rest, half as much again, at least 10 mA more`;
