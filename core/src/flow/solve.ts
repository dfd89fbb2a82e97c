/** Nodes joined by conductances, as rows of neighbours: those of node k stand from first[k] to first[k + 1]. */
export interface Mesh {
  readonly nodes: number;
  readonly first: Int32Array;
  readonly to: Int32Array;
  readonly siemens: Float64Array;
}

/** @param edges a, b and siemens of each; several between the same two add up, none joins a node to itself */
export function meshOf(
  nodes: number,
  a: readonly number[],
  b: readonly number[],
  siemens: readonly number[],
): Mesh {
  const count = new Int32Array(nodes + 1);
  for (let e = 0; e < a.length; e++) {
    count[a[e]! + 1]!++;
    count[b[e]! + 1]!++;
  }
  for (let k = 0; k < nodes; k++) count[k + 1]! += count[k]!;
  const at = count.slice();
  const to = new Int32Array(a.length * 2);
  const g = new Float64Array(a.length * 2);
  for (let e = 0; e < a.length; e++) {
    to[at[a[e]!]!] = b[e]!;
    g[at[a[e]!]!++] = siemens[e]!;
    to[at[b[e]!]!] = a[e]!;
    g[at[b[e]!]!++] = siemens[e]!;
  }
  return { nodes, first: count, to, siemens: g };
}

/** A mesh with one node held at 0 V, which is in the sums of the others alone, and what settling it needs. */
interface Level {
  readonly mesh: Mesh;
  /** −1 where it is a node no more. */
  readonly held: number;
  readonly diagonal: Float64Array;
  readonly x: Float64Array;
  readonly b: Float64Array;
  readonly r: Float64Array;
  /** Which node of the next level each belongs to; −1 for the held one. */
  parent?: Int32Array;
}

const COARSEST = 40;
const SWEEPS = 30;
/** Nodes taken together are joined too stiffly, by about this; it hastens and changes no answer. */
const OVER = 1.6;
const MOST_STEPS = 1000;
const REMAINDER = 1e-8;

/**
 * Volts of every node of a mesh into which given currents flow, with one node held at 0 V: conjugate gradients, hastened by
 * coarser meshes in which the best joined nodes are one (an aggregation multigrid; Notay 2010, recalled, details ours).
 *
 * @param into A that flow into each node, negative out of it; what is over leaves at the held one, which all are joined to
 * @param held node at 0 V
 * @returns volts, to a relative remainder of 1e−8
 * @throws RangeError where it does not settle
 */
export function voltsOf(mesh: Mesh, into: Float64Array, held: number): Float64Array {
  const n = mesh.nodes;
  const x = new Float64Array(n);
  const r = into.slice();
  r[held] = 0;
  const size = Math.sqrt(dot(r, r));
  if (size === 0) return x;
  const levels = levelsOf(mesh, held);
  const top = levels[0]!;
  const p = new Float64Array(n);
  const ap = new Float64Array(n);
  let rz = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    top.b.set(r);
    cycle(levels, 0);
    const now = dot(r, top.x);
    const beta = step === 0 ? 0 : now / rz;
    rz = now;
    for (let k = 0; k < n; k++) p[k] = top.x[k]! + beta * p[k]!;
    times(top, p, ap);
    const alpha = rz / dot(p, ap);
    for (let k = 0; k < n; k++) {
      x[k]! += alpha * p[k]!;
      r[k]! -= alpha * ap[k]!;
    }
    if (Math.sqrt(dot(r, r)) <= REMAINDER * size) return x;
  }
  throw new RangeError("the currents in this copper do not settle");
}

function dot(a: Float64Array, b: Float64Array): number {
  let s = 0;
  for (let k = 0; k < a.length; k++) s += a[k]! * b[k]!;
  return s;
}

/** out = A·x; x is 0 at the held node. */
function times({ mesh, diagonal, held }: Level, x: Float64Array, out: Float64Array): void {
  const { first, to, siemens } = mesh;
  for (let k = 0; k < mesh.nodes; k++) {
    let s = diagonal[k]! * x[k]!;
    for (let e = first[k]!; e < first[k + 1]!; e++) s -= siemens[e]! * x[to[e]!]!;
    out[k] = k === held ? 0 : s;
  }
}

function levelOf(mesh: Mesh, held: number, toHeld: Float64Array): Level {
  const diagonal = toHeld.slice();
  for (let k = 0; k < mesh.nodes; k++)
    for (let e = mesh.first[k]!; e < mesh.first[k + 1]!; e++) diagonal[k]! += mesh.siemens[e]!;
  const [x, b, r] = [0, 1, 2].map(() => new Float64Array(mesh.nodes));
  return { mesh, held, diagonal, x: x!, b: b!, r: r! };
}

/** Meshes of fewer and fewer nodes, the given one first. */
function levelsOf(mesh: Mesh, held: number): Level[] {
  const levels: Level[] = [levelOf(mesh, held, new Float64Array(mesh.nodes))];
  let toHeld = new Float64Array(mesh.nodes);
  for (;;) {
    const last = levels.at(-1)!;
    if (last.mesh.nodes <= COARSEST) return levels;
    const one = halved(last.mesh, last.held, toHeld);
    const two = halved(one.mesh, -1, one.toHeld);
    if (two.mesh.nodes === 0 || two.mesh.nodes > last.mesh.nodes * 0.8) return levels;
    last.parent = one.parent.map((q) => (q < 0 ? -1 : two.parent[q]!));
    levels.push(levelOf(two.mesh, -1, two.toHeld));
    toHeld = two.toHeld;
  }
}

