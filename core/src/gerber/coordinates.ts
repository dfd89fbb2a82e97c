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
  private decimals = 6;
  private digits = 10;
  private omitsTrailing = false;

  setUnit(mm: number): void {
    this.unitMm = mm;
    this.hasUnit = true;
  }

  /**
   * Takes a format statement such as FSLAX46Y46.
   * @returns false when X and Y state different formats (X counts)
   * @throws Error with a sentence when it cannot be read
   */
  setFormat(s: string): boolean {
    const m = /^FS([LTD]?)([AI]?)(?:N\d)?(?:G\d)?X(\d)(\d)Y(\d)(\d)/.exec(s);
    if (!m) throw new Error("the number format cannot be read");
    this.omitsTrailing = m[1] === "T";
    this.isIncremental = m[2] === "I";
    this.digits = Number(m[3]) + Number(m[4]);
    this.decimals = Number(m[4]);
    this.hasFormat = true;
    return m[3] === m[5] && m[4] === m[6];
  }

  /**
   * Millimetres of a number as the scanner hands it over.
   * @param digits digits written, negative when the number held a decimal point
   */
  length(value: number, digits: number): number {
    if (digits < 0) return value * this.unitMm;
    const full = this.omitsTrailing && digits < this.digits ? value * 10 ** (this.digits - digits) : value;
    return (full / 10 ** this.decimals) * this.unitMm;
  }
}
