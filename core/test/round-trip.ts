import { readBoard } from "../src/board/read/read.ts";
import { readBom } from "../src/bom/bom.ts";
import type { Finding } from "../src/findings.ts";
import { readPlacement } from "../src/placement/placement.ts";
import { settlePlacements } from "../src/placement/settle.ts";
import { type Chance, chance } from "./random.ts";
import { meantHoles, writeDrill } from "./write-drill.ts";
import { meantLines, writeList } from "./write-list.ts";
import { meantPlaces, writePlacement } from "./write-placement.ts";

/** What came of a file whose meaning is known. */
export interface Outcome {
  readonly isRight: boolean;
  /** A finding above a remark, or one about the unit or reading that was taken, stands beside what was read. */
  readonly isSaid: boolean;
  readonly meant: string;
  readonly read: string;
  readonly file: string;
}

type Case = (c: Chance) => Outcome;

const said = (findings: readonly Finding[], tags: readonly string[]) =>
  findings.some((f) => f.level !== "remark" || tags.includes(f.tag));
const rows = (cells: readonly (readonly string[])[]) => cells.map((r) => r.join(" | ")).join("\n");

const places: Case = (c) => {
  const parts = meantPlaces(c);
  const { cells, isOpen } = writePlacement(parts, c);
  const read = readPlacement(cells, "places.csv");
  const findings = [...read.findings];
  const settled = settlePlacements(read, [0, 0, 100, 80], "places.csv", findings);
  const text = (list: typeof settled.parts) =>
    list
      .map((p) => `${p.ref} ${p.xMm.toFixed(2)} ${p.yMm.toFixed(2)} ${p.rotationDeg.toFixed(1)} ${p.side}`)
      .join(", ");
  const isNear = (a: number, b: number) => Math.abs(a - b) < 0.006;
  const isRight =
    settled.parts.length === parts.length &&
    settled.parts.every((p, i) => {
      const m = parts[i]!;
      return (
        p.ref === m.ref &&
        isNear(p.xMm, m.xMm) &&
        isNear(p.yMm, m.yMm) &&
        Math.abs(p.rotationDeg - m.rotationDeg) < 0.01 &&
        p.side === m.side
      );
    });
  return {
    // a unit that was assumed is right only where it is said
    isRight: isRight && (!isOpen || findings.some((f) => f.tag === "unit-assumed")),
    isSaid: said(findings, ["unit-assumed"]),
    meant: text(parts),
    read: `${text(settled.parts)}; ${findings.map((f) => f.tag).join(" ")}`,
    file: rows(cells),
  };
};

const lists: Case = (c) => {
  const lines = meantLines(c);
  const cells = writeList(lines, c);
  const bom = readBom(cells, "list.csv");
  const meant = lines.map(
    (l) =>
      `${l.refs.join(" ")} ${l.si?.toPrecision(4) ?? ""} ${l.package} ${l.mpn} ${l.mpn === "" ? "" : l.maker} ${l.dnp ? "off" : "on"}`,
  );
  const read = bom.lines.map(
    (l) =>
      `${l.refs.join(" ")} ${l.value?.si.toPrecision(4) ?? ""} ${l.package} ${l.mpn} ${l.maker} ${l.dnp ? "off" : "on"}`,
  );
  return {
    isRight: meant.join("\n") === read.join("\n"),
    isSaid: said(bom.findings, []),
    meant: meant.join("\n"),
    read: `${read.join("\n")}\n${bom.findings.map((f) => `${f.tag}: ${f.text}`).join("\n")}`,
    file: rows(cells),
  };
};

const drills: Case = (c) => {
  const holes = meantHoles(c);
  const { text, isOpen } = writeDrill(holes, c);
  const u = (v: number) => Math.round(v * 1e6);
  const pads = holes.map((h) => `X${u(h.x)}Y${u(h.y)}D03*`).join("");
  const copper = `%FSLAX46Y46*%%MOMM*%%ADD10C,1.6*%D10*${pads}M02*`;
  const edge = `%FSLAX46Y46*%%MOMM*%%ADD10C,0.1*%D10*X0Y0D02*G01X${u(64)}D01*Y${u(52)}D01*X0D01*Y0D01*M02*`;
  const set = readBoard(
    [
      ["b.gtl", copper],
      ["b.gko", edge],
      ["b.drl", text],
    ].map(([path, t]) => ({ path: path!, bytes: new TextEncoder().encode(t) })),
  );
  const data = set.files.find((f) => f.path === "b.drl")?.drill;
  const key = (x: number, y: number, mm: number) => `${x.toFixed(2)} ${y.toFixed(2)} ${mm.toFixed(2)}`;
  const near = (a: readonly number[], b: readonly number[]) => a.every((v, i) => Math.abs(v - b[i]!) < 0.006);
  const meant = holes.map((h) => [h.x, h.y, ...(h.to ?? []), h.mm]);
  const read = [
    ...(data?.hits ?? []).map((h) => [h.x, h.y, h.diameterMm]),
    ...(data?.routs ?? []).map((r) => [...r.points[0]!, ...r.points.at(-1)!, r.widthMm]),
  ];
  const free = [...read];
  const isRight =
    meant.length === read.length &&
    meant.every((m) => {
      const k = free.findIndex((r) => r.length === m.length && near(r, m));
      if (k >= 0) free.splice(k, 1);
      return k >= 0;
    });
  const own = set.findings.filter((f) => f.file === "b.drl");
  return {
    // a reading that was weighed is right only where it is said
    isRight: isRight && (!isOpen || own.some((f) => f.tag === "drill-unit-unknown")),
    isSaid: said(own, ["drill-unit-unknown"]),
    meant: meant.map((m) => key(m[0]!, m[1]!, m.at(-1)!)).join(", "),
    read: `${read.map((m) => key(m[0]!, m[1]!, m.at(-1)!)).join(", ")}; ${own.map((f) => f.tag).join(" ")}`,
    file: text,
  };
};

export const WRITERS: Readonly<Record<"places" | "lists" | "drills", Case>> = { places, lists, drills };

/** Writes and reads cases 0 … count − 1 of a seed: how many came back as meant, how many did not and were said, and the first that was neither. */
export function roundTrips(
  what: keyof typeof WRITERS,
  count: number,
  seed: number,
): { right: number; said: number; silent: (Outcome & { readonly n: number }) | undefined } {
  let [right, saidOnly] = [0, 0];
  let silent: (Outcome & { n: number }) | undefined;
  for (let n = 0; n < count; n++) {
    const o = WRITERS[what](chance(seed * 1_000_003 + n));
    if (o.isRight) right++;
    else if (o.isSaid) saidOnly++;
    else silent ??= { n, ...o };
  }
  return { right, said: saidOnly, silent };
}
