/** An exact fraction: slow, and nothing to get wrong. */
export class Fraction {
  readonly n: bigint;
  readonly d: bigint;

  constructor(n: bigint, d = 1n) {
    this.n = d < 0n ? -n : n;
    this.d = d < 0n ? -d : d;
  }

  /** A decimal as people write it: "12.50", 0.82, 1e-7. */
  static of(v: string | number | Fraction): Fraction {
    if (v instanceof Fraction) return v;
    const m = /^(-?)(\d*)\.?(\d*)(?:e([+-]?\d+))?$/i.exec(String(v).trim());
    if (!m) throw new Error(`no decimal: ${v}`);
    const places = m[3]!.length - Number(m[4] ?? 0);
    const digits = BigInt(`${m[2]}${m[3]}` || "0") * (m[1] ? -1n : 1n);
    return places >= 0
      ? new Fraction(digits, 10n ** BigInt(places))
      : new Fraction(digits * 10n ** BigInt(-places));
  }

  plus(v: Fraction | number | string): Fraction {
    const o = Fraction.of(v);
    return new Fraction(this.n * o.d + o.n * this.d, this.d * o.d).lowest();
  }
  minus(v: Fraction | number | string): Fraction {
    const o = Fraction.of(v);
    return this.plus(new Fraction(-o.n, o.d));
  }
  times(v: Fraction | number | string): Fraction {
    const o = Fraction.of(v);
    return new Fraction(this.n * o.n, this.d * o.d).lowest();
  }
  over(v: Fraction | number | string): Fraction {
    const o = Fraction.of(v);
    return new Fraction(this.n * o.d, this.d * o.n).lowest();
  }
  isLess(v: Fraction | number | string): boolean {
    const o = Fraction.of(v);
    return this.n * o.d < o.n * this.d;
  }
  /** The next whole number up. */
  up(): number {
    return Number(this.n >= 0n ? (this.n + this.d - 1n) / this.d : -(-this.n / this.d));
  }
  /** To some places, halves away from zero: as an invoice is written. */
  rounded(places: number): Fraction {
    const scale = 10n ** BigInt(places);
    const twice = (this.n < 0n ? -this.n : this.n) * scale * 2n + this.d;
    const whole = twice / (this.d * 2n);
    return new Fraction(this.n < 0n ? -whole : whole, scale);
  }
  toNumber(): number {
    const big = 10n ** 18n;
    return Number((this.n * big) / this.d) / 1e18;
  }

  private lowest(): Fraction {
    let [a, b] = [this.n < 0n ? -this.n : this.n, this.d];
    while (b > 0n) [a, b] = [b, a % b];
    return a > 1n ? new Fraction(this.n / a, this.d / a) : this;
  }
}

export const F = (v: string | number): Fraction => Fraction.of(v);
export const sumOf = (list: readonly Fraction[]): Fraction => list.reduce((a, b) => a.plus(b), F(0));
