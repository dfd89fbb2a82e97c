import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { describe, expect, test } from "@jest/globals";
import { measureBoard, type ProbePoint, probeBoard, readBoard } from "@kobbin/core";
import { openDrop } from "@kobbin/formats";

const folder = fileURLToPath(new URL("../../demo/boards/", import.meta.url));

// the netlist that the demo boards' generator wrote from its drawing list knows nothing of how core joins copper
describe.each(readdirSync(folder).filter((f) => f.endsWith(".zip")))("the probing list of %s", (name) => {
  const { files } = openDrop([{ path: name, bytes: readFileSync(folder + name) }]);
  const set = readBoard(files);
  // what is listed as joined to nothing is a net of its own
  const netOf = new Map(
    set.netlist!.points.map((p) => [`${p.ref}.${p.pin}`, p.net === "N/C" ? `${p.ref}.${p.pin}` : p.net]),
  );
  const list = probeBoard(set, 60);

  test("says what the netlist says", () => {
    const known = (p: ProbePoint) => (p.pad === undefined ? undefined : netOf.get(p.pad));
    const told = list.probes.flatMap((p) => {
      const [a, b] = [known(p.a), known(p.b)];
      return a === undefined || b === undefined ? [] : [{ isSame: a === b, expect: p.expect }];
    });
    expect(told.length).toBeGreaterThan(8);
    for (const t of told) expect(t.expect).toBe(t.isSame ? "joined" : "apart");
  });

  test("names places of the measure's own nets, bare of mask, each pair once", () => {
    const at = (p: { layer: string; x: number; y: number }) =>
      `${p.layer} ${p.x.toFixed(3)} ${p.y.toFixed(3)}`;
    const islands = measureBoard(set).nets!.islands!;
    const netAt = new Map(islands.flatMap((n) => n.pads.map((p) => [at(p), n.net] as const)));
    for (const p of list.probes)
      expect(netAt.get(at(p.a)) === netAt.get(at(p.b))).toBe(p.expect === "joined");
    const pairs = list.probes.map((p) => `${at(p.a)} ${at(p.b)}`);
    expect(new Set(pairs).size).toBe(pairs.length);
  });

  test("more time never takes a statement away", () => {
    for (const minutes of [0.5, 20]) {
      const some = probeBoard(set, minutes).probes;
      expect(some).toEqual(list.probes.slice(0, some.length));
      expect(some.length).toBe(Math.min(list.probes.length, Math.floor((minutes * 60) / 11)));
    }
  });
});
