import type { RunDocument, TypedAgain } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { measurePoints } from "../stage/calliper-points.ts";
import { readReading } from "../stage/calliper-reading.ts";
import type { Worked } from "../stage/stage.ts";

/** Something that is asked without showing what the files say of it. */
export interface AskedAgain {
  readonly key: string;
  readonly ask: string;
  readonly how: string;
  /** Index of the board it is of, and where it is on it, mm as in the files. */
  readonly at?: { readonly board: number; readonly from?: readonly [number, number] };
  readonly is:
    | { readonly kind: "mm"; readonly mm: number }
    | { readonly kind: "count"; readonly n: number }
    | { readonly kind: "words"; readonly text: string };
}

/** An answer beside what the run goes by. */
export interface AgainJudged {
  readonly asked: AskedAgain;
  readonly typed: string;
  readonly stand: "agrees" | "differs" | "not typed";
  /** What the run goes by, with its unit. */
  readonly is: string;
}

/** A length is judged no finer than this, mm. */
const FINEST_MM = 0.05;
/** However roughly a length was written, more than this share of it is another length. */
const ROUGHEST = 0.02;
/** More than anybody types twice. */
const MOST = 24;

type What = Pick<Worked, "options" | "needs" | "basket"> & { readonly doc: RunDocument };

/** A length as it is said: two digits behind the mark at the most. */
const said = (mm: number): string => String(Math.round(mm * 100) / 100);

/**
 * What matters and can be known without the files: sizes as they are measured when boards come, layers, colour, the revision,
 * how many, and the number of the part that costs most (need N086, blind re-entry).
 */
export function askedAgain(w: What): AskedAgain[] {
  const { doc, options } = w;
  const several = doc.boards.length > 1;
  const out: AskedAgain[] = [];
  doc.boards.forEach((b, board) => {
    const of = several ? ` of ${b.name}` : "";
    const points = measurePoints(doc, b, options?.thickness);
    const sides = points.filter((p) => p.key === "width" || p.key === "height").map((p) => p.mm);
    const [first, second] = sides;
    if (first !== undefined && second !== undefined) {
      const side = (key: string, ask: string, mm: number) =>
        out.push({
          key: `${key} ${b.id}`,
          ask: `${ask}${of}`,
          how: "over all, edge to edge",
          at: { board },
          is: { kind: "mm", mm },
        });
      if (Math.abs(first - second) < FINEST_MM) side("long", "the side of the board", first);
      else {
        side("long", "the longer side", Math.max(first, second));
        side("short", "the shorter side", Math.min(first, second));
      }
    }
    const sizes = new Set<string>();
    for (const p of points) {
      if (p.key === "width" || p.key === "height") continue;
      const kind = p.key.startsWith("slot") ? "slot" : p.what;
      // four alike are typed once
      if (sizes.has(`${kind} ${p.mm}`)) continue;
      sizes.add(`${kind} ${p.mm}`);
      const what = p.key === "thickness" ? "how thick the board is" : `the ${kind} that is marked`;
      out.push({
        key: `${p.key} ${b.id}`,
        ask: `${what}${of}`,
        how: p.key.startsWith("hole")
          ? "its diameter"
          : p.key.startsWith("slot")
            ? "its width"
            : "bare, without parts",
        at: { board, ...(p.from && p.key !== "thickness" ? { from: p.from } : {}) },
        is: { kind: "mm", mm: p.mm },
      });
    }
    out.push({
      key: `layers ${b.id}`,
      ask: `how many copper layers it has${of}`,
      how: "1, 2, 4 …",
      at: { board },
      is: { kind: "count", n: b.measure.copperLayers },
    });
  });
  const words = (key: string, ask: string, how: string, text: string | undefined): AskedAgain[] =>
    text ? [{ key, ask, how, is: { kind: "words", text } }] : [];
  return [
    ...out.slice(0, MOST),
    ...words("revision", "which revision this is", "as it is marked on the board", doc.revision),
    ...words("mask", "in which colour it is ordered", "the mask, in one word", options?.mask),
    { key: "good", ask: "how many good ones are wanted", how: "", is: { kind: "count", n: doc.goodBoards } },
    ...dearest(w),
  ];
}

