/** A corner in whole units. */
export interface Corner {
  readonly x: number;
  readonly y: number;
}
type Ring = readonly Corner[];

const cross = (o: Corner, a: Corner, b: Corner): number =>
  (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

const isConvexRing = (r: Ring): boolean =>
  r.every((p, i) => cross(r[(i + r.length - 1) % r.length]!, p, r[(i + 1) % r.length]!) >= 0);

/**
 * A simple counter-clockwise ring in convex pieces that share its corners: ears are cut off, and joined again over every
 * cut that leaves both ends convex (Hertel and Mehlhorn, 1983: at most four times as many as the fewest).
 *
 * @returns nothing where the ring crosses itself or encloses nothing
 */
export function convexParts(ring: Ring): Ring[] | undefined {
  const triangles = earsOf(ring);
  if (!triangles) return undefined;
  const parts: (number[] | undefined)[] = triangles.map((t) => [...t]);
  const at = (i: number) => ring[i]!;
  // every cut lies between two pieces, once each way
  const sides = new Map<string, number>();
  const note = (part: number) => {
    const p = parts[part]!;
    p.forEach((a, k) => {
      sides.set(`${a} ${p[(k + 1) % p.length]}`, part);
    });
  };
  parts.forEach((_, i) => {
    note(i);
  });
  for (const key of [...sides.keys()]) {
    const [a, b] = key.split(" ").map(Number) as [number, number];
    const [one, other] = [sides.get(key), sides.get(`${b} ${a}`)];
    if (one === undefined || other === undefined || other === one) continue;
    const [p, q] = [parts[one]!, parts[other]!];
    const [i, k] = [p.indexOf(b), q.indexOf(a)];
    // from b around the first back to a, then around the second from a on to b
    const joined = [...p.slice(i), ...p.slice(0, i), ...[...q.slice(k), ...q.slice(0, k)].slice(1, -1)];
    if (!isConvexRing(joined.map(at))) continue;
    parts[one] = joined;
    parts[other] = undefined;
    sides.delete(key);
    sides.delete(`${b} ${a}`);
    note(one);
  }
  return parts.flatMap((p) => (p ? [p.map(at)] : []));
}

function earsOf(ring: Ring): [number, number, number][] | undefined {
  const left = ring.map((_, i) => i);
  const out: [number, number, number][] = [];
  while (left.length > 3) {
    const n = left.length;
    const ear = left.findIndex((b, i) => {
      const [a, c] = [left[(i + n - 1) % n]!, left[(i + 1) % n]!];
      const [A, B, C] = [ring[a]!, ring[b]!, ring[c]!];
      if (cross(A, B, C) <= 0) return false;
      return !left.some((k) => {
        if (k === a || k === b || k === c) return false;
        const p = ring[k]!;
        return cross(A, B, p) >= 0 && cross(B, C, p) >= 0 && cross(C, A, p) >= 0;
      });
    });
    if (ear < 0) {
      // what is straight encloses nothing and may go
      const flat = left.findIndex(
        (b, i) => cross(ring[left[(i + n - 1) % n]!]!, ring[b]!, ring[left[(i + 1) % n]!]!) === 0,
      );
      if (flat < 0) return undefined;
      left.splice(flat, 1);
      continue;
    }
    out.push([left[(ear + n - 1) % n]!, left[ear]!, left[(ear + 1) % n]!]);
    left.splice(ear, 1);
  }
  const [a, b, c] = left as [number, number, number];
  if (left.length === 3 && cross(ring[a]!, ring[b]!, ring[c]!) > 0) out.push([a, b, c]);
  // of a ring that crosses itself they make something else
  const twice = out.reduce((n, [p, q, r]) => n + cross(ring[p]!, ring[q]!, ring[r]!), 0);
  const own = ring.reduce((n, p, i) => {
    const q = ring[(i + 1) % ring.length]!;
    return n + p.x * q.y - q.x * p.y;
  }, 0);
  return out.length > 0 && twice === own ? out : undefined;
}

/** All sums of a point of one convex counter-clockwise ring and one of another: the edges of both by their direction. */
export function convexSum(a: Ring, b: Ring): Corner[] {
  const lowest = (r: Ring) =>
    r.reduce((m, p, i) => (p.y < r[m]!.y || (p.y === r[m]!.y && p.x < r[m]!.x) ? i : m), 0);
  const [i0, k0] = [lowest(a), lowest(b)];
  const out: Corner[] = [];
  let [i, k] = [0, 0];
  const edge = (r: Ring, from: number): Corner => {
    const [p, q] = [r[from % r.length]!, r[(from + 1) % r.length]!];
    return { x: q.x - p.x, y: q.y - p.y };
  };
  const O = { x: 0, y: 0 };
  while (i < a.length || k < b.length) {
    const [p, q] = [a[(i0 + i) % a.length]!, b[(k0 + k) % b.length]!];
    out.push({ x: p.x + q.x, y: p.y + q.y });
    const turn = i >= a.length ? -1 : k >= b.length ? 1 : cross(O, edge(a, i0 + i), edge(b, k0 + k));
    if (turn >= 0) i++;
    if (turn <= 0) k++;
  }
  return out;
}
