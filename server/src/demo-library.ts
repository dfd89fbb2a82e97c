import { type Equipment, lineKey } from "@kobbin/core";
import type { Tx } from "./db/pool.ts";
import type { Deps } from "./deps.ts";
import { type By, recordChange } from "./history/change.ts";
import { insertSum } from "./resources/bill/index.ts";
import { insertEquipment } from "./resources/equipment/index.ts";
import {
  insertLot,
  insertParts,
  manyUnknownNumbers,
  partFromLine,
  upsertAlternate,
} from "./resources/library/index.ts";
import { manyLines } from "./resources/run/index.ts";

const THERMO = {
  kind: "chip",
  package: "SOIC-8",
  description: "thermocouple to digital",
};

/** What stands on the bench of Ashglaze Works. */
const BENCH = [
  {
    kind: "plate",
    name: "Tile plate",
    facts: { spaceMm: [220, 170], mostC: 280, control: "thermostat" },
    cannot: "boards with parts below",
    hours: 120,
    lastsHours: 1500,
  },
  {
    kind: "iron",
    name: "Bench iron",
    facts: {
      mostC: 420,
      tips: [
        { shape: "chisel", mm: 2.4 },
        { shape: "chisel", mm: 1.2 },
        { shape: "bevel", mm: 2 },
      ],
    },
    hours: 310,
  },
  { kind: "eyes", name: "Glaze lens", facts: { magnifies: 5 } },
  { kind: "supply", name: "Bench supply", can: "0 to 30 V, 10 mA to 3 A, holds its limit" },
  {
    kind: "meter",
    name: "Hand meter",
    facts: { asked: "hand", trueUntil: "2027-03-31" },
    can: "two probes, beeps below 30 Ω",
  },
  { kind: "programmer", name: "Pod one", can: "six pins on a cable" },
] as const satisfies readonly (Partial<Omit<Equipment, "id">> & Pick<Equipment, "kind" | "name">)[];

const fillBench = (deps: Deps, by: By) =>
  recordChange(deps.pool, by, async (tx, change) => {
    change.says("the machines of the shop written down");
    for (const e of BENCH)
      await insertEquipment(tx, { can: "", cannot: "", facts: {}, hours: 0, state: "ready", ...e });
  });

/**
 * What the demo shop knows of its parts: everything its bills name, a substitute somebody proposed for the chip that is
 * hard to get, and a shelf on which the sensor of the old revision lies.
 */
export async function fillLibrary(
  deps: Deps,
  by: By,
  oldRevision: string,
  newRevision: string,
): Promise<void> {
  await recordChange(deps.pool, by, async (tx, change) => {
    change.about({ revisionId: oldRevision });
    change.says("U5: part number TB-RX85-SO8 → TB-RX80-SO8, as it was built then");
    await tx.query(
      "update bom_line set mpn = 'TB-RX80-SO8', value_text = 'RX80' where revision_id = $1 and mpn = 'TB-RX85-SO8'",
      [oldRevision],
    );
  });
  await recordChange(deps.pool, by, async (tx, change) => {
    change.says("the parts of the bills taken into the library");
    await insertParts(
      tx,
      (await manyUnknownNumbers(tx)).map(({ uses: _, ...l }) => partFromLine(l)),
    );
    for (const [number, mark] of [
      ["HB-S1K%", "band at the cathode"],
      ["QL-L0603%", "green mark at the cathode"],
      ["TB-%-SO8", "dot at pin 1"],
      ["TB-M4864%", "dot at pin 1"],
    ])
      await tx.query("update part set direction = $2 where mpn like $1", [number, mark]);
    // bodies of what is soldered by hand, as the drawings of the case have them
    for (const [number, length, width, height] of [
      ["HB-T508-2", 10.2, 7.6, 10],
      ["HB-T508-4", 20.3, 7.6, 10],
      ["HB-H254-4", 10.2, 2.5, 8.5],
      ["HB-H254-6", 15.2, 2.5, 8.5],
      ["QL-K6", 6.2, 6.2, 4.3],
      ["QL-X3225-16M", 3.2, 2.5, 0.8],
    ] as const)
      await tx.query(
        "update part set body_length_mm = $2, body_width_mm = $3, height_mm = $4 where mpn = $1",
        [number, length, width, height],
      );
    await knowCurrents(tx);
    await knowThermocouples(tx, by.person);
    const lot = (mpn: string, qty: number, unitCost: string, place: string, note = "") =>
      insertLot(tx, {
        mpn,
        qty,
        place,
        receivedOn: "2026-03-18",
        unitCost,
        currency: "EUR",
        condition: "new",
        donor: "",
        note,
      });
    await lot("TB-RX80-SO8", 320, "0.30", "drawer 7", "left of revision A");
    await lot("OX-R0603-10k", 150, "0.006", "reel box 2");
  });
  await fillBench(deps, by);
  await recordChange(deps.pool, by, async (tx, change) => {
    change.about({ revisionId: newRevision });
    const lamp = (await manyLines(tx, newRevision)).find((l) => l.refs.includes("R9"));
    if (!lamp) return;
    change.says("a sum was attached: lamps");
    await insertSum(tx, newRevision, {
      kind: "lamp",
      name: "lamps",
      given: { supply: "3.3 V ± 3 %", drop: "2.0 V", count: "1", power: "0.1 W" },
      lines: { resistor: lamp.id },
      wanted: "4 mA",
      withinPct: 15,
    });
  });
}

