import { measureBoard } from "../src/board/measure.ts";
import { readBoard } from "../src/board/read/read.ts";
import { readDrill } from "../src/drill/read.ts";
import { orGivenUp } from "../src/geometry/work.ts";
import { readLayer } from "../src/gerber/read.ts";
import { latin } from "../src/gerber/scan.ts";
import { solidsOf } from "../src/gerber/solids.ts";
import { readNetlist } from "../src/netlist/read.ts";
import { chance } from "./random.ts";

type Kind = "layer" | "drill" | "netlist";

const SEEDS: Readonly<Record<Kind, string>> = {
  layer:
    "%TF.FileFunction,Copper,L1,Top*%%FSLAX46Y46*%%MOMM*%%AMA*$3=$1x2*1,1,$1,0,0*20,1,0.1,0,0,1,1,45*4,1,3,0,0,1,0,0,1,0,0,0*7,0,0,1,0.5,0.1,0*%%ADD10C,0.2*%%ADD11A,0.4X1*%%ADD12R,1X2X0.3*%%ADD13P,1X5X10*%%TO.N,GND*%G75*G36*X0Y0D02*G01X1000Y0D01*G03X0Y1000I-500J500D01*G37*%TD*%D10*X1000000Y1000000D02*X5000000Y5000000D01*%SRX2Y2I1J1*%D11*X9000000Y9000000D03*%SR*%%ABD20*%D10*X0Y0D03*%LPC*%D12*X0Y0D03*%AB*%%LMXY*%%LR30*%%LS1.5*%D20*X1000000Y1000000D03*%LPD*%D13*X0Y0D03*M02*",
  drill:
    "M48\n;FILE_FORMAT=3:3\nMETRIC,TZ\n;TYPE=PLATED\nT1C0.3\nT2C1.2\n%\nG05\nT1\nX1000Y1000\nX2000\nR3X1000\nT2\nX1.5Y2.5G85X3Y4\nG00X0Y0\nM15\nG01X3Y3\nG03X5Y3A1\nG02X9Y3I2J0\nM16\nM30\n",
  netlist:
    "C comment\nP  UNITS CUST 1\nP  NNAME1  A_LONG_NAME\n317NNAME1           U1    -1     D0300PA00X+001000Y+002000X0600Y0600R000S0\n327GND              R1    -2           A01X-001000Y+002000X0600Y0600R000S1\n999\n",
};

const PIECES: Readonly<Record<Kind, readonly string[]>> = {
  layer: [
    "%",
    "*",
    "G36*",
    "G37*",
    "G01",
    "G02",
    "G03",
    "G74*",
    "G75*",
    "G91*",
    "D01*",
    "D02*",
    "D03*",
    "D10*",
    "D11*",
    "D20*",
    "X",
    "Y",
    "I",
    "J",
    "-",
    "9".repeat(18),
    ".",
    "%LPC*%",
    "%LPD*%",
    "%SRX9999Y9999I0.1J0*%",
    "%SRX40Y40I0J0.01*%",
    "%SR*%",
    "%ABD20*%",
    "%AB*%",
    "%ABD21*%",
    "D21*",
    "%LS1e9*%",
    "%LR720*%",
    "%ADD10C,-1*%",
    "%ADD12C,99999*%",
    "%ADD11P,1X99999*%",
    "%AMB*1,1,$9/0,0,0*%",
    "%ADD14B*%",
    "%AMC*5,1,999999,0,0,1,0*%%ADD15C*%",
    "%AMD*6,0,0,9,0.0001,0.0001,99999,1,1,0*%%ADD16D*%",
    "D16*",
    "%IPNEG*%",
    "%FSTIX11Y11*%",
    "%MOIN*%",
    "%TA.AperFunction,ViaPad*%",
    "%TD*%",
    "G04 #@! TF.x*",
    "M02*",
    "\u0000",
    "\r",
    "\n",
    "",
  ],
  drill: [
    "T",
    "C",
    "X",
    "Y",
    "G85",
    "G00",
    "G01",
    "G02",
    "G03",
    "A0.0001",
    "I9",
    "R9999X1",
    "R99999999",
    "M15",
    "M16",
    "M48",
    "M95",
    "%",
    "M71",
    "M72",
    "INCH,LZ",
    "METRIC,000.000",
    "T99",
    "T1C0",
    "T1C9e9",
    "-",
    ".",
    "9".repeat(20),
    ";",
    "\n",
    "ICI,ON",
    "G91",
  ],
  netlist: [
    "317",
    "327",
    "P  UNITS CUST 9",
    "X+",
    "Y-",
    "D",
    "P",
    "A99",
    "9".repeat(12),
    "\n",
    " ",
    "NNAME1",
    "999",
    "-",
    "\u0000",
  ],
};

