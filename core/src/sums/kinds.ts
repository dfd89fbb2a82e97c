/** A number that goes into a sum: typed, or read from a line of the bill. */
export interface SumInput {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  /** The class of part it may be read from; without one it is typed. */
  readonly part?: "resistor" | "capacitor";
  readonly isOptional?: boolean;
  /** Typed where nothing better is known. */
  readonly usual?: string;
}

/** A figure that comes out beside the main one. */
export interface SideFigure {
  readonly label: string;
  readonly value: number;
  readonly unit: string;
}

/** A sum where the doubt is: what goes in, what comes out. All in SI without prefix. */
export interface SumKind {
  readonly key: string;
  readonly label: string;
  readonly about: string;
  readonly figure: string;
  readonly unit: string;
  readonly inputs: readonly SumInput[];
  /** The main figure. */
  readonly compute: (v: Readonly<Record<string, number>>) => number;
  readonly beside: (v: Readonly<Record<string, number>>) => readonly SideFigure[];
  /** The part that is chosen last, and the value of it that gives a wanted figure. */
  readonly solve?: {
    readonly key: string;
    readonly from: (v: Readonly<Record<string, number>>, wanted: number) => number;
  };
}

const parallel = (a: number, b: number) => (a * b) / (a + b);

/** The sums there are. Formulas: Ohm's law; the loaded divider is not asked, its source resistance is told instead. */
export const SUM_KINDS: readonly SumKind[] = [
  {
    key: "lamp",
    label: "Series resistor of a lamp",
    about: "current = (supply − drop of all in series) / resistor",
    figure: "current through the lamp",
    unit: "A",
    inputs: [
      { key: "supply", label: "Supply", unit: "V" },
      { key: "drop", label: "Drop of one lamp", unit: "V", usual: "2.0 V" },
      { key: "count", label: "Lamps in series", unit: "", usual: "1" },
      { key: "resistor", label: "Resistor", unit: "Ω", part: "resistor" },
      { key: "power", label: "Rated power of the resistor", unit: "W", isOptional: true, usual: "0.1 W" },
    ],
    compute: (v) => (v.supply! - v.drop! * v.count!) / v.resistor!,
    beside: (v) => {
      const left = v.supply! - v.drop! * v.count!;
      const heat = left ** 2 / v.resistor!;
      return [
        { label: "left for the resistor", value: left, unit: "V" },
        { label: "heat in the resistor", value: heat, unit: "W" },
        ...(v.power ? [{ label: "of its rating", value: (100 * heat) / v.power, unit: "%" }] : []),
      ];
    },
    solve: { key: "resistor", from: (v, wanted) => (v.supply! - v.drop! * v.count!) / wanted },
  },
  {
    key: "divider",
    label: "Divider",
    about: "output = input × lower / (upper + lower), unloaded",
    figure: "output of the divider",
    unit: "V",
    inputs: [
      { key: "input", label: "Input", unit: "V" },
      { key: "upper", label: "Upper resistor", unit: "Ω", part: "resistor" },
      { key: "lower", label: "Lower resistor", unit: "Ω", part: "resistor" },
    ],
    compute: (v) => (v.input! * v.lower!) / (v.upper! + v.lower!),
    beside: (v) => [
      { label: "source resistance", value: parallel(v.upper!, v.lower!), unit: "Ω" },
      { label: "current it draws", value: v.input! / (v.upper! + v.lower!), unit: "A" },
    ],
    solve: { key: "lower", from: (v, wanted) => (v.upper! * wanted) / (v.input! - wanted) },
  },
  {
    key: "rc",
    label: "Time of a resistor and a capacitor",
    about: "time = −resistor × capacitor × ln(1 − share reached)",
    figure: "time to the share",
    unit: "s",
    inputs: [
      { key: "resistor", label: "Resistor", unit: "Ω", part: "resistor" },
      { key: "capacitor", label: "Capacitor", unit: "F", part: "capacitor" },
      { key: "share", label: "Share reached", unit: "%", usual: "63.2 %" },
    ],
    compute: (v) => -v.resistor! * v.capacitor! * Math.log(1 - v.share! / 100),
    beside: (v) => [
      { label: "time constant", value: v.resistor! * v.capacitor!, unit: "s" },
      { label: "corner", value: 1 / (2 * Math.PI * v.resistor! * v.capacitor!), unit: "Hz" },
    ],
    solve: { key: "resistor", from: (v, wanted) => -wanted / (v.capacitor! * Math.log(1 - v.share! / 100)) },
  },
  {
    key: "pull",
    label: "Pull-up",
    about: "current while low = supply / resistor; rise from 30 to 70 % = 0.8473 × resistor × capacitance",
    figure: "current while the line is low",
    unit: "A",
    inputs: [
      { key: "supply", label: "Supply", unit: "V" },
      { key: "resistor", label: "Resistor", unit: "Ω", part: "resistor" },
      { key: "capacitance", label: "Capacitance of the line", unit: "F", isOptional: true, usual: "100 pF" },
    ],
    compute: (v) => v.supply! / v.resistor!,
    // ln(0.7/0.3): both thresholds of one charging curve
    beside: (v) =>
      v.capacitance
        ? [{ label: "rise from 30 to 70 %", value: Math.log(7 / 3) * v.resistor! * v.capacitance, unit: "s" }]
        : [],
    solve: { key: "resistor", from: (v, wanted) => v.supply! / wanted },
  },
  {
    key: "chain",
    label: "Chain of tolerances",
    about: "figure = given × the parts above / the parts below: a gain, a range, a threshold",
    figure: "figure of the chain",
    unit: "",
    inputs: [
      { key: "given", label: "Given", unit: "", usual: "1" },
      { key: "above1", label: "Above", unit: "", part: "resistor", isOptional: true },
      { key: "above2", label: "Above, second", unit: "", part: "resistor", isOptional: true },
      { key: "below1", label: "Below", unit: "", part: "resistor", isOptional: true },
      { key: "below2", label: "Below, second", unit: "", part: "resistor", isOptional: true },
    ],
    compute: (v) => (v.given! * (v.above1 ?? 1) * (v.above2 ?? 1)) / ((v.below1 ?? 1) * (v.below2 ?? 1)),
    beside: () => [],
  },
];

export const sumKind = (key: string): SumKind | undefined => SUM_KINDS.find((k) => k.key === key);
