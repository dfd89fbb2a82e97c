import {
  type BoardSet,
  type FlowAsk,
  floatsOf,
  flowOf,
  type Meeting,
  measureBoard,
  meet,
  type Pin,
  powerMap,
  type WiredPart,
  wiringOf,
} from "@kobbin/core";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;

/** A board of 500 nets: chips with their pull-ups, ten rails in a row of diodes and coils. */
function board(): WiredPart[] {
  const pin = (name: string, net: number, i: number) => ({
    pin: String(i + 1),
    net,
    name,
    x: i,
    y: 0,
    layer: "top",
  });
  const part = (ref: string, ...nets: readonly (readonly [string, number])[]): WiredPart => ({
    ref,
    pins: nets.map(([name, net], i) => pin(name, net, i)),
  });
  const rail = (k: number) => [`V${k}_5V`, k] as const;
  const ground = ["GND", 10] as const;
  const signal = (k: number) => [`N${k}`, 11 + k] as const;
  return [
    ...Array.from({ length: 9 }, (_, k) => part(`${k % 2 ? "D" : "L"}${k + 1}`, rail(k), rail(k + 1))),
    ...Array.from({ length: 120 }, (_, k) =>
      part(`U${k + 1}`, rail(k % 10), ground, ...[0, 1, 2, 3].map((j) => signal((4 * k + j) % 489))),
    ),
    ...Array.from({ length: 240 }, (_, k) => part(`R${k + 1}`, signal(2 * k), rail(k % 10))),
    ...Array.from({ length: 60 }, (_, k) => part(`Q${k + 1}`, signal(2 * k + 1), ground, signal(2 * k))),
  ];
}

/** What feeds and what floats on a board of 500 nets, and two connectors of fifty held against each other in every way. */
export async function benchMeet(time: Time, add: Add): Promise<void> {
  const parts = board();
  const source = { ref: "U1", pin: "1", net: 0, what: "plug", volts: 5, isCell: false };
  // as a floor what it takes to put every pin into a map by its net, once
  const floor = () => {
    const on = new Map<number, unknown[]>();
    for (const p of parts) for (const q of p.pins) on.set(q.net, [...(on.get(q.net) ?? []), p]);
    return on.size;
  };
  const none = { value: "", description: "" };
  const both = () => [powerMap(parts, [source], () => ""), floatsOf(parts, () => none)];
  await time(5, both);
  await time(5, floor);
  add(
    "what feeds and what floats, 500 nets",
    "every pin in a map by its net",
    await time(15, both),
    await time(15, floor),
  );
  const pins = Array.from(
    { length: 50 },
    (_, i): Pin => ({
      pin: String(i + 1),
      kind: i % 5 === 0 ? "supply" : i % 5 === 1 ? "ground" : "both",
      volts: 5,
      takesV: [0, 5.5],
    }),
  );
  const m: Meeting = { ours: pins, theirs: pins, rows: 2, numbering: "zigzag" };
  await time(20, () => meet(m));
  add(
    "two connectors of 50 contacts in every way",
    "every contact in a map by its name",
    await time(51, () => meet(m)),
    await time(51, () => new Map(pins.map((p) => [p.pin, p])).size),
  );
}

/** The ground of the largest demo board from every pad of it to one: both sides flooded, the largest copper there is. */
export async function benchFlow(time: Time, add: Add, set: BoardSet, measuringMs: number): Promise<void> {
  const pins = wiringOf(measureBoard(set)).flatMap((p) =>
    p.pins.filter((q) => q.name === "GND").map((q) => ({ ref: p.ref, ...q })),
  );
  const [entry, ...taps] = pins;
  const ask: FlowAsk = {
    net: entry!.net,
    name: "GND",
    isReturn: true,
    entry: [entry!],
    taps: taps.map((p) => ({ ref: p.ref, pins: [p], ma: 10 })),
  };
  const copper = { outerMm: 0.035, innerMm: 0.035, boardMm: 1.6 };
  const flow = () => flowOf(set, [ask], copper)[0]!.drops.length;
  add(
    "currents of the ground of the largest demo board followed through its copper",
    "measuring that board",
    await time(5, flow),
    measuringMs,
  );
}
