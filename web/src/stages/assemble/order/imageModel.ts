import { type ImageFit, isWithin, type ProgramImage } from "@kobbin/core";

/** A new image at a place. */
export const freshImage = (id: string, at: string, n: number): ProgramImage => ({
  id,
  at,
  name: `image ${n}`,
  version: "",
  file: "",
  from: "",
  tool: "",
  wires: [],
  settings: "",
  command: "",
  expect: "",
  fits: [],
  values: [],
});

export const changed = (
  images: readonly ProgramImage[],
  id: string,
  more: Partial<ProgramImage>,
): ProgramImage[] => images.map((i) => (i.id === id ? { ...i, ...more } : i));

/** One earlier or later in the order in which images are loaded. */
export function moved(images: readonly ProgramImage[], id: string, by: -1 | 1): ProgramImage[] {
  const at = images.findIndex((i) => i.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= images.length) return [...images];
  const next = [...images];
  [next[at], next[to]] = [next[to]!, next[at]!];
  return next;
}

/** Lines as people write them; what cannot be read is told with its line, and nothing of it is kept. */
type Read<T> = { readonly rows: readonly T[] } | { readonly wrong: string };
const lines = (text: string): string[] =>
  text
    .split(/[\r\n;]+/)
    .map((l) => l.trim())
    .filter((l) => l !== "");

/** "J5.1 – red clip", "J5.1 → red clip", "J5.1 red clip": a contact of the board, then where it goes. */
export function typedWires(text: string): Read<ProgramImage["wires"][number]> {
  const rows = [];
  for (const l of lines(text)) {
    const m = /^([^\s=:–—→>-]+)\s*(?:->|=>|→|–|—|=|:|-|\s)\s*(.+)$/.exec(l);
    if (!m) return { wrong: `“${l}” says no contact and where it goes: write it as J5.1 = red clip.` };
    if (m[1]!.length > 80 || m[2]!.length > 80) return { wrong: `“${l.slice(0, 40)} …” is too long.` };
    rows.push({ pin: m[1]!, to: m[2]! });
  }
  return rows.length > 40 ? { wrong: "There may be 40 contacts." } : { rows };
}

const IS: Readonly<Record<string, ImageFit["is"]>> = {
  yes: "yes",
  no: "no",
  limits: "limits",
  "with limits": "limits",
};

/** "1.4–1.9 on B: yes", "≥ 2.0 on A + 1 rework: no, pins moved": versions, a revision, whether they run, why. */
export function typedFits(text: string): Read<ImageFit> {
  const rows: ImageFit[] = [];
  for (const l of lines(text)) {
    const m = /^(.+?)\s+on\s+(.+?)\s*:\s*(with limits|limits|yes|no)\b\s*[,:–-]?\s*(.*)$/i.exec(l);
    if (!m) return { wrong: `“${l}” cannot be read: write it as 1.4–1.9 on B: yes.` };
    const [, versions, revision, is, why] = m as unknown as [string, string, string, string, string];
    if (isWithin("1", versions) === undefined)
      return { wrong: `“${versions}” is no range of versions: write it as 1.4–1.9, ≥ 2.0 or all.` };
    rows.push({ versions, revision, is: IS[is.toLowerCase()]!, why });
  }
  return rows.length > 60 ? { wrong: "There may be 60 rows." } : { rows };
}

/** "number; network key (wiped)": what each board is given, and what of it is wiped before it goes out. */
export function typedValues(text: string): Read<ProgramImage["values"][number]> {
  const rows = lines(text.replaceAll(",", ";")).map((l) => {
    const wiped = /\s*\(wiped\)$/i;
    return { name: l.replace(wiped, "").slice(0, 80), isWiped: wiped.test(l) };
  });
  if (new Set(rows.map((r) => r.name)).size < rows.length) return { wrong: "One stands twice." };
  return rows.length > 20 ? { wrong: "There may be 20 values." } : { rows };
}

export const wiresText = (i: ProgramImage): string => i.wires.map((w) => `${w.pin} = ${w.to}`).join("\n");
export const fitsText = (i: ProgramImage): string =>
  i.fits
    .map(
      (f) =>
        `${f.versions} on ${f.revision}: ${f.is === "limits" ? "with limits" : f.is}${f.why ? `, ${f.why}` : ""}`,
    )
    .join("\n");
export const valuesText = (i: ProgramImage): string =>
  i.values.map((v) => `${v.name}${v.isWiped ? " (wiped)" : ""}`).join("; ");
