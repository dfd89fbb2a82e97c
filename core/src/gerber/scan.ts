/** One command of a layer file, re-used between calls: copy what must last. */
export interface Command {
  kind: "word" | "block" | "end";
  line: number;
  /** Codes of the word, -1 where absent. A word may carry a G, a D or an M code besides coordinates. */
  g: number;
  d: number;
  m: number;
  has: number;
  x: number;
  y: number;
  i: number;
  j: number;
  /** Digits written for each of x y i j, needed where trailing zeros are omitted; negative when a point was written. */
  xDigits: number;
  yDigits: number;
  iDigits: number;
  jDigits: number;
  /** Content between the percent signs, or the text of a comment, or what could not be read. */
  text: string;
  bad: boolean;
}

/** Bits of {@link Command.has}. */
export const HAS = { x: 1, y: 2, i: 4, j: 8 } as const;

const isBlank = (c: number) => c === 10 || c === 13 || c === 32 || c === 9;

/**
 * Splits the bytes of a layer file into commands, in one pass and without an object per command.
 *
 * Words end with `*`, extended blocks stand between `%` signs (published layer format, section on syntax).
 * Unreadable words come back with `bad` and their text; the scanner itself never throws.
 */
export class Scanner {
  private p = 0;
  private line = 1;
  private readonly u8: Uint8Array;
  /** True when the last block or word was not closed before the file ended. */
  isTruncated = false;
  readonly command: Command = {
    kind: "end",
    line: 1,
    g: -1,
    d: -1,
    m: -1,
    has: 0,
    x: 0,
    y: 0,
    i: 0,
    j: 0,
    xDigits: 0,
    yDigits: 0,
    iDigits: 0,
    jDigits: 0,
    text: "",
    bad: false,
  };

  constructor(u8: Uint8Array) {
    this.u8 = u8;
  }

  next(): Command {
    const { u8, command } = this;
    const n = u8.length;
    for (; this.p < n; this.p++) {
      const c = u8[this.p]!;
      if (c === 10) this.line++;
      else if (c !== 42 && !isBlank(c)) break;
    }
    command.line = this.line;
    command.bad = false;
    if (this.p >= n) {
      command.kind = "end";
      return command;
    }
    if (u8[this.p] === 37) return this.block();
    return this.word();
  }

  /**
   * Reads the next command if it is nothing but a point of whole numbers and D01, D02 or D03, as most are, perhaps after G01; else leaves
   * everything as it is and returns false. Fills g, has, x, y, d and line of the command.
   */
  nextPoint(): boolean {
    const { u8, command } = this;
    let { p, line } = this;
    let c = u8[p]!;
    while (c === 10 || c === 13 || c === 42 || c === 32) {
      if (c === 10) line++;
      c = u8[++p]!;
    }
    let has = 0;
    let g = -1;
    if (c === 71) {
      c = u8[++p]!;
      if (c === 48) c = u8[++p]!;
      if (c !== 49) return false;
      g = 1;
      c = u8[++p]!;
    }
    if (c === 88) {
      c = u8[++p]!;
      const isNegative = c === 45;
      if (isNegative) c = u8[++p]!;
      const from = p;
      let v = 0;
      while (c >= 48 && c <= 57) {
        v = v * 10 + c - 48;
        c = u8[++p]!;
      }
      if (p === from) return false;
      command.x = isNegative ? -v : v;
      has = HAS.x;
    }
    if (c === 89) {
      c = u8[++p]!;
      const isNegative = c === 45;
      if (isNegative) c = u8[++p]!;
      const from = p;
      let v = 0;
      while (c >= 48 && c <= 57) {
        v = v * 10 + c - 48;
        c = u8[++p]!;
      }
      if (p === from) return false;
      command.y = isNegative ? -v : v;
      has |= HAS.y;
    }
    if (c !== 68 || has === 0) return false;
    c = u8[++p]!;
    if (c === 48) c = u8[++p]!;
    if (c < 49 || c > 51 || u8[p + 1] !== 42) return false;
    command.g = g;
    command.has = has;
    command.d = c - 48;
    command.line = line;
    this.p = p + 2;
    this.line = line;
    return true;
  }

