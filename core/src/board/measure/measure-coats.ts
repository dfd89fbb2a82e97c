import type { Finding } from "../../findings.ts";
import type { Role, Side } from "../../role/role.ts";
import type { BoardFile } from "../board-file.ts";
import {
  addExpansions,
  addPitches,
  foreignInOpenings,
  isIn,
  legendOverPads,
  type OpenPad,
  textHeights,
} from "../copper/coats.ts";
import { addSpaces, addStrokes, type LayerSolids } from "../copper/copper.ts";
import { aperturesOf, FOILS, openingsOf, pasteGrams, stencilFigures, thickestFoil } from "../copper/paste.ts";
import { type EdgeContacts, type Measure, MOST_OPENINGS } from "../measure-document.ts";
import type { Outline } from "../outline/outline.ts";
import { r6, Worst } from "../worst.ts";
import { findEdgeContacts } from "./edge-contacts.ts";

interface Input {
  readonly first: (role: Role, side?: Side) => BoardFile | undefined;
  readonly masks: readonly (LayerSolids | undefined)[];
  readonly copper: readonly LayerSolids[];
  /** Pads of each copper layer. */
  readonly openOf: readonly (readonly OpenPad[])[];
  readonly outline: Outline | undefined;
  readonly coat: (role: "paste" | "legend", side: "top" | "bottom") => LayerSolids | undefined;
  /** Net of a piece of a copper layer. */
  readonly netOf: (layer: number, piece: number) => number;
}

type Counts = Pick<
  Measure,
  "smdPads" | "maskOpenings" | "paste" | "stencil" | "fiducials" | "testPads" | "edgeContacts"
>;

/** Functions of pads that a component is soldered to. */
const SOLDERED = new Set(["SMDPad", "ComponentPad", "BGAPad", "ConnectorPad", "HeatsinkPad", "TestPad"]);

/** What is known of one side while its coats are measured. */
interface Coated {
  readonly side: "top" | "bottom";
  /** Index of its copper; −1 where it has none. */
  readonly index: number;
  readonly copper: LayerSolids | undefined;
  readonly pads: readonly OpenPad[];
  readonly mask: LayerSolids | undefined;
  readonly ink: LayerSolids | undefined;
  readonly hasPaste: (x: number, y: number) => boolean;
}

/** Mask, paste and silkscreen of both sides, and what is told from them: fiducials, test pads, contacts. */
export function measureCoats(d: Input, findings: Finding[]): Coats {
  const inks = SIDES.map((side) => d.coat("paste", side));
  const m = new CoatMeasures(d, findings);
  SIDES.forEach((side, i) => {
    const index = d.copper.findIndex((l) => l.name === side);
    const ink = inks[i];
    m.measure({
      side,
      index,
      copper: d.copper[index],
      pads: index < 0 ? [] : d.openOf[index]!,
      mask: d.masks[i],
      ink,
      hasPaste: (x, y) => ink !== undefined && isIn(ink, x, y),
    });
  });
  const hasInk = inks.some((x) => x !== undefined);
  return {
    ...m.done(),
    // without any paste layer every pad may carry a part
    isSoldered: (p) =>
      !hasInk || inks.some((x) => x?.name.endsWith(d.copper[p.layer]!.name) && isIn(x, p.x, p.y)),
  };
}

const SIDES = ["top", "bottom"] as const;

/** What the coats of a board measure. */
export interface Coats {
  readonly keys: Record<string, unknown>;
  readonly counts: Counts;
  readonly isSoldered: (p: OpenPad) => boolean;
  /** Silkscreen by side; undefined where it was given up, absent where no file holds it. */
  readonly legends: Map<"top" | "bottom", LayerSolids | undefined>;
}

/** Gathers the measures of the coats side by side. */
class CoatMeasures {
  private readonly d: Input;
  private readonly findings: Finding[];
  private readonly web = new Worst();
  private readonly expansion = new Worst();
  private readonly line = new Worst();
  private readonly opening = new Worst();
  private readonly pitch = new Worst();
  private readonly text = new Worst();
  private readonly foreign = new Worst();
  private readonly maskOpenings: Record<string, { count: number }> = {};
  private readonly paste: Record<string, { count: number; areaMm2: number }> = {};
  private readonly stencil: Record<string, NonNullable<Measure["stencil"]>[string]> = {};
  private readonly smdPads: Record<string, number> = {};
  private readonly fiducials: Record<string, number> = {};
  private readonly testPads: Record<string, number> = {};
  private readonly edgeContacts: Record<string, EdgeContacts> = {};
  private readonly legends: Coats["legends"] = new Map();

