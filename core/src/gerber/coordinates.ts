/**
 * How a layer writes its numbers: unit, digits, zeros left out (published layer format, section on coordinates).
 *
 * An explicit decimal point decides over everything. Without a statement: millimetres, six decimals.
 */
export class Coordinates {
  unitMm = 1;
  hasUnit = false;
  hasFormat = false;
  /** Each point counts from the one before: a deprecated way that old writers use. */
  isIncremental = false;
  /** Whole numbers times a factor are the point: the usual case, leading zeros omitted and absolute. */
  isPlain = false;
  /** Units of the last digit in a unit of the file: a division, so that 12700000 is 12.7 and nothing beside it. */
  divideX = 1e6;
  divideY = 1e6;
  private x = { digits: 10, decimals: 6 };
  private y = { digits: 10, decimals: 6 };
  private omitsTrailing = false;
  /** The statement in force, as it is written. */
  format: string | undefined;

  setUnit(mm: number): void {
    this.unitMm = mm;
    this.hasUnit = true;
    this.settle();
  }

  setIncremental(is: boolean): void {
    this.isIncremental = is;
    this.settle();
  }

  /**
   * Takes a format statement such as FSLAX46Y46.
   * @returns false when X and Y state different formats
   * @throws Error with a sentence when it cannot be read
   */
  setFormat(s: string): boolean {
    const m = /^FS([LTD]?)([AI]?)(?:N\d)?(?:G\d)?X(\d)(\d)Y(\d)(\d)/.exec(s);
    if (!m) throw new Error("the number format cannot be read");
    this.format = s;
    this.omitsTrailing = m[1] === "T";
    this.isIncremental = m[2] === "I";
    this.x = { digits: Number(m[3]) + Number(m[4]), decimals: Number(m[4]) };
    this.y = { digits: Number(m[5]) + Number(m[6]), decimals: Number(m[6]) };
    this.hasFormat = true;
    this.settle();
    return m[3] === m[5] && m[4] === m[6];
  }

  private settle(): void {
    this.divideX = 10 ** this.x.decimals;
    this.divideY = 10 ** this.y.decimals;
    this.isPlain = this.hasFormat && !this.omitsTrailing && !this.isIncremental;
  }

  /**
   * Millimetres of a number along X as the scanner hands it over.
   * @param digits digits written, negative when the number held a decimal point
   */
  lengthX(value: number, digits: number): number {
    return this.length(value, digits, this.x);
  }

  /** The same along Y. */
  lengthY(value: number, digits: number): number {
    return this.length(value, digits, this.y);
  }

  private length(value: number, digits: number, format: { digits: number; decimals: number }): number {
    if (digits < 0) return value * this.unitMm;
    const full =
      this.omitsTrailing && digits < format.digits ? value * 10 ** (format.digits - digits) : value;
    return (full / 10 ** format.decimals) * this.unitMm;
  }
}
