import { type Decoupled, decouplingOf } from "../../meet/decoupling.ts";
import { type Floating, floatsOf } from "../../meet/floats.ts";
import { judgeLink, type LinkStanding, maySet, railsByLinks } from "../../meet/links.ts";
import { powerMap } from "../../meet/power.ts";
import { judgeMeeting, type MeetRow, type MeetStanding } from "../../meet/row.ts";
import type { PowerMap, PowerSource } from "../../meet/supplies.ts";
import { isConnector, type WiredPart, wiringOf } from "../../meet/wiring.ts";
import { boardFor, type RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";

/** Rows of connectors and links whose board the product has no more. */
export const withoutBoard = (doc: RunDocument) => ({
  meetings: (doc.meetings ?? []).filter((row) => !boardFor(doc, row)),
  links: (doc.links ?? []).filter((row) => !boardFor(doc, row)),
});

const isOn = (doc: RunDocument, board: RunBoard) => (row: Pick<MeetRow, "board">) =>
  boardFor(doc, row)?.id === board.id;

/** What is known of a board beyond its millimetres: what meets what, what feeds what, what floats. */
export interface BoardVolts {
  /** The files name nets and pins; without them nothing can be said. */
  readonly isNamed: boolean;
  readonly connectors: readonly WiredPart[];
  readonly meetings: readonly MeetStanding[];
  /** Links as they are set for the version that is made. */
  readonly links: readonly LinkStanding[];
  /** Parts that may be set by hand and that nobody described. */
  readonly unset: readonly WiredPart[];
  readonly power: PowerMap;
  readonly floats: readonly Floating[];
  /** Capacitors that stand by each chip's supply. */
  readonly decoupling: readonly Decoupled[];
}

/** What feeds a board from outside: a supply of what is put onto one of its connectors, where it meets it as meant. */
const sourcesOf = (meetings: readonly MeetStanding[]): PowerSource[] =>
  meetings.flatMap(({ part, ours, row, modes }) => {
    if (!part) return [];
    const theirs = new Map(row.theirs.map((p) => [p.pin, p]));
    const met = new Map((modes[0]?.pairs ?? []).map((m) => [m.ours, m.theirs]));
    return part.pins.flatMap((p): PowerSource[] => {
      const other = theirs.get(met.get(p.pin) ?? "");
      // a contact over which this board feeds the other side is no source of its own
      if (other?.kind !== "supply" || ours.find((o) => o.pin === p.pin)?.kind === "supply") return [];
      const volts = other.volts === undefined ? {} : { volts: other.volts };
      return [{ ref: row.ref, pin: p.pin, net: p.net, what: row.other, isCell: false, ...volts }];
    });
  });

interface Kept {
  readonly lines: RunDocument["lines"];
  readonly rows: RunDocument["meetings"];
  readonly links: RunDocument["links"];
  readonly variant: string | undefined;
  readonly volts: BoardVolts;
}
// a run is rolled up for every option there is; none of them changes a net
const kept = new WeakMap<object, Kept>();

/** What is known of a board's volts. Parts that are not fitted hold nothing and feed nothing. */
export function voltsOn(doc: RunDocument, board: RunBoard): BoardVolts {
  const old = kept.get(board.measure);
  const { lines, meetings: rows, links } = doc;
  const { variant } = doc.choices;
  if (old && old.lines === lines && old.rows === rows && old.links === links && old.variant === variant)
    return old.volts;
  const volts = found(doc, board);
  kept.set(board.measure, { lines, rows, links, variant, volts });
  return volts;
}

function found(doc: RunDocument, board: RunBoard): BoardVolts {
  const lines = doc.lines.filter((l) => l.board === undefined || l.board === board.id);
  const lineOf = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const all = wiringOf(board.measure);
  const fitted = all.filter((p) => !lineOf.get(p.ref)?.dnp);
  const links = (doc.links ?? [])
    .filter(isOn(doc, board))
    .map((row) => judgeLink(row, fitted, doc.choices.variant));
  const byLinks = railsByLinks(links);
  const meetings = (doc.meetings ?? [])
    .filter(isOn(doc, board))
    .map((row) => judgeMeeting(row, board.measure, byLinks));
  const described = new Set(links.map((l) => l.row.ref));
  return {
    isNamed: all.length > 0,
    connectors: all.filter(isConnector),
    meetings,
    links,
    unset: fitted.filter((p) => maySet(p) && !described.has(p.ref)),
    power: powerMap(fitted, sourcesOf(meetings), (ref) => lineOf.get(ref)?.valueText ?? ""),
    decoupling: decouplingOf(fitted),
    floats: floatsOf(fitted, (ref) => ({
      value: lineOf.get(ref)?.valueText ?? "",
      description: [lineOf.get(ref)?.description, lineOf.get(ref)?.mpn].filter(Boolean).join(" "),
    })),
  };
}
