import type { LibraryPart } from "../../../library/part.ts";
import type { RunAssembly, RunDocument } from "../../document/document.ts";
import { DEFAULT_ASSEMBLY } from "../../document/document.ts";
import { madeLine, madeMeasure, madeRun } from "../../made-up.fixture.ts";

/** "VIN: J1.1 F1.1" a line. */
export const wired = (text: string) =>
  text
    .trim()
    .split("\n")
    .map((line, net) => {
      const [name, pins] = line.trim().split(": ") as [string, string];
      return { net, name, pads: pins.split(" ").map((pin, i) => ({ layer: "top", x: i, y: net, pin })) };
    });
// a supply of 5 V over a fuse, a diode and a bead to a regulator; the chip lights one lamp from its rail, one to ground
const ISLANDS = wired(`
  VIN: J1.1 F1.1 R20.1
  VF: F1.2 D1.2
  V5F: D1.1 L1.1 C22.1
  V5: L1.2 U4.3 C1.1 J2.5
  V33: U4.2 U1.1 D2.2 R5.2
  GND: J1.2 U4.1 U1.2 C1.2 C22.2 R21.2 D3.1 J2.6
  LED1K: D2.1 R9.1
  LED1: R9.2 U1.3
  NRST: R5.1 U1.4
  VSENSE: R20.2 R21.1 U1.5
  OUT: U1.6 R10.1
  OUTA: R10.2 D3.2
  BUS: U1.7 J2.1`);
export const line = (id: string, refs: string[], valueText: string, description = "", mpn = "") =>
  madeLine(id, refs, { valueText, description, mpn });
export const LINES = [
  line("u1", ["U1"], "M48", "microcontroller", "TB-M48"),
  line("u4", ["U4"], "LV33", "regulator 3.3 V", "TB-LV33"),
  line("d2", ["D2"], "green", "LED, pin 1 cathode"),
  line("d3", ["D3"], "red", "LED"),
  line("r9", ["R9", "R10"], "330R"),
  line("r5", ["R5"], "10k"),
  line("r20", ["R20"], "100k"),
  line("r21", ["R21"], "10k"),
  line("j2", ["J2"], "bus"),
];
export const part = (mpn: string, restMa?: number, mostMa?: number) =>
  ({
    id: mpn,
    mpn,
    maker: "",
    description: "",
    kind: "chip",
    package: "",
    params: {},
    direction: "",
    moisture: "",
    ...(restMa === undefined ? {} : { restMa }),
    ...(mostMa === undefined ? {} : { mostMa }),
  }) as never as LibraryPart;
export const SUPPLY = {
  id: "m",
  ref: "J1",
  other: "wall supply",
  ours: [
    { pin: "1", kind: "input", takesV: [4.5, 5.5] },
    { pin: "2", kind: "ground" },
  ],
  theirs: [
    { pin: "1", kind: "supply", volts: 5 },
    { pin: "2", kind: "ground" },
  ],
  stopped: [],
  stopBy: "",
};
export const powered = ({
  library = [part("TB-M48", 8, 25), part("TB-LV33", 1, 1)],
  assembly = {},
  ...more
}: Partial<Omit<RunDocument, "assembly">> & { readonly assembly?: Partial<RunAssembly> } = {}): RunDocument =>
  madeRun({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({ nets: { count: 13, islands: ISLANDS } as never }),
      },
    ],
    lines: LINES,
    meetings: [SUPPLY] as never,
    library,
    assembly: { ...DEFAULT_ASSEMBLY, ...assembly },
    ...more,
  });
