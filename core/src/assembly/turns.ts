/** Degrees by package, counter-clockwise: how far a house's own zero lies from the layout's. */
export type Turns = Readonly<Record<string, number>>;

/** Packages are the same however they are written: SOT-23, sot23, SOT 23. */
export const packageKey = (pkg: string): string => pkg.toUpperCase().replace(/[^A-Z0-9]/g, "");

/**
 * Degrees a part of a package is turned for a house, counter-clockwise, seen from the top as in the layout; 0 where the
 * house expects the layout's own angle.
 */
export function turnFor(turns: Turns | undefined, pkg: string): number {
  const key = packageKey(pkg);
  if (!turns || key === "") return 0;
  return Object.entries(turns).find(([p]) => packageKey(p) === key)?.[1] ?? 0;
}

/** An angle as a placement file has it: from 0 to below 360, to a thousandth. */
export const angleOf = (degrees: number): number => {
  const a = Math.round((((degrees % 360) + 360) % 360) * 1000) / 1000;
  // 359.9996° is 0° once it is rounded
  return a % 360;
};

/** Turns as they are typed: `SOT-23 180, QFN-16 -90`. */
export const turnsText = (turns: Turns | undefined): string =>
  Object.entries(turns ?? {})
    .map(([p, d]) => `${p} ${d}`)
    .join(", ");

/**
 * Reads what was typed: a package and degrees each, between commas or lines; a package may hold blanks.
 *
 * @returns the turns, or what cannot be read
 */
export function readTurns(text: string): { readonly turns: Turns } | { readonly wrong: string } {
  const turns: Record<string, number> = {};
  const seen = new Set<string>();
  for (const part of text.split(/[,;\n]/).map((s) => s.trim())) {
    if (part === "") continue;
    const [, pkg, degrees] = /^(\S.*?)[\s:=]+([+-]?\d{1,3}(?:[.]\d{1,3})?)\s*°?$/.exec(part) ?? [];
    if (pkg === undefined || Math.abs(Number(degrees)) > 360 || packageKey(pkg) === "")
      return { wrong: `“${part}” is no package with its degrees, such as SOT-23 180.` };
    if (seen.has(packageKey(pkg))) return { wrong: `${pkg} is named twice.` };
    seen.add(packageKey(pkg));
    turns[pkg] = Number(degrees);
  }
  return { turns };
}

/** Parts that are turned for a house, by package: for its sheet and for who looks it over. */
export function turnedParts(
  turns: Turns | undefined,
  parts: readonly { readonly package: string; readonly refs: readonly string[] }[],
): { readonly package: string; readonly degrees: number; readonly refs: readonly string[] }[] {
  const found = new Map<string, { package: string; degrees: number; refs: string[] }>();
  for (const p of parts) {
    const degrees = turnFor(turns, p.package);
    if (degrees % 360 === 0) continue;
    const key = packageKey(p.package);
    const row = found.get(key) ?? { package: p.package, degrees, refs: [] };
    row.refs.push(...p.refs);
    found.set(key, row);
  }
  return [...found.values()];
}

/** One turned package in words. @example "SOT-23 +180°: Q1, Q2" */
export const turnedWords = (t: ReturnType<typeof turnedParts>[number]): string =>
  `${t.package} ${t.degrees > 0 ? "+" : "−"}${Math.abs(t.degrees)}°: ${t.refs.join(", ")}`;