  constructor(d: Input, findings: Finding[]) {
    this.d = d;
    this.findings = findings;
  }

  measure(c: Coated): void {
    this.maskOf(c);
    this.pasteOf(c);
    this.legendOf(c);
    const { side, copper, pads, mask, hasPaste } = c;
    if (!copper) return;
    if (mask) this.padsOf(c, copper, mask);
    const { outline } = this.d;
    const contacts = outline?.isClosed ? findEdgeContacts(copper, pads, outline, hasPaste, mask) : undefined;
    if (contacts) this.edgeContacts[side] = contacts;
  }

  private maskOf({ side, index, copper, pads, mask }: Coated): void {
    if (mask) {
      this.maskOpenings[side] = { count: mask.islands.groups.count() };
      addSpaces(this.web, { ...mask, name: `mask ${side}` });
      if (!copper) return;
      addExpansions(this.expansion, copper, mask, pads);
      const bared = foreignInOpenings(this.foreign, mask, copper, pads, (k) => this.d.netOf(index, k));
      sayBared(bared, side, this.findings);
    } else if (copper)
      this.findings.push({
        tag: "mask-missing",
        level: "warning",
        text: `There is no mask layer for the ${side}.`,
        do: "Export it, or say in the notes that this side has no mask.",
      });
  }

  private pasteOf({ side, copper, ink }: Coated): void {
    const openings = ink ? openingsOf(ink) : [];
    if (openings.length === 0) return;
    this.paste[side] = { count: openings.length, areaMm2: r6(openings.reduce((a, o) => a + o.areaMm2, 0)) };
    this.stencil[side] = {
      byThicknessMm: stencilFigures(openings),
      thickestMm: r6(thickestFoil(openings)),
      apertures: aperturesOf(openings),
      ...(openings.length <= MOST_OPENINGS
        ? { openings: openings.flatMap((o) => [o.x, o.y, o.widthMm, o.lengthMm].map(r6)) }
        : {}),
      pasteGrams: Object.fromEntries(FOILS.map((t) => [t.toFixed(2), r6(pasteGrams(openings, t))])),
    };
    if (copper) checkPaste(openings, copper, side, this.findings);
  }

  private legendOf({ side, copper, pads, mask }: Coated): void {
    const legend = this.d.coat("legend", side);
    if (this.d.first("legend", side)?.layer) this.legends.set(side, legend);
    if (!legend) return;
    addStrokes(this.line, legend.image, `legend ${side}`);
    for (const t of textHeights(legend)) this.text.add(t.mm, `legend ${side}`, t.x, t.y);
    if (!mask || !copper) return;
    const over = legendOverPads(this.opening, { ...legend, name: `legend ${side}` }, mask, pads);
    sayOver(over, side, this.findings);
  }

  private padsOf({ side, pads, hasPaste }: Coated, copper: LayerSolids, mask: LayerSolids): void {
    const smd = pads.filter((p) => p.body < 0 && p.opening >= 0);
    const marks = smd.filter((p) => isFiducial(p, copper, mask, hasPaste));
    const tests = smd.filter((p) => p.fn === "TestPad" || (p.ref !== undefined && /^TP\d*/.test(p.ref)));
    this.smdPads[side] = smd.filter((p) => p.fn !== "FiducialPad").length;
    if (marks.length > 0) this.fiducials[side] = marks.length;
    if (tests.length > 0) this.testPads[side] = tests.length;
    addPitches(this.pitch, copper, pads);
    checkCovered(pads, mask, side, hasPaste, this.findings);
  }

  done(): Omit<Coats, "isSoldered"> {
    const { smdPads, maskOpenings, paste, stencil, fiducials, testPads, edgeContacts } = this;
    return {
      legends: this.legends,
      keys: {
        ...this.web.keys("minMaskWeb"),
        ...this.expansion.keys("minMaskExpansion"),
        ...this.foreign.keys("minOpeningToCopper"),
        ...this.line.keys("minLegendLine"),
        ...this.opening.keys("minLegendToOpening"),
        ...this.text.keys("minLegendText"),
        ...this.pitch.keys("minPitch"),
      },
      counts: {
        smdPads,
        maskOpenings,
        paste,
        stencil,
        fiducials,
        testPads,
        ...(Object.keys(edgeContacts).length > 0 ? { edgeContacts } : {}),
      },
    };
  }
}

