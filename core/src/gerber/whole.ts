import { transformAperture } from "./aperture.ts";
import { type Aperture, type ImageBuilder, KIND } from "./image.ts";

/**
 * The deprecated commands that act on a whole image (published layer format, deprecated commands): axis swap, mirror,
 * scale and offset of the data, which leave the stamps as they are, and rotation of the image, which turns them too.
 * Applied in that order when the file has been read.
 */
export class WholeImage {
  private swaps = false;
  private mirrorA = false;
  private mirrorB = false;
  private scaleA = 1;
  private scaleB = 1;
  private offsetA = 0;
  private offsetB = 0;
  private degrees = 0;
  /** The image is stated as its own negative. */
  isNegative = false;

  /**
   * Takes AS, MI, SF, OF, IR or IP.
   * @returns "neutral" when it changes nothing, "taken", or "unknown" when it cannot be read
   */
  take(s: string, unitMm: number): "neutral" | "taken" | "unknown" {
    const number = (letter: string) => {
      const m = new RegExp(`${letter}([-+]?\\d*\\.?\\d+)`).exec(s.slice(2));
      return m ? Number(m[1]) : undefined;
    };
    const [a, b] = [number("A"), number("B")];
    switch (s.slice(0, 2)) {
      case "AS":
        if (s !== "ASAXBY" && s !== "ASAYBX") return "unknown";
        this.swaps = s === "ASAYBX";
        return this.swaps ? "taken" : "neutral";
      case "MI":
        this.mirrorA = a === 1;
        this.mirrorB = b === 1;
        return this.mirrorA || this.mirrorB ? "taken" : "neutral";
      case "SF":
        if ([a ?? 1, b ?? 1].some((v) => v <= 0 || v > 100)) return "unknown";
        this.scaleA = a ?? 1;
        this.scaleB = b ?? 1;
        return this.scaleA !== 1 || this.scaleB !== 1 ? "taken" : "neutral";
      case "OF":
        if (Math.abs(a ?? 0) * unitMm > 5000 || Math.abs(b ?? 0) * unitMm > 5000) return "unknown";
        this.offsetA = (a ?? 0) * unitMm;
        this.offsetB = (b ?? 0) * unitMm;
        return this.offsetA !== 0 || this.offsetB !== 0 ? "taken" : "neutral";
      case "IR": {
        const turn = Number(s.slice(2));
        if (![0, 90, 180, 270].includes(turn)) return "unknown";
        this.degrees = turn;
        return turn === 0 ? "neutral" : "taken";
      }
      case "IP":
        this.isNegative = s === "IPNEG";
        return s === "IPNEG" ? "taken" : s === "IPPOS" ? "neutral" : "unknown";
      default:
        return "unknown";
    }
  }

  private move(x: number, y: number): [number, number] {
    let [u, v] = this.swaps ? [y, x] : [x, y];
    u = (this.mirrorA ? -u : u) * this.scaleA + this.offsetA;
    v = (this.mirrorB ? -v : v) * this.scaleB + this.offsetB;
    if (this.degrees === 90) return [-v, u];
    if (this.degrees === 180) return [-u, -v];
    if (this.degrees === 270) return [v, -u];
    return [u, v];
  }

  /** Moves all objects of a read image and turns the stamps it uses. */
  apply(b: ImageBuilder, apertures: Aperture[]): void {
    const isPlain =
      !this.swaps &&
      !this.mirrorA &&
      !this.mirrorB &&
      this.scaleA === 1 &&
      this.scaleB === 1 &&
      this.offsetA === 0 &&
      this.offsetB === 0 &&
      this.degrees === 0;
    if (isPlain) return;
    const flips = (this.swaps ? 1 : 0) + (this.mirrorA ? 1 : 0) + (this.mirrorB ? 1 : 0);
    for (let i = 0; i < b.n; i++) {
      const kind = b.kind[i]!;
      if (kind === KIND.region) continue;
      const o = i * 6;
      for (let k = 0; k < (kind === KIND.flash ? 2 : 6); k += 2)
        [b.geo[o + k], b.geo[o + k + 1]] = this.move(b.geo[o + k]!, b.geo[o + k + 1]!);
      if (flips % 2 === 1 && (kind === KIND.arcCw || kind === KIND.arcCcw))
        b.kind[i] = kind === KIND.arcCw ? KIND.arcCcw : KIND.arcCw;
    }
    for (let k = 0; k < b.pointCount * 2; k += 2)
      [b.points[k], b.points[k + 1]] = this.move(b.points[k]!, b.points[k + 1]!);
    if (this.degrees === 0) return;
    const turn = { mirrorX: false, mirrorY: false, degrees: this.degrees, scale: 1 };
    for (let k = 0; k < apertures.length; k++) apertures[k] = transformAperture(apertures[k]!, turn);
  }
}