/** One case of a seed: a good file damaged in up to eight places, or a file put together out of the format's own pieces. */
export function fuzzCase(n: number, seed: number): { readonly kind: Kind; readonly bytes: Uint8Array } {
  const { next: rnd } = chance(seed * 1_000_003 + n);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(rnd() * list.length)]!;
  const kind = pick(["layer", "layer", "layer", "drill", "netlist"] as const);
  let text = SEEDS[kind];
  if (rnd() < 0.35) {
    const head = kind === "layer" ? "%FSLAX46Y46*%%MOMM*%%ADD10C,0.2*%%ADD11R,1X1*%" : "";
    const parts = Array.from({ length: 3 + Math.floor(rnd() * 40) }, () =>
      rnd() < 0.4 ? `X${Math.floor(rnd() * 2e7)}Y${Math.floor(rnd() * 2e7)}` : pick(PIECES[kind]),
    );
    text = head + parts.join("");
  } else
    for (let k = 1 + Math.floor(rnd() * 8); k > 0; k--) {
      const at = Math.floor(rnd() * text.length);
      const cut = rnd() < 0.5 ? 1 : Math.floor(rnd() * 30);
      const put = rnd() < 0.8 ? pick(PIECES[kind]) : text.slice(at, at + 60);
      text = text.slice(0, at) + put + text.slice(at + cut);
    }
  const bytes = new TextEncoder().encode(text);
  if (rnd() < 0.1)
    for (let k = 0; k < 4; k++) bytes[Math.floor(rnd() * bytes.length)] = Math.floor(rnd() * 256);
  return { kind, bytes };
}

/** Reads one case as its reader does, then as a drop of a board with two files. Throws what the code under test throws. */
export function runCase(n: number, seed: number): number {
  const { kind, bytes } = fuzzCase(n, seed);
  let objects = 0;
  if (kind === "layer") {
    const image = readLayer(bytes, "f.gbr", { maxObjects: 300 });
    if (image.n > 300) throw new Error(`${image.n} objects`);
    objects = orGivenUp(
      () => solidsOf(image).count,
      () => 0,
    );
  } else if (kind === "drill") {
    const d = readDrill(latin(bytes, 0, bytes.length), "f.drl");
    objects = d.hits.length + d.routs.length;
  } else objects = readNetlist(latin(bytes, 0, bytes.length), "f.ipc").points.length;
  if (n % 50 === 0) {
    const other = fuzzCase(n + 1, seed);
    measureBoard(
      readBoard(
        [
          { path: "f.gtl", bytes },
          { path: other.kind === "drill" ? "f.drl" : "f.gko", bytes: other.bytes },
        ],
        {},
        undefined,
        { maxObjects: 300 },
      ),
    );
  }
  return objects;
}

/** Runs cases 0 … count − 1 of a seed; the first that throws is named. */
export function runFuzz(
  count: number,
  seed: number,
): { cases: number; slowestMs: number; slowest: number; objects: number } {
  let [slowestMs, slowest, objects, cases] = [0, 0, 0, 0];
  for (let n = 0; n < count; n++) {
    const t = performance.now();
    try {
      objects += runCase(n, seed);
    } catch (error) {
      throw new Error(`case ${n} of seed ${seed} throws: ${(error as Error).stack}`, { cause: error });
    }
    const ms = performance.now() - t;
    if (ms > slowestMs) [slowestMs, slowest] = [ms, n];
    cases++;
  }
  return { cases, slowestMs, slowest, objects };
}
