export const thickness = (extra: readonly [string, number][]) =>
  extra.map(([value, uplift]) => ({ value, label: `${value} mm`, ...(uplift > 0 ? { uplift } : {}) }));
export const NOT_BEVELLED = { value: "none", label: "none" };
/** A bevel of an edge with contacts, by its angle to the face; set up once. */
export const bevel = (degrees: string, setup: string) => ({ value: degrees, label: `${degrees}°`, setup });

/** Heavy copper is etched under its own edge: tracks and gaps have to be wider. */
export const heavy = (value: string, uplift: number, leastMm: number) => ({
  value,
  label: `${value} µm`,
  uplift,
  limits: { minTrackMm: leastMm, minNetSpaceMm: leastMm },
});
export const NONE = { value: "none", label: "none" };
export const HALF_HOLES = {
  value: "cut",
  label: "cut through the middle",
  setup: "18",
  perDm2: "1.00",
  when: [{ key: "finish", in: ["immersion-gold"] }],
} as const;
export const TESTED = [
  { value: "probe", label: "every net, by probes" },
  { value: "none", label: "none" },
] as const;
export const VIAS = [
  { value: "tented", label: "covered by mask" },
  { value: "open", label: "open" },
] as const;
export const MARKS = [
  { value: "house", label: "where the house likes" },
  { value: "mine", label: "at my mark on the silkscreen", setup: "2.00" },
  { value: "none", label: "none", setup: "5.00" },
] as const;
/** A mask that is cured harder, so that narrow webs come off. */
export const wide = <T extends object>(c: T, webMm: number) => ({ ...c, limits: { minMaskWebMm: webMm } });

export const colour = (value: string, setup?: string, days?: number) => ({
  value,
  label: value,
  ...(setup && setup !== "0" ? { setup } : {}),
  ...(days ? { days } : {}),
});

/** What an ordinary house holds. */
export const ORDINARY = {
  thicknessShare: 0.1,
  outlineMm: 0.2,
  platedHoleMm: 0.1,
  holeMm: 0.08,
  slotMm: 0.15,
  placeMm: 0.1,
} as const;