/** A bare round dot for cameras: said so, or round, in an opening at least twice as wide, without paste. */
function isFiducial(
  p: OpenPad,
  copper: LayerSolids,
  mask: LayerSolids,
  hasPaste: (x: number, y: number) => boolean,
): boolean {
  if (p.fn !== undefined) return p.fn === "FiducialPad";
  const a = copper.image.aperture[p.object]!;
  const mm = a >= 0 ? copper.image.apertures[a]!.circleMm : undefined;
  if (mm === undefined || mm < 0.5 || mm > 3 || hasPaste(p.x, p.y)) return false;
  const b = mask.solids.box;
  const o = p.opening * 4;
  return Math.min(b[o + 2]! - b[o]!, b[o + 3]! - b[o + 1]!) >= 2 * mm - 0.01;
}

/** Pads that a part is soldered to but the mask covers. */
function checkCovered(
  pads: readonly OpenPad[],
  mask: LayerSolids,
  side: string,
  hasPaste: (x: number, y: number) => boolean,
  findings: Finding[],
): void {
  const covered = pads.filter(
    (p) =>
      p.opening < 0 &&
      (SOLDERED.has(p.fn ?? "") || p.pin !== undefined || hasPaste(p.x, p.y)) &&
      !isIn(mask, p.x, p.y),
  );
  if (covered.length === 0) return;
  const [p] = covered as [OpenPad];
  findings.push({
    tag: "mask-over-pad",
    level: "warning",
    at: { layer: `mask ${side}`, x: p.x, y: p.y },
    about: [...new Set(covered.flatMap((c) => (c.ref ? [c.ref] : [])))],
    text: `${covered.length} ${covered.length === 1 ? "pad" : "pads"} to be soldered on the ${side} ${covered.length === 1 ? "lies" : "lie"} under the mask.`,
    do: "Open the mask over them and export the layer again.",
  });
}

/** Paste openings that have no copper under them. */
function checkPaste(
  openings: readonly { readonly x: number; readonly y: number }[],
  copper: LayerSolids,
  side: string,
  findings: Finding[],
): void {
  const bare = openings.filter((o) => !isIn(copper, o.x, o.y));
  if (bare.length === 0) return;
  findings.push({
    tag: "paste-without-pad",
    level: bare.length > openings.length / 2 ? "error" : "warning",
    at: { layer: `paste ${side}`, x: bare[0]!.x, y: bare[0]!.y },
    text: `${bare.length} of ${openings.length} paste openings on the ${side} have no copper under their middle.`,
    do: "Check that paste and copper share origin and side.",
  });
}

function sayBared(
  bared: readonly { x: number; y: number; pad: OpenPad }[],
  side: string,
  findings: Finding[],
): void {
  const [first] = bared;
  if (!first) return;
  const refs = [...new Set(bared.flatMap((b) => (b.pad.ref ? [b.pad.ref] : [])))];
  findings.push({
    tag: "mask-bares-copper",
    level: "warning",
    at: { layer: `mask ${side}`, x: first.x, y: first.y },
    about: refs,
    text: `${bared.length === 1 ? "One opening" : `${bared.length} openings`} in the mask on the ${side} ${bared.length === 1 ? "bares" : "bare"} copper of another net beside ${bared.length === 1 ? "its pad" : "their pads"}.`,
    do: "Solder may bridge there: make the opening smaller, or move the copper away.",
  });
}

function sayOver(
  over: readonly { x: number; y: number; pad: OpenPad }[],
  side: string,
  findings: Finding[],
): void {
  const [first] = over;
  if (!first) return;
  findings.push({
    tag: "legend-over-pad",
    level: "warning",
    at: { layer: `legend ${side}`, x: first.x, y: first.y },
    about: [...new Set(over.flatMap((o) => (o.pad.ref ? [o.pad.ref] : [])))],
    text: `Silkscreen is printed over ${over.length} ${over.length === 1 ? "pad" : "pads"} on the ${side}.`,
    do: "Houses clip it; move the text if it must be read.",
  });
}
