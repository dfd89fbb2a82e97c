import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readLayer } from "./read.ts";
import { ringsOfSolid, solidsOf } from "./solids.ts";
import { plainBytes, writeAreas } from "./write.ts";

const read = (text: string) => readLayer(plainBytes(text), "w.gbr");

test("what is written is the format to the letter, and its statements cannot end early", () => {
  expect(
    writeAreas(
      [[0, 0, 1, 0, 1, 0.5]],
      [
        ["FileFunction", "Paste", "Top"],
        ["Part", "Other", "50 %, *é"],
      ],
    ),
  ).toBe(
    [
      "%TF.GenerationSoftware,Kobbin,Kobbin,1*%",
      "%TF.FileFunction,Paste,Top*%",
      "%TF.Part,Other,50 \\u0025\\u002C \\u002A\\u00E9*%",
      "%FSLAX46Y46*%",
      "%MOMM*%",
      "%LPD*%",
      "G01*",
      "G36*",
      "X0Y0D02*",
      "X1000000Y0D01*",
      "X1000000Y500000D01*",
      "X0Y0D01*",
      "G37*",
      "M02*",
      "",
    ].join("\n"),
  );
});

test("a ring that is closed already is not closed twice; one that has no inside is left out", () => {
  const layer = read(
    writeAreas(
      [
        [0, 0, 1, 0, 1, 1, 0, 0],
        [2, 2, 2.0000001, 2, 2, 2.0000001],
        [3, 3, 4, 4],
      ],
      [],
    ),
  );
  expect([layer.findings, solidsOf(layer).count]).toEqual([[], 1]);
});

test("any area comes back as it was, to a nanometre, in its order", () => {
  const corner = fc.double({ min: -300, max: 300, noNaN: true });
  const box = fc.tuple(
    corner,
    corner,
    fc.double({ min: 0.01, max: 50, noNaN: true }),
    fc.double({ min: 0.01, max: 50, noNaN: true }),
  );
  fc.assert(
    fc.property(fc.array(box, { minLength: 1, maxLength: 12 }), (boxes) => {
      const rings = boxes.map(([x, y, w, h]) => [x, y, x + w, y, x + w, y + h, x, y + h]);
      const layer = read(writeAreas(rings, [["FileFunction", "Paste", "Bot"]]));
      expect(layer.findings).toEqual([]);
      expect(layer.fileAttributes.FileFunction).toEqual(["Paste", "Bot"]);
      const s = solidsOf(layer);
      expect(s.count).toBe(rings.length);
      rings.forEach((ring, k) => {
        const [back] = ringsOfSolid(s, k);
        expect(back!.length).toBe(8);
        ring.forEach((v, i) => {
          expect(Math.abs(back![i]! - v)).toBeLessThan(0.51e-6);
        });
      });
    }),
  );
});
