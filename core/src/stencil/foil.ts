import { analyseLayer } from "../board/copper/copper.ts";
import { areaRatio, FOILS, LEAST_AREA_RATIO, openingsOf, pasteGrams } from "../board/copper/paste.ts";
import type { KnownPin } from "../board/pins.ts";
import type { LayerImage } from "../gerber/image.ts";
import { readLayer } from "../gerber/read.ts";
import { plainBytes, writeAreas } from "../gerber/write.ts";
import { areaOf, type Corrected, type CorrectionWishes, correctOpenings } from "./correct.ts";
import { type FoilOpening, foilOpenings } from "./openings.ts";

/** Least width over thickness for a long opening (recalled from IPC-7525). */
const LEAST_ASPECT = 1.5;
/** An opening is long from so many widths on. */
const LONG = 5;
/** Thickest foil for openings so near together, mm (domain.md 2.7). */
const THICKEST_BY_PITCH = [
  { uptoMm: 0.5, foilMm: 0.1 },
  { uptoMm: 0.649, foilMm: 0.12 },
] as const;

/** An opening through the foil in question. */
export interface FoilPlace {
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly pin?: string;
  readonly pitchMm?: number;
  readonly areaRatio: number;
  /** What is wrong with it in this foil. */
  readonly fault?: "stays in the foil" | "floods its pad";
  readonly drawn: readonly (readonly number[])[];
  readonly cut: Corrected;
}

/** A foil of one side, worked out: every opening, every foil thickness, the file to cut from and what it measures. */
export interface FoilWork {
  readonly foilMm: number;
  readonly openings: readonly FoilPlace[];
  readonly foils: readonly {
    readonly foilMm: number;
    readonly stay: number;
    readonly flood: number;
    /** The thickest one without a fault, else the one with the fewest. */
    readonly isBest: boolean;
  }[];
  /** The corrected layer, to be sent to whoever cuts. */
  readonly file: string;
  /** What our reader measures of that file: it is offered only where it agrees. */
  readonly again: { readonly count: number; readonly areaMm2: number; readonly agrees: boolean };
  /** Grams printed on one board, through the openings as drawn and as cut. */
  readonly grams: { readonly drawn: number; readonly cut: number };
  /** Narrowest opening of the cut foil, mm: it decides the powder. */
  readonly narrowestMm?: number;
  /** Openings whose part the files do not tell: nothing of them can be left out. */
  readonly unknown: number;
}

const faultOf = (o: FoilOpening, foilMm: number, isNarrowed: boolean): FoilPlace["fault"] => {
  const isLong = o.lengthMm > LONG * o.widthMm;
  if (areaRatio(o, foilMm) < LEAST_AREA_RATIO - 1e-9 || (isLong && o.widthMm / foilMm < LEAST_ASPECT - 1e-9))
    return "stays in the foil";
  const most = THICKEST_BY_PITCH.find((t) => o.pitchMm !== undefined && o.pitchMm <= t.uptoMm + 1e-6);
  if (!most || o.widthMm > (o.pitchMm ?? 0)) return undefined;
  // a narrower opening takes one step more
  const limit = isNarrowed ? most.foilMm + 0.02 : most.foilMm;
  return foilMm > limit + 1e-9 ? "floods its pad" : undefined;
};

/**
 * Works a foil out: what each opening does in each thickness, the openings as they are to be cut, the file, and the file
 * measured again by the reader.
 *
 * @param paste the paste layer as drawn
 * @param side for the file's own statement
 * @param pins pads of that side whose pin the files tell
 */
export function foilWork(
  paste: LayerImage,
  side: "top" | "bottom",
  pins: readonly KnownPin[],
  wishes: CorrectionWishes,
): FoilWork {
  const openings = foilOpenings(analyseLayer(paste, `paste ${side}`), pins);
  const cut = correctOpenings(openings, wishes);
  const isCut = (i: number) => cut[i]!.kind !== "left out";
  const foils = FOILS.map((foilMm) => {
    const own = foilMm === wishes.foilMm ? cut : correctOpenings(openings, { ...wishes, foilMm });
    const faults = openings.map((o, i) =>
      own[i]!.kind === "left out" ? undefined : faultOf(o, foilMm, own[i]!.kind === "narrowed"),
    );
    return {
      foilMm,
      stay: faults.filter((f) => f === "stays in the foil").length,
      flood: faults.filter((f) => f === "floods its pad").length,
    };
  });
  const best = [...foils].sort((a, b) => a.stay + a.flood - (b.stay + b.flood) || b.foilMm - a.foilMm)[0]!;
  const rings = cut.flatMap((c) => c.rings);
  const file = writeAreas(rings, [
    ["FileFunction", "Paste", side === "top" ? "Top" : "Bot"],
    ["FilePolarity", "Positive"],
  ]);
  const read = openingsOf(analyseLayer(readLayer(plainBytes(file), `paste-${side}.gbr`), "again"));
  const areaMm2 = read.reduce((n, o) => n + o.areaMm2, 0);
  const left = openings.filter((_, i) => isCut(i));
  return {
    foilMm: wishes.foilMm,
    openings: openings.map((o, i): FoilPlace => {
      const fault = isCut(i) ? faultOf(o, wishes.foilMm, cut[i]!.kind === "narrowed") : undefined;
      return {
        x: o.x,
        y: o.y,
        widthMm: o.widthMm,
        lengthMm: o.lengthMm,
        ...(o.pin === undefined ? {} : { pin: o.pin }),
        ...(o.pitchMm === undefined ? {} : { pitchMm: o.pitchMm }),
        areaRatio: areaRatio(o, wishes.foilMm),
        ...(fault ? { fault } : {}),
        drawn: o.rings,
        cut: cut[i]!,
      };
    }),
    foils: foils.map((f) => ({ ...f, isBest: f === best })),
    file,
    again: {
      count: read.length,
      areaMm2,
      agrees:
        read.length === rings.length && Math.abs(areaMm2 - areaOf(rings)) <= 1e-6 * Math.max(1, areaMm2),
    },
    grams: { drawn: pasteGrams(left, wishes.foilMm), cut: pasteGrams(read, wishes.foilMm) },
    ...(read.length > 0 ? { narrowestMm: Math.min(...read.map((o) => o.widthMm)) } : {}),
    unknown: openings.filter((o) => o.pin === undefined).length,
  };
}