/** The number of the part whose buys cost most. */
function dearest({ doc, needs, basket }: What): AskedAgain[] {
  const cost = basket.lines.map((l) => l.buys.reduce((sum, b) => sum + b.cost, 0));
  const most = Math.max(0, ...cost);
  const id = most > 0 ? needs[cost.indexOf(most)]?.lines[0] : undefined;
  const line = doc.lines.find((l) => l.id === id);
  if (!line?.mpn || line.refs.length === 0) return [];
  return [
    {
      key: `part ${line.id}`,
      ask: `the number of ${line.refs[0]}, the part that costs most`,
      how: "from its data sheet, or off the part itself",
      is: { kind: "words", text: line.mpn },
    },
  ];
}

/** Why an answer is none; undefined where it can be judged. */
export function againWrong(asked: AskedAgain, text: string): string | undefined {
  const t = text.trim();
  if (t === "") return "Nothing was typed.";
  if (asked.is.kind === "mm") {
    const read = readReading(t, asked.is.mm);
    if ("wrong" in read) return read.wrong;
    return read.values.length > 1 ? "One length is asked for." : undefined;
  }
  if (asked.is.kind === "count") return /^\d{1,7}$/.test(t) ? undefined : `“${t}” is no number of something.`;
  return t.length > 60 ? "That is longer than what is asked for." : undefined;
}

/** Half of the last digit that was typed, mm: "78" means 77.5 to 78.5. */
function meantWithin(text: string): number {
  const m = /(?:[.,](\d+))?\s*(mm|in|inch|mil|")?\s*$/i.exec(text.trim());
  const unit = (m?.[2] ?? "mm").toLowerCase();
  return 0.5 * 10 ** -(m?.[1]?.length ?? 0) * (unit === "mm" ? 1 : unit === "mil" ? 0.0254 : 25.4);
}

/** Letters and digits alone, small; "Rev. B" is B. */
const bare = (text: string): string =>
  text
    .toLowerCase()
    .replace(/^\s*rev(ision)?\b/, "")
    .replace(/[^\p{L}\p{N}]/gu, "");
/** A number's beginning is told from others by so many characters. */
const LEAST_NUMBER = 4;

function agrees({ key, is }: AskedAgain, text: string): boolean {
  if (is.kind === "count") return Number(text.trim()) === is.n;
  if (is.kind === "words") {
    const [a, b] = [bare(text), bare(is.text)];
    // a data sheet is of a family: what follows its number is packing and package
    const isBegun = key.startsWith("part ") && a.length >= LEAST_NUMBER && b.startsWith(a);
    return (a !== "" ? a === b : text.trim() === is.text) || isBegun;
  }
  const read = readReading(text, is.mm);
  if ("wrong" in read) return false;
  const room = Math.max(FINEST_MM, Math.min(meantWithin(text), ROUGHEST * is.mm));
  return read.values.every((v) => Math.abs(v - is.mm) <= room + 1e-9);
}

/**
 * What was typed beside what the run goes by now: an answer stays while files and choices change, and is held against the new
 * ones. What is asked no more is left out.
 */
export function judgeAgain(w: What): AgainJudged[] {
  const typed = new Map((w.doc.choices.again?.said ?? []).map((s) => [s.key, s.text]));
  return askedAgain(w).map((asked) => {
    const text = typed.get(asked.key);
    const is =
      asked.is.kind === "mm"
        ? `${said(asked.is.mm)} mm`
        : asked.is.kind === "count"
          ? String(asked.is.n)
          : asked.is.text;
    return {
      asked,
      typed: text ?? "",
      is,
      stand: text === undefined ? "not typed" : agrees(asked, text) ? "agrees" : "differs",
    };
  });
}

/** What differs is told: one of the two is wrong, and nobody knows which. */
export function againNotes(w: What, add: Add): void {
  if (!w.doc.choices.again) return;
  for (const { asked, typed, is, stand } of judgeAgain(w))
    if (stand === "differs")
      add(
        "release",
        `again ${asked.key}`,
        "warning",
        `Typed without looking, ${asked.ask}: ${typed}; the run goes by ${is}.`,
        { do: "Look which of the two is right: what is remembered, or what was dropped and chosen." },
      );
}

/** What is kept of answers: those that were given. @param on ISO day */
export const typedAgain = (said: Readonly<Record<string, string>>, on: string): TypedAgain => ({
  on,
  said: Object.entries(said)
    .filter(([, text]) => text.trim() !== "")
    .map(([key, text]) => ({ key, text: text.trim() })),
});
