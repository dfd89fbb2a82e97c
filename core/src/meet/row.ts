import type { Measure } from "../board/measure-document.ts";
import { railOf } from "../netlist/rails.ts";
import { MEET_MODES } from "../shape/meeting.ts";
import { type Meeting, type MeetMode, type MetMode, meetTables, type Pin } from "./meet.ts";
import { type WiredPart, type WiredPin, wiringOf } from "./wiring.ts";

/** A connector of a product's board and what is put onto it; judged in every run of the product. */
export interface MeetRow extends Meeting {
  readonly id: string;
  /** Name of the board it is on, where the product has several. */
  readonly board?: string;
  /** Reference of the connector. */
  readonly ref: string;
  /** What the other side is called. */
  readonly other: string;
  /** Ways in which it cannot be put in, and by what. */
  readonly stopped: readonly MeetMode[];
  readonly stopBy: string;
  /** What the other side gives at the most, mA in all. */
  readonly givesMa?: number;
}

/** A row held against the board as it is now. */
export interface MeetStanding {
  readonly row: MeetRow;
  /** The connector on the board; none where the files name no such part. */
  readonly part: WiredPart | undefined;
  /** Ours as the board has it, with what is known of each pin. */
  readonly ours: readonly Pin[];
  readonly modes: readonly MetMode[];
  /** Pins of the board nobody described, and described ones the board has not. */
  readonly open: readonly string[];
  /** Pins that a link puts on a rail: what they are is taken from that rail's name. */
  readonly byLink: readonly Pin[];
  readonly gone: readonly string[];
  /** The worst that may happen by what nothing stops. */
  readonly verdict: MetMode["verdict"];
}

const WORST: readonly MetMode["verdict"][] = ["damage", "unknown", "idle", "fine"];

/** Nets that a link puts on a rail: the rail's name, and which link. */
export type ByLinks = ReadonlyMap<number, { readonly name: string; readonly by: string }>;

/**
 * What is known of the pins of a part: what was said of each, on the net the board has it on. A pin of which only its volts
 * hang on a link is ground or a supply as that link is set.
 */
function pinsNow(part: WiredPart, said: readonly Pin[], links: ByLinks): Pin[] {
  const known = new Map(said.map((p) => [p.pin, p]));
  // places go by the list where pins have no numbers: in the order in which they were said
  const order = new Map(said.map((p, i) => [p.pin, i]));
  const at = (p: WiredPin) => order.get(p.pin) ?? said.length;
  return [...part.pins]
    .sort((a, b) => at(a) - at(b))
    .map(({ pin, name, net }) => {
      const { net: _, ...facts } = known.get(pin) ?? { pin };
      const link = facts.kind === undefined ? links.get(net) : undefined;
      if (link)
        return { ...facts, ...proposedPin({ pin, name: link.name }), net: `${link.name} by ${link.by}` };
      return { ...facts, ...(name === undefined ? {} : { net: name }) };
    });
}

/** Holds a row against the board: nets are the board's, what nobody described is not known. */
export function judgeMeeting(
  row: MeetRow,
  measure: Pick<Measure, "nets">,
  links: ByLinks = new Map(),
): MeetStanding {
  const part = wiringOf(measure).find((p) => p.ref === row.ref);
  const ours = part ? pinsNow(part, row.ours, links) : row.ours;
  const has = new Set(ours.map((p) => p.pin));
  // what is meant names pins that may be gone meanwhile
  const meant = row.meant?.filter(([a, b]) => has.has(a) && row.theirs.some((t) => t.pin === b));
  const { rows, numbering, theirs } = row;
  const modes = meetTables({
    ours,
    theirs,
    // a single row with its rows exchanged is one that is turned
    modes: rows === 2 ? MEET_MODES : MEET_MODES.filter((m) => m !== "mirrored"),
    ...(meant ? { meant } : {}),
    ...(rows ? { rows } : {}),
    ...(numbering ? { numbering } : {}),
  });
  const may = modes.filter((m) => !row.stopped.includes(m.mode));
  const [asMeant] = modes;
  const wrong = may.filter((m) => m.mode !== "meant" && m.verdict === "damage");
  const verdict = wrong.length > 0 ? "damage" : (WORST.find((v) => asMeant!.verdict === v) ?? "unknown");
  return {
    row,
    part,
    ours,
    modes,
    open: part ? ours.filter((p) => p.kind === undefined).map((p) => p.pin) : [],
    byLink: part
      ? ours.filter((p) => row.ours.every((q) => q.pin !== p.pin || q.kind === undefined) && p.kind)
      : [],
    gone: part ? row.ours.filter((p) => !has.has(p.pin)).map((p) => p.pin) : [],
    verdict,
  };
}

const VOLTS = /^\+?V?(\d{1,3})(?:[V.](\d{1,2}))?V?$/;
/** The volts a supply's name says: 3.3 of "+3V3", "3.3V", "V33"; 12 of "12V", "V12"; nothing of "VCC". It is what people mean by it, not what is there. */
export function voltsOfName(name: string): number | undefined {
  const word = name
    .slice(name.lastIndexOf("/") + 1)
    .trim()
    .toUpperCase();
  const m = VOLTS.exec(word.replace(/^P(?=\d)/, "+"));
  if (!m) return undefined;
  // "V33" is volts and tenths without a point; "V18" and "V25" may be either
  if (word === "V33") return 3.3;
  if (m[2] === undefined && /^V(18|25)$/.test(word)) return undefined;
  return Number(m[2] === undefined ? m[1] : `${m[1]}.${m[2]}`);
}

/** What a pin may be by the name of its net: to be confirmed, and never more than the name says. */
export function proposedPin({ pin, name }: Pick<WiredPin, "pin" | "name">): Pin {
  const rail = name === undefined ? undefined : railOf(name);
  const net = name === undefined ? {} : { net: name };
  if (rail === "ground") return { pin, kind: "ground", ...net };
  const volts = rail === "supply" ? voltsOfName(name!) : undefined;
  if (rail === "supply") return { pin, kind: "supply", ...(volts === undefined ? {} : { volts }), ...net };
  return { pin, ...net };
}
