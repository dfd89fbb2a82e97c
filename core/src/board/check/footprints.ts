import { lettersOf } from "../../bom/refs.ts";
import { type Finding, few } from "../../findings.ts";
import { type Pattern, type Relation, relationOf, turnBetween } from "../copper/pattern.ts";

/** Turns below this are rounding of rotations and pads, degrees. */
const SAME_TURN = 3;
/** Two-legged parts that may lie either way round. */
const EITHER_WAY = new Set(["R", "L", "FB", "F"]);

/**
 * Footprints against their like: mirrored, with pins in another order, or turned against what their stated rotation lets
 * expect, by any angle. Alike are parts with the same letters and pins whose pads lie on each other under some turn.
 * Where there are only two, or as many of one kind as of the other, which of them is right is not known, and that is said.
 */
export function compareFootprints(parts: readonly Pattern[], findings: Finding[]): void {
  const groups = new Map<string, Pattern[][]>();
  for (const p of parts) {
    if (p.pins.length < 2) continue;
    const key = `${lettersOf(p.ref)}\n${p.pins.join("\n")}`;
    const kinds = groups.get(key) ?? [];
    groups.set(key, kinds);
    const like = kinds.find((k) => relationOf(p, k[0]!) !== undefined);
    if (like) like.push(p);
    else kinds.push([p]);
  }
  for (const kinds of groups.values())
    for (const alike of kinds) if (alike.length > 1) compareAlike(alike, findings);
}

function compareAlike(alike: readonly Pattern[], findings: Finding[]): void {
  const classes: Pattern[][] = [];
  for (const p of alike) {
    const own = classes.find((c) => turnBetween(c[0]!, p) !== undefined);
    if (own) own.push(p);
    else classes.push([p]);
  }
  classes.sort((a, b) => b.length - a.length);
  const [most, ...others] = classes as [Pattern[], ...Pattern[][]];
  for (const odd of others) {
    const relation = relationOf(odd[0]!, most[0]!);
    if (relation && relation.kind !== "same") sayOdd(odd, most, relation, findings);
  }
  for (const c of classes)
    for (const side of ["top", "bottom"] as const)
      sayTurned(
        c.filter((p) => p.side === side),
        findings,
      );
}

function sayOdd(
  odd: readonly Pattern[],
  most: readonly Pattern[],
  relation: Exclude<Relation, { kind: "same" }>,
  findings: Finding[],
): void {
  const isOpen = odd.length === most.length;
  const refs = odd.map((p) => p.ref);
  const likes = most.map((p) => p.ref);
  const what =
    relation.kind === "mirrored"
      ? "mirrored against"
      : `with ${relation.pins.length === 2 ? `pins ${relation.pins.join(" and ")} exchanged` : "its pins in another order"} against`;
  findings.push({
    tag: relation.kind === "mirrored" ? "footprint-mirrored" : "footprint-pins-swapped",
    level: "warning",
    at: { layer: odd[0]!.side, x: odd[0]!.x, y: odd[0]!.y },
    about: isOpen ? [...refs, ...likes] : refs,
    text: isOpen
      ? `${few(refs)} ${refs.length > 1 ? "are" : "is"} laid out ${what} ${few(likes)}, though they have the same pins: which of them is right is not known here.`
      : `${few(refs)} ${refs.length > 1 ? "are" : "is"} laid out ${what} ${refs.length > 1 ? "their" : "its"} like, ${few(likes)}.`,
    do: "Compare both with the part's drawing, seen from above, before boards are made.",
  });
}

