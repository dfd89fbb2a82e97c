import type { FitBody } from "@kobbin/contract";
import {
  cornerOf,
  type FitSpec,
  holesOf,
  type Measure,
  matchPosts,
  oddReading,
  type PostsMatch,
  readPosts,
  slotsOf,
} from "@kobbin/core";
import { typedNumber } from "../../../ui/text/format.ts";
import { type Draft, toolsOf } from "./draft.ts";

const numberOf = (text: string): number | undefined => {
  const n = Number(typedNumber(text.trim()));
  return text.trim() === "" || !Number.isFinite(n) ? undefined : n;
};
// a field's and a corner's coordinates may be below zero, other lengths are refused there
const list = (text: string): (number | undefined)[] =>
  text
    .split(/[;\s]+|,\s+/)
    .filter((t) => t !== "")
    .map(numberOf);
const from = (m: Measure, f: { readonly x: number; readonly y: number }): readonly [number, number] => {
  const [x, y] = cornerOf(m);
  return [Math.round((f.x - x) * 1e4) / 1e4, Math.round((f.y - y) * 1e4) / 1e4];
};

/** A draft as a row that can be kept, or the one thing that is missing or odd in it, with a question where it may be meant. */
export type Checked =
  | { readonly body: FitBody }
  | { readonly wrong: string; readonly ask?: "unit" | "mirror"; readonly match?: PostsMatch };

/** Reads a draft; each kind says what it lacks. @param board its name, where the product has several */
export function checkDraft(d: Draft, m: Measure, board: string | undefined): Checked {
  const spec = specOf(d, m);
  if ("wrong" in spec) return spec;
  if (d.label.trim() === "")
    return { wrong: d.kind === "intended" ? "Say what it is called." : "Say what it must fit." };
  const playMm = numberOf(d.play);
  if (d.play.trim() !== "" && (playMm === undefined || playMm < 0))
    return { wrong: "The greatest play is a length, or nothing." };
  return {
    body: {
      label: d.label.trim(),
      spec: spec.spec,
      ...(board === undefined ? {} : { board }),
      ...(playMm === undefined ? {} : { playMm }),
    },
  };
}

type Read = { readonly spec: FitSpec } | Extract<Checked, { wrong: string }>;

function specOf(d: Draft, m: Measure): Read {
  const need = (text: string, what: string): number | { wrong: string } => {
    const n = numberOf(text);
    return n === undefined || n < 0 ? { wrong: `${what} is missing, or no length.` } : n;
  };
  const all = <const K extends string>(
    fields: Readonly<Record<K, readonly [string, string]>>,
  ): Record<K, number> | { wrong: string } => {
    const out = {} as Record<K, number>;
    for (const key of Object.keys(fields) as K[]) {
      const [text, what]: readonly [string, string] = fields[key];
      const n = need(text, what);
      if (typeof n !== "number") return n;
      out[key] = n;
    }
    return out;
  };
  switch (d.kind) {
    case "pattern":
      return patternOf(d, m, need);
    case "slot":
      return slotOf(d, m, need);
    case "pin": {
      const hole = toolsOf(m)[d.picked[0] ?? -1];
      if (!hole) return { wrong: "Pick one of the holes on the picture; all of its size are meant." };
      const r = all({ pinMm: [d.pin, "The pin"], pinTolMm: [d.pinTol, "Its tolerance"] });
      return "wrong" in r ? r : { spec: { kind: "pin", at: from(m, hole), shape: d.shape, ...r } };
    }
    case "edge": {
      const r = all({ least: [d.least, "The least thickness"], most: [d.most, "The greatest thickness"] });
      if ("wrong" in r) return r;
      return r.least > r.most
        ? { wrong: `It would take from ${r.least} to ${r.most} mm, which is nothing.` }
        : { spec: { kind: "edge", allowsMm: [r.least, r.most] } };
    }
    case "contacts": {
      if (!m.edgeContacts?.[d.edgeSide]) return { wrong: `No edge contacts are found on the ${d.edgeSide}.` };
      const r = all({
        openingMm: [d.opening, "The socket's opening"],
        openingTolMm: [d.openingTol, "Its tolerance"],
        contactMm: [d.contact, "The width of its contacts"],
      });
      return "wrong" in r ? r : { spec: { kind: "contacts", side: d.edgeSide, ...r } };
    }
    case "outline": {
      const r = all({ openingMm: [d.opening, "The opening"], openingTolMm: [d.openingTol, "Its tolerance"] });
      return "wrong" in r ? r : { spec: { kind: "outline", across: d.across, ...r } };
    }
    case "intended":
      return intendedOf(d, m, all);
    case "lid":
      return lidOf(d, all);
    case "facing":
      return facingOf(d, all);
    case "stack": {
      const r = all({
        boards: [d.boards, "The number of boards"],
        gapMm: [d.gap, "The gap"],
        gapTolMm: [d.gapTol, "Its tolerance"],
      });
      if ("wrong" in r) return r;
      if (!Number.isInteger(r.boards) || r.boards < 1) return { wrong: "Of boards there is a whole number." };
      const spacers = d.spacers
        .split(/[;\n]+/)
        .filter((t) => t.trim() !== "")
        .map((t) => t.split("±").map(numberOf));
      if (spacers.some(([v, tol = 0]) => v === undefined || v < 0 || tol < 0))
        return { wrong: "A spacer is written as 11 ± 0.1, several with semicolons between." };
      return {
        spec: { kind: "stack", ...r, spacers: spacers.map(([v, tol]) => ({ mm: v!, tolMm: tol ?? 0 })) },
      };
    }
  }
}