interface Halved {
  readonly mesh: Mesh;
  readonly toHeld: Float64Array<ArrayBuffer>;
  readonly parent: Int32Array<ArrayBuffer>;
}

/** Each node with the neighbour it is joined to best of those that are still alone, as one; what finds none goes with others. */
function halved(mesh: Mesh, held: number, toHeld: Float64Array): Halved {
  const { first, to, siemens, nodes } = mesh;
  const parent = new Int32Array(nodes).fill(-1);
  let count = 0;
  for (let k = 0; k < nodes; k++) {
    if (k === held || parent[k]! >= 0) continue;
    let [free, most] = [-1, 0];
    let [taken, mostTaken] = [-1, 0];
    for (let e = first[k]!; e < first[k + 1]!; e++) {
      const q = to[e]!;
      if (q === held) continue;
      if (parent[q]! < 0) {
        if (siemens[e]! > most) [free, most] = [q, siemens[e]!];
      } else if (siemens[e]! > mostTaken) [taken, mostTaken] = [q, siemens[e]!];
    }
    if (free < 0 && taken >= 0) parent[k] = parent[taken]!;
    else {
      parent[k] = count;
      if (free >= 0) parent[free] = count;
      count++;
    }
  }
  return { ...coarse(mesh, held, toHeld, parent, count), parent };
}

/** The mesh of nodes taken together: sums of what joins them, and of what joins them to the held one. */
function coarse(
  { first, to, siemens, nodes }: Mesh,
  held: number,
  toHeld: Float64Array,
  parent: Int32Array,
  count: number,
): Pick<Halved, "mesh" | "toHeld"> {
  const from = new Int32Array(count + 1);
  for (let k = 0; k < nodes; k++) if (parent[k]! >= 0) from[parent[k]! + 1]!++;
  for (let p = 0; p < count; p++) from[p + 1]! += from[p]!;
  const members = new Int32Array(from[count]!);
  const at = from.slice();
  for (let k = 0; k < nodes; k++) if (parent[k]! >= 0) members[at[parent[k]!]!++] = k;
  const below = new Float64Array(count);
  const firstOf = new Int32Array(count + 1);
  const ends: number[] = [];
  const sums: number[] = [];
  // where the sum to a neighbour stands, while this one's row is written
  const slot = new Int32Array(count).fill(-1);
  for (let p = 0; p < count; p++) {
    const row = ends.length;
    for (let m = from[p]!; m < from[p + 1]!; m++) {
      const k = members[m]!;
      below[p]! += toHeld[k]!;
      for (let e = first[k]!; e < first[k + 1]!; e++) {
        if (to[e] === held) {
          below[p]! += siemens[e]!;
          continue;
        }
        const q = parent[to[e]!]!;
        if (q === p) continue;
        if (slot[q]! >= row) sums[slot[q]!]! += siemens[e]!;
        else {
          slot[q] = ends.length;
          ends.push(q);
          sums.push(siemens[e]!);
        }
      }
    }
    firstOf[p + 1] = ends.length;
  }
  const mesh = { nodes: count, first: firstOf, to: Int32Array.from(ends), siemens: Float64Array.from(sums) };
  return { mesh, toHeld: below };
}

/** One cycle on a level: what is wanting is settled on the next coarser one, between a sweep there and a sweep back. */
function cycle(levels: readonly Level[], at: number): void {
  const l = levels[at]!;
  const next = levels[at + 1];
  l.x.fill(0);
  sweep(l, false);
  if (!next) {
    for (let i = 0; i < SWEEPS; i++) {
      sweep(l, true);
      sweep(l, false);
    }
  } else {
    const { mesh, diagonal, x, b, r } = l;
    const { first, to, siemens } = mesh;
    const parent = l.parent!;
    next.b.fill(0);
    for (let k = 0; k < mesh.nodes; k++) {
      let s = b[k]! - diagonal[k]! * x[k]!;
      for (let e = first[k]!; e < first[k + 1]!; e++) s += siemens[e]! * x[to[e]!]!;
      r[k] = s;
      if (parent[k]! >= 0) next.b[parent[k]!]! += s;
    }
    cycle(levels, at + 1);
    for (let k = 0; k < mesh.nodes; k++) if (parent[k]! >= 0) x[k]! += OVER * next.x[parent[k]!]!;
  }
  sweep(l, true);
}

/** Each node set by its neighbours, in turn; the held one stays at nothing. */
function sweep({ mesh, diagonal, x, b, held }: Level, isBack: boolean): void {
  const { first, to, siemens, nodes } = mesh;
  for (let i = 0; i < nodes; i++) {
    const k = isBack ? nodes - 1 - i : i;
    if (k === held || diagonal[k] === 0) continue;
    let s = b[k]!;
    for (let e = first[k]!; e < first[k + 1]!; e++) s += siemens[e]! * x[to[e]!]!;
    x[k] = s / diagonal[k]!;
  }
}
