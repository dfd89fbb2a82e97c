/** What a reading may be of, by its unit without a prefix; the empty one counts pieces. */
export const BASE_UNITS = ["V", "A", "Ω", "F", "H", "Hz", "s", "W", "lx", "°C", "%", ""] as const;
export type BaseUnit = (typeof BASE_UNITS)[number];

/** A unit as it is written on a meter: milliampere is `{ base: "A", power: -3 }`. */
export interface ReadingUnit {
  readonly base: BaseUnit;
  /** Power of ten of its prefix. */
  readonly power: number;
  /** What is added after the power: degrees of the other scale. */
  readonly isFahrenheit?: true;
  /** Times this: minutes and hours of seconds. */
  readonly times?: number;
}

const PREFIX: Readonly<Record<string, number>> = {
  p: -12,
  n: -9,
  u: -6,
  µ: -6,
  μ: -6,
  m: -3,
  k: 3,
  K: 3,
  M: 6,
  G: 9,
};
const SPELT: Readonly<Record<string, BaseUnit>> = {
  v: "V",
  volt: "V",
  volts: "V",
  vdc: "V",
  a: "A",
  amp: "A",
  amps: "A",
  ampere: "A",
  amperes: "A",
  adc: "A",
  Ω: "Ω",
  ω: "Ω",
  r: "Ω",
  ohm: "Ω",
  ohms: "Ω",
  f: "F",
  farad: "F",
  h: "H",
  henry: "H",
  hz: "Hz",
  hertz: "Hz",
  s: "s",
  sec: "s",
  secs: "s",
  second: "s",
  seconds: "s",
  w: "W",
  watt: "W",
  watts: "W",
  lx: "lx",
  lux: "lx",
  "°c": "°C",
  degc: "°C",
  celsius: "°C",
  "%": "%",
  percent: "%",
  pcs: "",
  pieces: "",
};
/** These are taken with their prefix only as they stand: "PA" is no picoampere, "Mhz" is meant as megahertz. */
const find = (word: string): BaseUnit | undefined => SPELT[word] ?? SPELT[word.toLowerCase()];

/**
 * A unit as people write it: "mV", "kOhm", "MΩ", "uA", "µs", "degC", "ms". Undefined for what is none.
 *
 * @param wanted base unit of what is measured: it says whether a lone "k" is a prefix, "C" a temperature, "F" a scale
 */
export function readUnit(text: string, wanted: BaseUnit): ReadingUnit | undefined {
  const t = text.trim().replace(/\.$/, "");
  if (t === "") return { base: wanted, power: 0 };
  if (wanted === "°C" && /^(°|deg)?f$/i.test(t)) return { base: "°C", power: 0, isFahrenheit: true };
  if (wanted === "°C" && /^(°|deg|°c)?c?$/i.test(t)) return { base: "°C", power: 0 };
  if (wanted === "s" && /^min(ute)?s?$/i.test(t)) return { base: "s", power: 0, times: 60 };
  if (wanted === "s" && /^h(ours?)?$/i.test(t)) return { base: "s", power: 0, times: 3600 };
  const whole = find(t);
  // a temperature or a share has no prefix: kelvin is not a thousand degrees
  const power = wanted === "°C" || wanted === "%" ? undefined : PREFIX[t[0]!];
  const rest = power === undefined ? undefined : t.slice(1);
  // what is measured decides between "F" and "f…", "m" and a unit of one letter
  if (whole !== undefined && (whole === wanted || rest === undefined)) return { base: whole, power: 0 };
  if (rest === "") return { base: wanted, power: power! };
  const base = rest === undefined ? undefined : find(rest);
  if (base !== undefined) return { base, power: power! };
  return whole === undefined ? undefined : { base: whole, power: 0 };
}

/** A unit as it stands in a test plan: a base unit with or without a prefix; undefined for anything else. */
export function planUnit(text: string): ReadingUnit | undefined {
  if (text === "pieces") return { base: "", power: 0 };
  const whole = BASE_UNITS.find((b) => b === text);
  if (whole !== undefined) return { base: whole, power: 0 };
  const base = BASE_UNITS.find((b) => b !== "" && b !== "%" && b !== "°C" && b === text.slice(1));
  const power = PREFIX[text[0] ?? ""];
  return base === undefined || power === undefined ? undefined : { base, power };
}

const WRITTEN: readonly (readonly [string, number])[] = [
  ["G", 9],
  ["M", 6],
  ["k", 3],
  ["", 0],
  ["m", -3],
  ["µ", -6],
  ["n", -9],
  ["p", -12],
];
/** A unit with the prefix of a power of ten: "mV" of V and −3; undefined where there is none. */
export const prefixed = (base: BaseUnit, power: number): string | undefined => {
  const p = WRITTEN.find(([, n]) => n === power)?.[0];
  return p === undefined || base === "" || base === "%" || base === "°C" ? undefined : `${p}${base}`;
};
