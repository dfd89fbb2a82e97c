import type { PartKind } from "./part.ts";

/** How an attribute of a candidate must stand to the original's. */
export type AttributeRule =
  /** Equal, or it does not do the job. */
  | "same"
  /** Equal to within `share` of the original. */
  | "within"
  /** Equal or more is as good: ratings. */
  | "at least"
  /** Equal or less is as good: tolerance, leakage. */
  | "at most"
  /** The candidate's dielectric must cover the original's range and change. */
  | "covers"
  /** A difference changes the circuit around it. */
  | "circuit";

export interface Attribute {
  readonly key: string;
  readonly label: string;
  readonly rule: AttributeRule;
  /** For "within": the share by which it may differ. */
  readonly share?: number;
  /** What a difference does, in a sentence. */
  readonly consequence?: string;
  /** Not knowing it is a reason to look. */
  readonly isVital?: boolean;
}

const pinout: Attribute = {
  key: "pinout",
  label: "pin order",
  rule: "same",
  isVital: true,
  consequence: "Pins in another order: it cannot work on these pads and may be destroyed at power-up.",
};
const tolerance: Attribute = {
  key: "tolerance",
  label: "tolerance",
  rule: "at most",
  consequence:
    "Units will differ more from one another; look at dividers, filters and references it sits in.",
};
const height = "It stands taller: check the case and what lies over it.";
const voltage = (what = "highest voltage", consequence?: string): Attribute => ({
  key: "voltage",
  label: what,
  rule: "at least",
  consequence: consequence ?? "Compare with the highest voltage it sees, and keep a margin.",
});
const current = (what = "current"): Attribute => ({
  key: "current",
  label: what,
  rule: "at least",
  consequence: "Compare with the highest current through it.",
});

/** Attributes every class has, beside its package. */
export const COMMON: readonly Attribute[] = [
  { key: "height", label: "height", rule: "at most", consequence: height },
  {
    key: "tempMax",
    label: "warmest use",
    rule: "at least",
    consequence: "Compare with the warmest place it works in.",
  },
  {
    key: "tempMin",
    label: "coldest use",
    rule: "at most",
    consequence: "Compare with the coldest place it works in.",
  },
];

/**
 * What must match, what may be better and what changes the circuit, by class of part (domain.md 3.6).
 */
