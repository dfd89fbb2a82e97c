import type { MeetBody } from "@kobbin/contract";
import {
  boardFor,
  isConnector,
  type MeetRow,
  type Numbering,
  type Pin,
  type PinKind,
  proposedPin,
  type RunDocument,
  readRange,
  readVolts,
  type WiredPart,
  wiringOf,
} from "@kobbin/core";

/** A pin as it stands in the form: everything as it was typed. */
export interface DraftPin {
  readonly pin: string;
  readonly net: string;
  readonly kind: PinKind | "";
  readonly volts: string;
  readonly takes: string;
  /** Of theirs: our pin it is meant for; empty for none. */
  readonly to: string;
  /** What it is was taken from the net's name and not looked at yet. */
  readonly isProposed: boolean;
}
export interface MeetDraft {
  readonly ref: string;
  readonly other: string;
  readonly ours: readonly DraftPin[];
  readonly theirs: readonly DraftPin[];
  readonly rows: 1 | 2;
  readonly numbering: Numbering;
  readonly stopped: MeetRow["stopped"];
  readonly stopBy: string;
  /** mA, as typed. */
  readonly gives: string;
}

export const KIND_WORDS: readonly (readonly [PinKind | "", string])[] = [
  ["", "?"],
  ["supply", "gives supply"],
  ["ground", "ground"],
  ["input", "takes"],
  ["output", "output"],
  ["both", "in/out"],
  ["passive", "passive"],
  ["open", "open"],
];

const EMPTY = { net: "", kind: "", volts: "", takes: "", to: "", isProposed: false } as const;
const typed = (v: number | undefined, unit = "") => (v === undefined ? "" : `${v}${unit}`);
const draftPin = (p: Pin, more: Partial<DraftPin> = {}): DraftPin => ({
  ...EMPTY,
  pin: p.pin,
  net: p.net ?? "",
  kind: p.kind ?? "",
  volts: typed(p.volts),
  takes: p.takesV ? `${p.takesV[0]}…${p.takesV[1]}` : "",
  ...more,
});

/** A letter a side, as card edges have it: down one side and up the other, so that equal numbers lie opposite. */
const lettered = (part: WiredPart) => part.pins.every((p) => /^[AB]\d+$/.test(p.pin));
const downAndUp = (part: WiredPart) => {
  const side = (letter: string) => part.pins.filter((p) => p.pin.startsWith(letter));
  return [...side("A"), ...side("B").reverse()];
};

/** A connector nobody described yet: its pins, what their nets' names say, and as many of the other side. */
export function newDraft(part: WiredPart): MeetDraft {
  const isPaired = lettered(part);
  const ours = (isPaired ? downAndUp(part) : part.pins).map((p) => {
    const { kind, ...rest } = proposedPin(p);
    // whether a supply is given or taken no name tells
    const known = kind === "ground" ? { kind } : {};
    return draftPin({ ...rest, ...known }, { isProposed: kind !== undefined });
  });
  return {
    ref: part.ref,
    other: "",
    ours,
    theirs: ours.map((p) => ({ ...EMPTY, pin: p.pin, to: p.pin })),
    rows: isPaired ? 2 : 1,
    numbering: isPaired ? "ring" : "line",
    stopped: [],
    stopBy: "",
    gives: "",
  };
}

/** A row that is kept, as the board has it now. */
export function draftOf(row: MeetRow, ours: readonly Pin[]): MeetDraft {
  const to = new Map((row.meant ?? row.theirs.map((p) => [p.pin, p.pin] as const)).map(([a, b]) => [b, a]));
  return {
    ref: row.ref,
    other: row.other,
    ours: ours.map((p) => draftPin(p)),
    theirs: row.theirs.map((p) => draftPin(p, { to: to.get(p.pin) ?? "" })),
    rows: row.rows ?? 1,
    numbering: row.numbering ?? "line",
    stopped: row.stopped,
    stopBy: row.stopBy,
    gives: typed(row.givesMa, " mA"),
  };
}

/** The other side as pasted or described before: meant for our pins of the same name, else of the same place. */
export function withTheirs(draft: MeetDraft, theirs: readonly Pin[]): MeetDraft {
  const names = new Set(draft.ours.map((p) => p.pin));
  const areNamed = theirs.every((p) => names.has(p.pin));
  return {
    ...draft,
    theirs: theirs.map((p, i) => draftPin(p, { to: areNamed ? p.pin : (draft.ours[i]?.pin ?? "") })),
  };
}

