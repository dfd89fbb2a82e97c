import type { Design, Part } from "../design.ts";
import { outlineOf } from "../outline.ts";

const cell = (t: string) => (/[",\r\n]/.test(t) ? `"${t.replaceAll('"', '""')}"` : t);
const csv = (rows: readonly (readonly string[])[]) =>
  `${rows.map((r) => r.map(cell).join(",")).join("\r\n")}\r\n`;
const number = (ref: string) => Number(/\d+/.exec(ref)?.[0] ?? 0);

/** Parts of one kind, in the order of their first reference. */
export function linesOf(d: Design): { parts: Part[]; first: Part }[] {
  const groups = new Map<string, Part[]>();
  for (const p of d.parts) {
    const key = [p.mpn, p.value, p.package, p.dnp ? "dnp" : ""].join("|");
    groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  return [...groups.values()].map((parts) => ({
    parts: parts.sort((a, b) => number(a.ref) - number(b.ref)),
    first: parts[0]!,
  }));
}

/** Parts list, placement file, netlist and job file. */
export function writeTables(d: Design): Record<string, string> {
  const bom = csv([
    ["References", "Quantity", "Value", "Package", "Maker", "Part number", "Description", "DNP"],
    ...linesOf(d).map(({ parts, first }) => [
      /^X/.test(first.ref) ? "" : parts.map((p) => p.ref).join(" "),
      String(parts.length),
      first.value,
      first.package,
      first.maker,
      first.mpn,
      first.description,
      first.dnp ? "yes" : "",
    ]),
  ]);
  const placed = d.parts.filter((p) => p.x !== undefined && p.smd && !p.dnp);
  const places = csv([
    ["Ref", "X mm", "Y mm", "Rot deg", "Side", "Value", "Package"],
    ...placed.map((p) => [
      p.ref,
      p.x!.toFixed(4),
      p.y!.toFixed(4),
      String(p.rotation ?? 0),
      "Top",
      p.value,
      p.package,
    ]),
  ]);
  return {
    [`${d.name}-parts.csv`]: bom,
    [`${d.name}-places.csv`]: places,
    [`${d.name}-netlist.ipc`]: netlist(d),
    [`${d.name}-job.gbrjob`]: job(d),
  };
}

function netlist(d: Design): string {
  const n = (v: number) => `${v < 0 ? "-" : "+"}${String(Math.round(Math.abs(v) * 1000)).padStart(6, "0")}`;
  const s = (v: number) => String(Math.round(v * 1000)).padStart(4, "0");
  const lines = d.pads
    .filter((p) => p.function !== "FiducialPad,Global")
    .map((p) => {
      const isHole = p.drill !== undefined;
      const access = isHole ? "A00" : p.side === "bottom" ? "A02" : "A01";
      const hole = isHole ? `D${s(p.drill!)}P` : "      ";
      return `${isHole ? "317" : "327"}${(p.net || "N/C").padEnd(14)}   ${(p.ref || "VIA").padEnd(6)}-${p.pin.padEnd(4)} ${hole}${access}X${n(p.x)}Y${n(p.y)}X${s(p.w)}Y${s(p.h)}R000 S${p.mask ? "0" : "3"}`;
    });
  return `${["P  JOB   ".concat(d.name.toUpperCase()), "P  UNITS CUST 1", ...lines, "999"].join("\n")}\n`;
}

function job(d: Design): string {
  const size = outlineOf(d.edges);
  const file = (path: string, fn: string, polarity = "Positive") => ({
    Path: `${d.name}-${path}.gbr`,
    FileFunction: fn,
    FilePolarity: polarity,
  });
  return `${JSON.stringify(
    {
      Header: {
        GenerationSoftware: { Vendor: "Kobbin", Application: "Demo", Version: "1" },
        CreationDate: "2026-10-05T09:00:00+00:00",
      },
      GeneralSpecs: {
        ProjectId: { Name: d.name, GUID: "0b0b0b0b-0001-4000-8000-000000000001", Revision: d.revision },
        Size: { X: size.widthMm, Y: size.heightMm },
        LayerNumber: 2,
        BoardThickness: d.thickness,
      },
      FilesAttributes: [
        file("copper-top", "Copper,L1,Top"),
        file("copper-bottom", "Copper,L2,Bot"),
        file("mask-top", "Soldermask,Top", "Negative"),
        file("mask-bottom", "Soldermask,Bot", "Negative"),
        file("legend-top", "Legend,Top"),
        file("paste-top", "Paste,Top"),
        file("profile", "Profile,NP"),
      ],
    },
    null,
    2,
  )}\n`;
}