const BY_KIND: Readonly<Record<PartKind, readonly Attribute[]>> = {
  resistor: [
    { key: "value", label: "resistance", rule: "same", isVital: true },
    tolerance,
    {
      key: "power",
      label: "power",
      rule: "at least",
      consequence: "It may run too hot; half of the rating is a usual limit.",
    },
    voltage(),
    {
      key: "tempco",
      label: "temperature coefficient",
      rule: "at most",
      consequence: "Its value moves more with temperature.",
    },
    {
      key: "technology",
      label: "technology",
      rule: "circuit",
      consequence: "Noise, pulse strength and behaviour at failure differ.",
    },
  ],
  capacitor: [
    { key: "value", label: "capacitance", rule: "same", isVital: true },
    voltage(
      "rated voltage",
      "A ceramic part loses capacitance near its rated voltage; keep a factor of 1.5 to 2.",
    ),
    tolerance,
    {
      key: "dielectric",
      label: "dielectric",
      rule: "covers",
      isVital: true,
      consequence: "Its capacitance changes more with temperature.",
    },
    {
      key: "esr",
      label: "series resistance",
      rule: "circuit",
      consequence: "A regulator it belongs to may oscillate; see that one's stable range.",
    },
    {
      key: "ripple",
      label: "ripple current",
      rule: "at least",
      consequence: "It may overheat at the supply's ripple.",
    },
    {
      key: "life",
      label: "hours of life",
      rule: "at least",
      consequence: "It dries out earlier.",
    },
  ],
  inductor: [
    { key: "value", label: "inductance", rule: "same", isVital: true },
    {
      ...current("saturation current"),
      consequence: "Beyond it the converter's peak current runs away.",
    },
    {
      key: "resistance",
      label: "winding resistance",
      rule: "at most",
      consequence: "More loss and heat.",
    },
    {
      key: "shield",
      label: "shielded",
      rule: "circuit",
      consequence: "An open core disturbs what is near it.",
    },
  ],
  bead: [
    { key: "value", label: "impedance at 100 MHz", rule: "within", share: 0.25, isVital: true },
    current(),
    { key: "resistance", label: "resistance", rule: "at most", consequence: "More voltage is lost in it." },
  ],
  diode: [
    { key: "type", label: "type", rule: "same", isVital: true },
    pinout,
    voltage("reverse voltage"),
    current(),
    {
      key: "drop",
      label: "forward drop",
      rule: "at most",
      consequence: "Less voltage is left behind it, and it gets warmer.",
    },
    {
      key: "leakage",
      label: "leakage",
      rule: "at most",
      consequence: "Batteries and high-ohmic nodes lose charge through it.",
    },
  ],
  lamp: [
    { key: "colour", label: "colour", rule: "same", isVital: true },
    pinout,
    {
      key: "drop",
      label: "forward drop",
      rule: "circuit",
      consequence: "The current changes: compute its series resistor again.",
    },
    current("highest current"),
    {
      key: "brightness",
      label: "brightness",
      rule: "circuit",
      consequence: "It looks different beside the others.",
    },
    {
      key: "angle",
      label: "viewing angle",
      rule: "within",
      share: 0.2,
      consequence: "It is seen from elsewhere.",
    },
  ],
  transistor: [
    { key: "type", label: "polarity", rule: "same", isVital: true },
    pinout,
    voltage(),
    current(),
    {
      key: "threshold",
      label: "gate threshold",
      rule: "at most",
      isVital: true,
      consequence: "It may not open fully from this controller's output.",
    },
    {
      key: "gain",
      label: "gain",
      rule: "circuit",
      consequence: "The resistors around it were chosen for the other gain; compute them again.",
    },
    {
      key: "resistance",
      label: "on-resistance",
      rule: "at most",
      consequence: "It gets warmer under load.",
    },
  ],
  regulator: [
    { key: "output", label: "output voltage", rule: "same", isVital: true },
    pinout,
    voltage("highest input"),
    current("output current"),
    {
      key: "drop",
      label: "dropout",
      rule: "at most",
      consequence: "It stops regulating while the battery is still good.",
    },
    {
      key: "quiescent",
      label: "own current",
      rule: "at most",
      consequence: "Standby on a battery becomes shorter.",
    },
    {
      key: "stable",
      label: "stable with",
      rule: "circuit",
      isVital: true,
      consequence: "It may oscillate with the capacitor that is fitted now.",
    },
    {
      key: "default",
      label: "enable when open",
      rule: "circuit",
      consequence: "With the enable pin open it may start, or not start, unlike the other.",
    },
  ],
  chip: [
    { key: "function", label: "function", rule: "same", isVital: true },
    pinout,
    {
      key: "supplyMin",
      label: "lowest supply",
      rule: "at most",
      isVital: true,
      consequence: "It stops working while the supply is still good.",
    },
    {
      key: "supplyMax",
      label: "highest supply",
      rule: "at least",
      isVital: true,
      consequence: "It may be destroyed at the supply used here.",
    },
    {
      key: "drive",
      label: "outputs",
      rule: "circuit",
      isVital: true,
      consequence: "An open output floats without a pull-up; a driven one fights another on the same wire.",
    },
    {
      key: "default",
      label: "outputs at start",
      rule: "circuit",
      isVital: true,
      consequence:
        "What it drives may start before the program says so: try with the load disconnected first.",
    },
    {
      key: "gain",
      label: "gain or sensitivity",
      rule: "circuit",
      consequence: "What sets its level was chosen for the other sensitivity; compute it again.",
    },
    {
      key: "code",
      label: "identity or address",
      rule: "circuit",
      consequence: "The program looks for the other one.",
    },
  ],
  crystal: [
    { key: "value", label: "frequency", rule: "same", isVital: true },
    {
      key: "load",
      label: "load capacitance",
      rule: "same",
      isVital: true,
      consequence: "It runs off its frequency, or does not start, with the capacitors fitted now.",
    },
    tolerance,
    {
      key: "esr",
      label: "series resistance",
      rule: "at most",
      consequence: "The oscillator may not start.",
    },
  ],
  connector: [
    { key: "family", label: "mates with", rule: "same", isVital: true },
    { key: "pins", label: "pins", rule: "same", isVital: true },
    { key: "pitch", label: "pitch", rule: "same", isVital: true },
    { key: "gender", label: "plug or socket", rule: "same", isVital: true },
    { key: "orientation", label: "upright or lying", rule: "same", isVital: true },
    current("current a contact"),
    {
      key: "keying",
      label: "keying",
      rule: "circuit",
      consequence: "It can be plugged in the wrong way round, or no longer mates.",
    },
  ],
  fuse: [
    { key: "value", label: "rated current", rule: "same", isVital: true },
    { key: "type", label: "speed", rule: "same", isVital: true },
    voltage(),
    {
      key: "breaking",
      label: "breaking capacity",
      rule: "at least",
      isVital: true,
      consequence: "It may not break a short safely: this is a safety part, ask someone competent.",
    },
  ],
  switch: [
    { key: "action", label: "action", rule: "same", isVital: true },
    pinout,
    { key: "coil", label: "coil voltage", rule: "same" },
    current("contact current"),
    voltage("contact voltage"),
    {
      key: "travel",
      label: "travel and force",
      rule: "circuit",
      consequence: "It feels different, or the cap no longer fits.",
    },
  ],
  other: [],
};

/** The attributes of a class of part, its own first. */
export const attributesOf = (kind: PartKind): readonly Attribute[] => [...BY_KIND[kind], ...COMMON];