type All = <const K extends string>(
  fields: Readonly<Record<K, readonly [string, string]>>,
) => Record<K, number> | { wrong: string };

function intendedOf(d: Draft, m: Measure, all: All): Read {
  if (!d.spot) return { wrong: "Pick the place on the picture." };
  const r = all({ diameterMm: [d.diameter, "Its diameter"] });
  if ("wrong" in r) return r;
  if (r.diameterMm < 0.05 || r.diameterMm > 200) return { wrong: "A place is 0.05 to 200 mm across." };
  const at = from(m, { x: d.spot[0], y: d.spot[1] });
  return { spec: { kind: "intended", at, side: d.overSide, what: d.what, ...r } };
}

function lidOf(d: Draft, all: All): Read {
  const r = all({ roomMm: [d.gap, "The room"], roomTolMm: [d.gapTol, "Its tolerance"] });
  if ("wrong" in r) return r;
  const area = list(d.area);
  if (area.length === 0) return { spec: { kind: "lid", side: d.overSide, ...r } };
  const [x0, y0, x1, y1] = area;
  if (area.length !== 4 || area.some((v) => v === undefined) || x0! >= x1! || y0! >= y1!)
    return { wrong: "A field is left, lower, right and upper end in mm from the board's corner: 0 0 30 20." };
  return { spec: { kind: "lid", side: d.overSide, ...r, area: [x0!, y0!, x1!, y1!] } };
}

function facingOf(d: Draft, all: All): Read {
  if (d.other === "") return { wrong: "Choose the board that lies over this one." };
  const r = all({ gapMm: [d.gap, "The gap between the boards"], gapTolMm: [d.gapTol, "Its tolerance"] });
  if ("wrong" in r) return r;
  const corner = list(d.corner);
  if (corner.length !== 2 || corner.some((v) => v === undefined))
    return { wrong: "Its corner is two lengths from this board's corner: 5 12." };
  const joinedBy = d.joinedBy.split(/[\s,;]+/).filter((t) => t !== "");
  return {
    spec: {
      kind: "facing",
      other: d.other,
      side: d.overSide,
      faces: d.faces,
      at: [corner[0]!, corner[1]!],
      turnDeg: Number(d.turn) as 0 | 90 | 180 | 270,
      ...r,
      ...(joinedBy.length > 0 ? { joinedBy } : {}),
    },
  };
}

type Need = (text: string, what: string) => number | { wrong: string };

function slotOf(d: Draft, m: Measure, need: Need): Read {
  const slot = slotsOf(m)[d.picked[0] ?? -1];
  if (!slot) return { wrong: "Pick the slot on the picture." };
  const tolMm = need(d.tabTol, "The tab's tolerance");
  if (typeof tolMm !== "number") return tolMm;
  const readings = list(d.tab);
  if (readings.length === 0 || readings.some((r) => r === undefined || r <= 0))
    return { wrong: "The tab is a thickness, or several readings of it: 1.19 1.21 1.2." };
  const tabWidthMm = numberOf(d.tabWidth);
  if (d.tabWidth.trim() !== "" && (tabWidthMm === undefined || tabWidthMm <= 0))
    return { wrong: "The tab's width is a length, or nothing." };
  const odd = readings.length > 1 ? oddReading(readings as number[]) : undefined;
  if (odd !== undefined)
    return { wrong: `The reading ${odd} is far from the others: look at its decimal mark.` };
  return {
    spec: {
      kind: "slot",
      at: from(m, slot),
      tabTolMm: tolMm,
      ...(tabWidthMm === undefined ? {} : { tabWidthMm }),
      ...(readings.length > 1 ? { tabReadingsMm: readings as number[] } : { tabMm: readings[0]! }),
    },
  };
}

function patternOf(d: Draft, m: Measure, need: Need): Read {
  const all = holesOf(m);
  const holes = d.picked.flatMap((i) => (all[i] ? [all[i]] : []));
  if (holes.length === 0) return { wrong: "Pick the holes on the picture." };
  const postTolMm = need(d.postTol, "The tolerance of a post's place");
  if (typeof postTolMm !== "number") return postTolMm;
  const { posts, wrong } = readPosts(d.posts, numberOf(d.postMm));
  if (wrong[0]) return { wrong: wrong[0] };
  if (posts.length !== holes.length)
    return { wrong: `${posts.length} posts are given for ${holes.length} picked holes.` };
  const spots = holes.map((h) => from(m, h));
  const match = matchPosts(spots, posts);
  if (!match) return { wrong: "The posts do not lie like the picked holes, in no unit and on neither side." };
  if (match.unitMm !== 1 && !d.believesUnit)
    return {
      wrong: `The posts would fit if a number were ${UNIT_WORDS[match.unitMm] ?? `${match.unitMm} mm`}, not a millimetre.`,
      ask: "unit",
      match,
    };
  if (match.isMirrored && !d.believesMirror)
    return { wrong: "The posts lie mirrored: as seen from the other side.", ask: "mirror", match };
  return { spec: { kind: "pattern", holes: spots, posts: [...match.posts], postTolMm } };
}

const UNIT_WORDS: Readonly<Record<number, string>> = {
  25.4: "an inch",
  0.0254: "a mil",
  10: "a centimetre",
  0.001: "a micrometre",
};
