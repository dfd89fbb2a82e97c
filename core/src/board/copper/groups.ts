/** Union-find over 0…n−1. */
export class Groups {
  private readonly parent: Int32Array;

  constructor(n: number) {
    this.parent = new Int32Array(n);
    for (let i = 0; i < n; i++) this.parent[i] = i;
  }

  find(i: number): number {
    const p = this.parent;
    let r = i;
    while (p[r] !== r) {
      p[r] = p[p[r]!]!;
      r = p[r]!;
    }
    return r;
  }

  join(a: number, b: number): void {
    const [x, y] = [this.find(a), this.find(b)];
    if (x !== y) this.parent[Math.max(x, y)] = Math.min(x, y);
  }

  count(): number {
    let n = 0;
    for (let i = 0; i < this.parent.length; i++) if (this.find(i) === i) n++;
    return n;
  }
}
