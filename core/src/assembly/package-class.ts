import { lettersOf } from "../bom/refs.ts";

/** How a package behaves under tweezers, iron and paste. */
export type PackageClass =
  | "chip"
  | "chip0402"
  | "chip0201"
  | "diode"
  | "small"
  | "tab"
  | "gull"
  | "gullFine"
  | "leadless"
  | "ball"
  | "connector"
  | "through"
  | "loose";

/** Class and number of joints of a part. */
export interface PartShape {
  readonly kind: PackageClass;
  readonly joints: number;
  readonly isPolarised: boolean;
}

/**
 * Class of a part from its package text and reference. Names are the field's own (chip sizes, SOT, SOIC, QFP, QFN);
 * what is not recognised counts as a chip when it is placed by machine, as through-hole otherwise.
 *
 * @param hasPlace it stands in the placement file, so it is surface-mounted
 */
export function shapeOf(packageText: string, ref: string | undefined, hasPlace: boolean): PartShape {
  const p = packageText.toUpperCase();
  const letters = lettersOf(ref ?? "");
  const isPolarised =
    ["D", "LED", "U", "IC", "Q", "BT"].includes(letters) || /TANT|ELEC|CASE-[A-E]\b/.test(p);
  const make = (kind: PackageClass, joints: number): PartShape => ({ kind, joints, isPolarised });
  const tail = Number(/(?:-|_)?(\d{1,3})(?:\D*)$/.exec(p)?.[1] ?? 0);
  if (ref === undefined) return { kind: "loose", joints: 0, isPolarised: false };
  if (
    /HDR|HEADER|TERM|CONN|DIP\b|TO-?220|TO-?92|KEY|SCREW|JACK|PIN_?HEADER|RADIAL|AXIAL/.test(p) ||
    (!hasPlace && /^(J|P|X|CN|SW|BT|K|DS)$/.test(letters))
  ) {
    const joints = throughJoints(p, tail);
    return hasPlace && !/HDR|TERM|DIP|TO-/.test(p) ? make("connector", joints) : make("through", joints);
  }
  if (/BGA|LGA|CSP/.test(p)) return make("ball", Math.max(4, tail));
  if (/QFN|DFN|SON\b|LCC/.test(p)) return make("leadless", Math.max(4, tail) + 1);
  if (/SOT-?223|SOT-?89|DPAK|TO-?25[0-9]/.test(p)) return make("tab", 4);
  if (/SOT|SC-?70|SC-?88/.test(p)) return make("small", smallJoints(p));
  if (/SOD|SMA|SMB|SMC|MELF|DO-?21/.test(p)) return make("diode", 2);
  if (/QFP/.test(p)) return make(tail >= 44 ? "gullFine" : "gull", Math.max(8, tail));
  if (/TSSOP|SSOP|MSOP|SOIC|SO-?\d|SOP/.test(p)) return make("gull", Math.max(5, tail));
  if (/XTAL|CRYSTAL|OSC/.test(p)) return make("small", 4);
  if (/(^|\D)(0201|01005)(\D|$)/.test(p)) return make("chip0201", 2);
  if (/(^|\D)0402(\D|$)/.test(p)) return make("chip0402", 2);
  return hasPlace || /(^|\D)(0603|0805|1206|1210|1812|2010|2512)(\D|$)/.test(p)
    ? make("chip", 2)
    : make("through", 2);
}

/** Leads of what goes through the board. Names of two-lead and three-lead shapes end in sizes, not in numbers of leads. */
function throughJoints(p: string, tail: number): number {
  const rows = /(\d+)X0?(\d+)/.exec(p);
  if (/KEY/.test(p)) return 4;
  if (rows && Number(rows[1]) <= 4) return Number(rows[1]) * Number(rows[2]);
  const metal = /TO-?(?:220|92)(?:[-_](\d))?/.exec(p);
  if (metal) return Number(metal[1] ?? 3);
  return /RADIAL|AXIAL/.test(p) ? 2 : Math.max(2, Math.min(tail, 200));
}

/** Leads of a small outline by its published number, else the figure behind a dash, else three. */
const SMALL: readonly (readonly [RegExp, number])[] = [
  [/SOT-?(363|563|666|963)|SC-?88(?!A)/, 6],
  [/SOT-?(353|553)|SC-?88A/, 5],
  [/SOT-?(143|343)/, 4],
];
const smallJoints = (p: string): number =>
  Number(/[-_]([3-8])$/.exec(p)?.[1] ?? SMALL.find(([is]) => is.test(p))?.[1] ?? 3);