/** A connector of one of the product's own boards, as the other side of another. */
export interface OwnSide {
  readonly label: string;
  readonly pins: readonly Pin[];
}

/**
 * Connectors of the product's boards that another may meet: with what was said of their pins, else what the nets' names say.
 * Of a supply no name tells who gives it, so that stays open.
 */
export function ownSides(doc: RunDocument, ref: string, board: string): OwnSide[] {
  return doc.boards.flatMap((b) =>
    wiringOf(b.measure)
      .filter((p) => isConnector(p) && !(p.ref === ref && b.name === board))
      .map((part): OwnSide => {
        const row = doc.meetings?.find((m) => m.ref === part.ref && boardFor(doc, m)?.id === b.id);
        const said = new Map(row?.ours.map((p) => [p.pin, p]));
        const pins = part.pins.map((p): Pin => {
          const { kind, ...rest } = proposedPin(p);
          return { ...rest, ...(kind === "ground" ? { kind } : {}), ...said.get(p.pin) };
        });
        return { label: doc.boards.length > 1 ? `${b.name} ${part.ref}` : part.ref, pins };
      }),
  );
}

const CURRENT = /^(\d{1,6}(?:[.,]\d{1,4})?)\s*(µA|uA|μA|mA|A)$/;
const MA = { µA: 1e-3, uA: 1e-3, μA: 1e-3, mA: 1, A: 1000 } as const;
/** "500 mA", "2 A", "0,5A"; a bare number may be either and is asked about. @returns mA, nothing for an empty text, null for what is no current */
export function readMa(text: string): number | undefined | null {
  if (text.trim() === "") return undefined;
  const m = CURRENT.exec(text.trim());
  const ma = m ? Number(m[1]!.replace(",", ".")) * MA[m[2] as keyof typeof MA] : Number.NaN;
  return ma <= 1e6 ? Number(ma.toPrecision(12)) : null;
}

/** What the draft says, or what is wrong with it. */
export function checkMeeting(
  d: MeetDraft,
  board: string | undefined,
): { readonly body: MeetBody } | { readonly wrong: string } {
  if (d.other.trim() === "") return { wrong: "Say what is put onto it." };
  const gives = readMa(d.gives);
  if (gives === null) return { wrong: "What it gives reads like 500 mA or 2 A." };
  if (d.theirs.length === 0) return { wrong: "The other side has no pins." };
  const sides = [
    ["ours", d.ours],
    ["theirs", d.theirs],
  ] as const;
  const read: Record<"ours" | "theirs", Pin[]> = { ours: [], theirs: [] };
  for (const [side, pins] of sides) {
    const seen = new Set<string>();
    for (const p of pins) {
      const name = p.pin.trim();
      const where =
        side === "ours" ? `${d.ref}.${name}` : `pin ${name || "without a name"} of ${d.other.trim()}`;
      if (name === "") return { wrong: "A pin of the other side has no name." };
      if (seen.has(name)) return { wrong: `${where} stands twice.` };
      seen.add(name);
      const volts = p.volts.trim() === "" ? undefined : readVolts(p.volts);
      const takesV = p.takes.trim() === "" ? undefined : readRange(p.takes);
      if (p.volts.trim() !== "" && volts === undefined)
        return { wrong: `The volts of ${where} are no number.` };
      if (p.takes.trim() !== "" && takesV === undefined)
        return { wrong: `What ${where} takes reads like 0 … 5.5, the lesser first.` };
      read[side].push({
        pin: name,
        ...(p.kind === "" ? {} : { kind: p.kind }),
        ...(volts === undefined ? {} : { volts }),
        ...(takesV ? { takesV } : {}),
        // the board has its own nets
        ...(side === "theirs" && p.net.trim() !== "" ? { net: p.net.trim() } : {}),
      });
    }
  }
  if (d.rows === 2 && d.numbering === "line") return { wrong: "Say how the two rows are numbered." };
  const meant = d.theirs.filter((p) => p.to !== "").map((p) => [p.to, p.pin.trim()] as const);
  return {
    body: {
      ...(board === undefined ? {} : { board }),
      ref: d.ref,
      other: d.other.trim(),
      spec: {
        ...read,
        meant,
        rows: d.rows,
        numbering: d.numbering,
        stopped: d.stopped,
        stopBy: d.stopBy.trim(),
        ...(gives === undefined ? {} : { givesMa: gives }),
      },
    },
  };
}