function sayTurned(parts: readonly Pattern[], findings: Finding[]): void {
  const known = parts.filter((p) => p.rotationDeg !== undefined);
  if (known.length < 2) return;
  const [base] = known as [Pattern];
  const isEitherWay = base.pins.length === 2 && EITHER_WAY.has(lettersOf(base.ref));
  const period = isEitherWay ? 180 : 360;
  const apart = (a: number, b: number) => {
    const d = (((a - b) % period) + period) % period;
    return Math.min(d, period - d);
  };
  // below, files state rotations as seen from above or from below: the reading under which more agree is meant
  const readings = (base.side === "bottom" ? [1, -1] : [1]).map((sign) => {
    const lags = known.map((p) => turnBetween(base, p)! - sign * p.rotationDeg!);
    const [usual] = [...lags].sort(
      (a, b) =>
        lags.filter((l) => apart(l, b) <= SAME_TURN).length -
        lags.filter((l) => apart(l, a) <= SAME_TURN).length,
    ) as [number];
    return { sign, lags, usual, agree: lags.filter((l) => apart(l, usual) <= SAME_TURN).length };
  });
  const { sign, lags, usual, agree } = readings.reduce((a, b) => (b.agree > a.agree ? b : a));
  const odd = known.flatMap((p, i) => (apart(lags[i]!, usual) > SAME_TURN ? [{ p, lag: lags[i]! }] : []));
  if (odd.length === 0) return;
  const round = (v: number) => ((Math.round(v * 10) / 10 + 720) % 360).toString();
  if (known.length === 2) {
    const [a, b] = known as [Pattern, Pattern];
    const turned = apart(lags[1]!, lags[0]!);
    // capacitors and diodes of two footprints often begin at another pin, as one turned half round does
    if (a.pins.length === 2 && turned > 180 - SAME_TURN) return;
    findings.push({
      tag: "footprint-turned",
      level: "warning",
      at: { layer: b.side, x: b.x, y: b.y },
      about: [a.ref, b.ref],
      text: `${a.ref} states ${a.rotationDeg}° and ${b.ref} ${b.rotationDeg}°, but their pads lie turned by ${round(Math.abs(((turnBetween(a, b)! + 540) % 360) - 180))}° against each other: one of the rotations, or of the footprints, is turned by ${round(turned)}°.`,
      do: "Check pin 1 of both on the picture and correct the rotation.",
    });
    return;
  }
  // two footprints in equal use are a habit, not a slip
  if (agree < (known.length * 2) / 3) return;
  for (const { p, lag } of odd)
    findings.push({
      tag: "footprint-turned",
      level: "warning",
      at: { layer: p.side, x: p.x, y: p.y },
      about: [p.ref],
      text: `${p.ref} states ${p.rotationDeg}°; by its pads, turned ${round(apart(lag, usual))}° against its like, it would state ${round(p.rotationDeg! + sign * (lag - usual))}°.`,
      do: "Check pin 1 on the picture: the rotation in the placement file or the footprint is turned.",
    });
}

/** Two footprints that bear one name: every pin of it lies at two places, all as far apart. */
export function sayDoubledNames(
  parts: ReadonlyMap<string, readonly { readonly pin: string; readonly x: number; readonly y: number }[]>,
  findings: Finding[],
): void {
  for (const [ref, places] of parts) {
    const byPin = new Map<string, { x: number; y: number }[]>();
    for (const p of places) {
      const list = byPin.get(p.pin) ?? [];
      // the same pad on several copper layers is one place
      if (!list.some((q) => Math.hypot(q.x - p.x, q.y - p.y) < 0.05)) list.push(p);
      byPin.set(p.pin, list);
    }
    const lists = [...byPin.values()];
    if (lists.length < 2 || lists.some((l) => l.length !== 2)) continue;
    const shifts = lists.map(([a, b]) => Math.hypot(b!.x - a!.x, b!.y - a!.y));
    const least = Math.min(...shifts);
    const firsts = lists.map(([a]) => a!);
    const size = Math.max(...firsts.flatMap((a) => firsts.map((b) => Math.hypot(a.x - b.x, a.y - b.y))));
    // one part whose every pin has two pads, as a push button has, holds them close; two parts stand apart
    if (least <= (lists.length === 2 ? 4 : 1.5) * size) continue;
    const [[a, b]] = lists as [[{ x: number; y: number }, { x: number; y: number }]];
    findings.push({
      tag: "reference-doubled",
      level: "error",
      at: { x: b.x, y: b.y },
      about: [ref],
      text: `Two footprints bear the name ${ref}: near ${a.x.toFixed(1)}, ${a.y.toFixed(1)} and near ${b.x.toFixed(1)}, ${b.y.toFixed(1)} mm.`,
      do: "Give one of them a name of its own; parts list, places and silkscreen follow it.",
    });
  }
}
