import { coverDocument } from "@kobbin/core";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;

/** 300 parts on 500 nets, and a plan of 60 items that reads one net in eight through three parts each. */
function plan() {
  const parts = Array.from({ length: 300 }, (_, i) => ({
    ref: `P${i}`,
    pins: Array.from({ length: i % 10 === 0 ? 48 : 2 + (i % 4) }, (_, k) => ({
      pin: String(k + 1),
      net: `N${(i * 7 + k * 13) % 500}`,
    })),
  }));
  const items = Array.from({ length: 60 }, (_, i) => ({
    id: `t${i}`,
    minutes: 0.5,
    drives: [`P${(i * 5) % 300}.1`],
    reads: [`P${(i * 11) % 300}.2`],
    through: [`P${(i * 3) % 300}`, `P${(i * 17) % 300}`, `P${(i * 29) % 300}`],
  }));
  return { parts, items };
}

/** What a plan of 60 items says of 300 parts, and with it which next test would say most: after an item was changed. */
export async function benchTests(time: Time, add: Add): Promise<void> {
  const p = plan();
  // as a floor every pin put into a map by its net, once
  const floor = () => {
    const on = new Map<string, number>();
    for (const { pins } of p.parts) for (const { net } of pins) on.set(net, (on.get(net) ?? 0) + 1);
    return on.size;
  };
  const changed = () => coverDocument({ ...p, items: p.items.slice(1) }).next[0];
  await time(20, () => [changed(), floor()]);
  add(
    "coverage of 300 parts by 60 items, with the next test",
    "every pin in a map by its net",
    await time(31, changed),
    await time(101, floor),
  );
}
