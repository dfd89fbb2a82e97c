import { type BoardSource, build, type Seat } from "../build.ts";
import { type Pad, roundedRect } from "../design.ts";

const [W, H] = [78, 54];
const OHM = "Oxmere";
const CAP = "Pellow";
const r = (ref: string, value: string, x: number, y: number, rot: number, a: string, b: string, dnp = false): Seat => ({ ref, value, package: "0603", mpn: `OX-R0603-${value}`, maker: OHM, description: "thick film, 1 %", at: [x, y, rot], nets: { "1": a, "2": b }, ...(dnp ? { dnp } : {}) });
const c = (ref: string, value: string, x: number, y: number, rot: number, a: string, b = "GND", size = "0603"): Seat => ({ ref, value, package: size, mpn: `PW-C${size}-${value}`, maker: CAP, description: "ceramic", at: [x, y, rot], nets: { "1": a, "2": b } });
const pins = (list: string): Record<string, string> => Object.fromEntries(list.split(" ").map((n, i) => [String(i + 1), n === "-" ? "" : n]));

/** The parts of Kiln Watch; revision A forgot the pads of D4. */
function seats(revision: "A" | "B"): Seat[] {
  const diode = (ref: string, x: number, y: number, rot: number, k: string, a: string): Seat => ({ ref, value: "S1K", package: "SOD-123", mpn: "HB-S1K-123", maker: "Hobrook", description: "rectifier, bar is pin 1", at: [x, y, rot], nets: { "1": k, "2": a } });
  const led = (ref: string, value: string, x: number, y: number, k: string, a: string): Seat => ({ ref, value, package: "0603", mpn: `QL-L0603-${value}`, maker: "Quillan", description: "LED, pin 1 cathode", at: [x, y, 0], nets: { "1": k, "2": a } });
  const q = (ref: string, x: number, y: number, rot: number, b: string, out: string): Seat => ({ ref, value: "N20", package: "SOT-23", mpn: "HB-N20-23", maker: "Hobrook", description: "n-channel, logic level", at: [x, y, rot], nets: { "1": b, "2": "GND", "3": out } });
  const tc = (ref: string, x: number, y: number, n: string, p: string, cs: string): Seat => ({ ref, value: "TK31", package: "SOIC-8", mpn: "TB-TK31-SO8", maker: "Tarnbeck", description: "thermocouple converter", at: [x, y, 90], nets: pins(`GND ${n} ${p} V33 SCK ${cs} MISO -`) });
  const d4 = diode("D4", 34, 10, 90, "V5", "REL1O");
  return [
    { ref: "U1", value: "M48-64", package: "QFP-48", mpn: "TB-M4864-Q48", maker: "Tarnbeck", description: "microcontroller", at: [40, 27, 0], nets: pins("V33 LED1 LED2 SW OSC1 OSC2 NRST GND V33 VSENSE BUZ REL1 REL2 - TXD RXD DE - - IO1 IO2 - GND V33 - CS2 SCK MISO CS1 - - - - SWDIO GND V33 SWCLK TXDBG SDA SCL - - BOOT - - - GND V33") },
    tc("U2", 58.25, 36, "T1NF", "T1PF", "CS1"),
    tc("U3", 58.25, 17, "T2NF", "T2PF", "CS2"),
    { ref: "U4", value: "LV33", package: "SOT-223", mpn: "TB-LV33-223", maker: "Tarnbeck", description: "regulator 3.3 V", at: [19, 17, 90], nets: { "1": "GND", "2": "V33", "3": "V5" } },
    { ref: "U5", value: "RX85", package: "SOIC-8", mpn: "TB-RX85-SO8", maker: "Tarnbeck", description: "bus driver", at: [25.25, 10.5, 0], nets: pins("RXD DE DE TXD GND BUSA BUSB V33") },
    q("Q1", 38, 11, 0, "Q1B", "REL1O"),
    q("Q2", 44, 11, 0, "Q2B", "REL2O"),
    q("Q3", 51, 11, 0, "Q3B", "BZO"),
    diode("D1", 12, 9.5, 0, "V5F", "VF"),
    led("D2", "green", 10, 48, "LED1K", "V33"),
    led("D3", "amber", 10, 45, "LED2K", "V33"),
    ...(revision === "B" ? [d4] : [{ ref: "D4", value: "S1K", package: "SOD-123", mpn: "HB-S1K-123", maker: "Hobrook", description: "rectifier, bar is pin 1" } satisfies Seat]),
    diode("D5", 47.5, 10.5, 90, "V5", "REL2O"),
    { ref: "Y1", value: "16M", package: "XTAL-3225", mpn: "QL-X3225-16M", maker: "Quillan", description: "crystal, 12 pF", at: [29.5, 27.5, 90], nets: { "1": "OSC1", "2": "GND", "3": "OSC2", "4": "GND" } },
    { ref: "L1", value: "600R bead", package: "0805", mpn: "PW-B0805-600", maker: CAP, description: "ferrite bead", at: [12, 13, 90], nets: { "1": "V5F", "2": "V5" } },
    { ref: "F1", value: "1A fuse", package: "1206", mpn: "HB-F1206-1A", maker: "Hobrook", description: "fuse, slow", at: [14, 5, 0], nets: { "1": "VIN", "2": "VF" } },
    c("C1", "10u", 15, 24.5, 0, "V5", "GND", "0805"),
    c("C2", "10u", 25.5, 17, 90, "V33", "GND", "0805"),
    c("C3", "22p", 26, 29.5, 90, "OSC1"),
    c("C4", "22p", 29.5, 31.5, 0, "OSC2"),
    c("C5", "100n", 33, 33, 90, "V33"),
    c("C6", "100n", 32.5, 23, 90, "V33"),
    c("C7", "100n", 43, 19, 0, "V33"),
    c("C8", "100n", 47.5, 31.5, 90, "V33"),
    c("C9", "100n", 36, 35, 0, "V33"),
    c("C10", "100n", 53, 33, 90, "V33"),
    c("C11", "100n", 53, 14, 90, "V33"),
    c("C12", "100n", 21.25, 12.25, 90, "V33"),
    c("C13", "10n", 63.5, 36, 90, "T1PF", "T1NF"),
    c("C14", "10n", 63.5, 17, 90, "T2PF", "T2NF"),
    c("C15", "1n", 63.5, 40, 0, "T1PF"),
    c("C16", "1n", 63.5, 32, 0, "T1NF"),
    c("C17", "1n", 63.5, 21, 0, "T2PF"),
    c("C18", "1n", 63.5, 13, 0, "T2NF"),
    c("C19", "100n", 23, 39, 90, "SW"),
    c("C20", "100n", 29, 36, 0, "NRST"),
    c("C21", "100n", 33, 18, 0, "VSENSE"),
    c("C22", "10u", 19, 9.5, 90, "V5F", "GND", "0805"),
    c("C23", "1u", 29, 19.5, 90, "V33"),
    c("C24", "10u", 48, 22, 90, "V33", "GND", "0805"),
    r("R1", "100R", 67, 36.5, 90, "T1P", "T1PF"),
    r("R2", "100R", 67, 31.5, 90, "T1N", "T1NF"),
    r("R3", "100R", 67, 21.5, 90, "T2P", "T2PF"),
    r("R4", "100R", 67, 16.5, 90, "T2N", "T2NF"),
    r("R5", "10k", 43, 44, 0, "NRST", "V33"),
    r("R6", "10k", 40, 35.5, 90, "BOOT", "GND"),
    r("R7", "10k", 23, 43.5, 0, "SW", "V33"),
    r("R8", "0R", 55, 44, 0, "TXDBG", "IO1", true),
    r("R9", "330R", 14, 48, 0, "LED1K", "LED1"),
    r("R10", "330R", 14, 45, 0, "LED2K", "LED2"),
    r("R11", "1k", 38, 15, 0, "REL1", "Q1B"),
    r("R12", "1k", 44, 15, 0, "REL2", "Q2B"),
    r("R13", "1k", 49, 15, 0, "BUZ", "Q3B"),
    r("R14", "10k", 36, 7.5, 90, "Q1B", "GND"),
    r("R15", "10k", 42, 7.5, 90, "Q2B", "GND"),
    r("R16", "10k", 54.5, 8, 90, "Q3B", "GND"),
    r("R17", "4k7", 35, 43.5, 0, "SDA", "V33"),
    r("R18", "4k7", 35, 40.5, 0, "SCL", "V33"),
    r("R19", "120R", 31, 9.5, 90, "BUSA", "BUSB", true),
    r("R20", "100k", 9, 18.5, 90, "VIN", "VSENSE"),
    r("R21", "10k", 33, 15, 0, "VSENSE", "GND"),
    r("R22", "10k", 29, 14.5, 90, "DE", "GND"),
    r("R23", "10k", 53, 38.5, 90, "CS1", "V33"),
    r("R24", "10k", 53, 19, 90, "CS2", "V33"),
    { ref: "J1", value: "power", package: "TERM-2", mpn: "HB-T508-2", maker: "Hobrook", description: "screw terminal 2, by hand", at: [5.5, 14, 90], nets: { "1": "VIN", "2": "GND" } },
    { ref: "J2", value: "bus and relays", package: "HDR-1x6", mpn: "HB-H254-6", maker: "Hobrook", description: "header 6, by hand", at: [27, 4, 0], nets: pins("BUSA BUSB REL1O REL2O V5 GND") },
    { ref: "J3", value: "thermocouples", package: "TERM-4", mpn: "HB-T508-4", maker: "Hobrook", description: "screw terminal 4, by hand", at: [72.5, 27, 90], nets: pins("T2N T2P T1N T1P") },
    { ref: "J4", value: "programming", package: "HDR-1x6", mpn: "HB-H254-6", maker: "Hobrook", description: "header 6, by hand", at: [50, 49.5, 0], nets: pins("V33 SWDIO SWCLK NRST TXDBG GND") },
    { ref: "J5", value: "display", package: "HDR-1x4", mpn: "HB-H254-4", maker: "Hobrook", description: "header 4, by hand", at: [31, 49.5, 0], nets: pins("GND V33 SDA SCL") },
    { ref: "J6", value: "sounder", package: "HDR-1x4", mpn: "HB-H254-4", maker: "Hobrook", description: "header 4, by hand", at: [58, 4, 0], nets: pins("V5 BZO IO1 IO2") },
    { ref: "SW1", value: "key", package: "KEY-6x6", mpn: "QL-K6", maker: "Quillan", description: "push button, by hand", at: [17, 38, 0], nets: { "1": "SW", "2": "GND" } },
  ];
}