/** What each chip draws, by its sheet: first power is worked out from it. */
async function knowCurrents(tx: Tx): Promise<void> {
  for (const [number, rest, most] of [
    ["TB-M4864-Q48", 9, 28],
    ["TB-TK31-SO8", 0.9, 1.5],
    ["TB-LV33-223", 0.1, 0.1],
    ["TB-RX85-SO8", 0.4, 45],
  ] as const)
    await tx.query("update part set rest_ma = $2, most_ma = $3 where mpn = $1", [number, rest, most]);
  // what may flow through what feeds it, a contact of a terminal each
  for (const [number, carries] of [
    ["TB-LV33-223", 800],
    ["HB-F1206-1A", 1000],
    ["HB-S1K-123", 1000],
    ["HB-T508-2", 8000],
  ] as const)
    await tx.query("update part set carries_ma = $2 where mpn = $1", [number, carries]);
  // resistors of every board are not to run out
  await tx.query("update part set keep_least = 200 where mpn = 'OX-R0603-10k'");
}

/** The two chips that may read the thermocouple: the one of the bill, and a proposed substitute. */
async function knowThermocouples(tx: Tx, person: string): Promise<void> {
  const know = async (mpn: string, params: Record<string, string>, more: Record<string, string> = {}) => {
    const id = (await insertParts(tx, [{ mpn, ...THERMO, ...more }])).ids[0]!;
    await tx.query("update part set params = $2, direction = 'dot at pin 1', moisture = '3' where id = $1", [
      id,
      JSON.stringify(params),
    ]);
    return id;
  };
  const common = {
    function: "thermocouple to digital",
    pinout: "T- T+ VCC GND SO CS SCK NC",
    supplyMin: "3.0 V",
    drive: "three-state",
  };
  const own = await know("TB-TK31-SO8", {
    ...common,
    supplyMax: "3.6 V",
    default: "high-ohmic",
    gain: "0.25 °C",
  });
  await tx.query(
    "update part set state = 'not for new designs', sheet = 'the cold end is measured inside: keep it away from the regulator' where id = $1",
    [own],
  );
  const other = await know(
    "HB-TK40-SO8",
    { ...common, supplyMax: "5.5 V", default: "drives low until the first reading", gain: "0.25 °C" },
    { maker: "Hobrook" },
  );
  await tx.query(
    "update part set tried_on = '2026-11-12', tried = 'two boards, same readings within 1 °C' where id = $1",
    [other],
  );
  await upsertAlternate(tx, {
    original: lineKey({
      refs: [],
      valueText: "",
      package: "",
      mpn: "TB-TK31-SO8",
      maker: "",
      description: "",
    })!,
    partId: other,
    state: "proposed",
    runs: null,
    because: "the other one is scarce",
    person: person,
    at: "2026-11-12",
  });
}
