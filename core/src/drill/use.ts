/** What holes are for, by the published attribute's words. */
const USES: Readonly<Record<string, string>> = {
  viadrill: "via",
  backdrill: "drilled back",
  componentdrill: "component",
  castellateddrill: "half hole",
  mechanicaldrill: "mechanical",
  slot: "slot",
  cutout: "cut-out",
  pressfit: "press fit",
  tooling: "tooling",
  breakout: "break-off",
  filled: "filled",
  notfilled: "not filled",
};

/** What a tool's holes are for, from the fields of its function attribute; undefined where they say nothing known. */
export function holesFor(fields: readonly string[]): string | undefined {
  const said = fields.flatMap((f) => USES[f.trim().toLowerCase()] ?? []);
  return said.length > 0 ? said.join(", ") : undefined;
}