  private block(): Command {
    const { u8, command } = this;
    const start = ++this.p;
    while (this.p < u8.length && u8[this.p] !== 37) {
      if (u8[this.p] === 10) this.line++;
      this.p++;
    }
    if (this.p >= u8.length) this.isTruncated = true;
    command.kind = "block";
    command.text = latin(u8, start, this.p);
    this.p++;
    return command;
  }

  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one scanner: a word is told apart character by character, and is the hot path of reading
  private word(): Command {
    const { u8, command } = this;
    const n = u8.length;
    const start = this.p;
    command.kind = "word";
    command.g = command.d = command.m = -1;
    command.has = 0;
    command.text = "";
    while (this.p < n) {
      const letter = u8[this.p]!;
      if (letter === 42) {
        this.p++;
        return command;
      }
      if (letter === 37) return this.spoil(start); // a block opens inside a word: the star was forgotten
      const at = this.p++;
      if (letter === 10) this.line++;
      if (isBlank(letter)) continue;
      let c = u8[this.p]!;
      let negative = false;
      if (c === 45 || c === 43) {
        negative = c === 45;
        c = u8[++this.p]!;
      }
      let value = 0;
      let digits = 0;
      let point = -1;
      for (;;) {
        if (c >= 48 && c <= 57) {
          value = value * 10 + (c - 48);
          digits++;
        } else if (c === 46 && point < 0) point = digits;
        else break;
        c = u8[++this.p]!;
      }
      if (command.d >= 10 && (letter === 68 || letter === 88 || letter === 89)) {
        // an aperture and what it draws in one word: as with two G codes below
        this.p = at;
        return command;
      }
      if (digits === 0) return this.spoil(start);
      if (point >= 0) {
        value /= 10 ** (digits - point);
        digits = -1;
      }
      if (negative) value = -value;
      switch (letter) {
        case 88:
          if (command.has & HAS.x) return this.spoil(start);
          command.x = value;
          command.xDigits = digits;
          command.has |= HAS.x;
          break;
        case 89:
          if (command.has & HAS.y) return this.spoil(start);
          command.y = value;
          command.yDigits = digits;
          command.has |= HAS.y;
          break;
        case 73:
          if (command.has & HAS.i) return this.spoil(start);
          command.i = value;
          command.iDigits = digits;
          command.has |= HAS.i;
          break;
        case 74:
          if (command.has & HAS.j) return this.spoil(start);
          command.j = value;
          command.jDigits = digits;
          command.has |= HAS.j;
          break;
        case 68:
          if (command.d >= 0) return this.spoil(start);
          command.d = value;
          break;
        case 77:
          if (command.m >= 0) return this.spoil(start);
          command.m = value;
          break;
        case 78: // line numbers of very old writers
          break;
        case 71:
          if (value === 4) return this.comment();
          if (command.g >= 0 && command.g !== value && command.g !== 54 && value !== 54) {
            // two G codes in one word: hand the first out alone, the second stays for the next call
            this.p = at;
            return command;
          }
          command.g = value;
          break;
        default:
          return this.spoil(start);
      }
    }
    this.isTruncated = true;
    return command;
  }

  private comment(): Command {
    const { u8, command } = this;
    const start = this.p;
    while (this.p < u8.length && u8[this.p] !== 42) {
      if (u8[this.p] === 10) this.line++;
      this.p++;
    }
    command.g = 4;
    command.text = latin(u8, start, this.p);
    this.p++;
    return command;
  }

  private spoil(start: number): Command {
    const { u8, command } = this;
    while (this.p < u8.length && u8[this.p] !== 42 && u8[this.p] !== 37 && u8[this.p] !== 10) this.p++;
    command.bad = true;
    command.text = latin(u8, start, Math.min(this.p, start + 60));
    if (u8[this.p] === 42) this.p++;
    else if (this.p >= u8.length) this.isTruncated = true;
    return command;
  }
}

const decoder = { chunk: 8192 };

/** Bytes as text: UTF-8 where they are valid UTF-8, one character per byte otherwise. */
export function latin(u8: Uint8Array, from: number, to: number): string {
  let out = "";
  let bits = 0;
  for (let i = from; i < to; i += decoder.chunk) {
    const part = u8.subarray(i, Math.min(to, i + decoder.chunk));
    for (let k = 0; k < part.length; k++) bits |= part[k]!;
    out += String.fromCharCode(...part);
  }
  if (bits < 128) return out;
  try {
    return decodeURIComponent(
      out.replace(/[%\x80-\xff]/g, (c) => `%${c.charCodeAt(0).toString(16).padStart(2, "0")}`),
    );
  } catch {
    return out;
  }
}