const loose = (ref: string, value: string, mpn: string, description: string): Seat => ({ ref, value, package: "", mpn, maker: "", description });

const fiducial = (x: number, y: number): Pad => ({ ref: "", pin: "", net: "", x, y, shape: "circle", w: 1, h: 1, side: "top", function: "FiducialPad,Global", mask: true, paste: false });

/** Kiln Watch, the main board of the demo shop. */
export function kilnWatch(revision: "A" | "B") {
  const slotWidth = revision === "A" ? 1.6 : 1.82;
  const source: BoardSource = {
    name: "kiln-watch",
    revision,
    thickness: 1.6,
    width: W,
    height: H,
    edges: roundedRect(0, 0, W, H, 4),
    cutouts: [],
    seats: seats(revision),
    loose: [loose("X1", "case", "AG-CASE-KW", "printed case, two halves"), ...[1, 2, 3, 4].map((k) => loose(`X2${k}`, "screw M3x8", "HB-M3X8", "screw for the case")), loose("X3", "probe cable", "AG-CABLE-2M", "cable, 2 m"), loose("X4", "box", "AG-BOX-S", "shipping box")],
    extraPads: [fiducial(4, 48), fiducial(69, 48.5), fiducial(69, 5)],
    holes: [[4, 4], [W - 4, 4], [4, H - 4], [W - 4, H - 4]].map(([x, y]) => ({ x: x!, y: y!, d: 3.2 })),
    slots: [{ x1: 6.5, y1: 28, x2: 6.5, y2: 40, d: slotWidth, plated: false }],
    maskExtra: [],
    titles: [
      { text: "KILN WATCH", x: 40.5, y: 39.5, height: 1.9, side: "top" },
      { text: `REV ${revision}`, x: 58, y: 46, height: 1.1, side: "top" },
      { text: "ASHGLAZE WORKS", x: 26, y: 25, height: 2, side: "bottom" },
      { text: `KILN WATCH REV ${revision}`, x: 28, y: 21, height: 1.2, side: "bottom" },
    ],
    inside: (x, y, reach) => x >= reach && y >= reach && x <= W - reach && y <= H - reach,
    rules: { width: 0.2, clearance: 0.2, viaPad: 0.6, viaDrill: 0.3, grid: 0.25 },
    fillNet: "GND",
  };
  // the corner fiducial and hole share the corner: keep them apart
  return build({ ...source, extraPads: [fiducial(10.5, 51), fiducial(67, 51), fiducial(67, 3)] });
}
