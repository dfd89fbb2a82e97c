import { expect, test } from "@jest/globals";
import { readDrill } from "./read.ts";

// what the head says of its numbers: [head, tool, body] → diameter and places, mm
test.each<[string, string, string, number, [number, number][]]>([
  ["a unit in words of a comment", ";Units: inch", "T1C0.1", 2.54, [[25.4, 50.8]]],
  ["imperial in words", "; UNITS=Imperial", "T1C0.1", 2.54, [[25.4, 50.8]]],
  ["millimetres in words", "; units: millimetres", "T1C0.1", 0.1, [[1, 2]]],
  [
    "what the statement says counts, whatever a comment says",
    "INCH\n; units: mm",
    "T1C0.1",
    2.54,
    [[25.4, 50.8]],
  ],
  [
    "what the statement says counts, a comment before it",
    "; units: mm\nINCH",
    "T1C0.1",
    2.54,
    [[25.4, 50.8]],
  ],
])("a drill head with %s", (_, head, tool, mm, places) => {
  const d = readDrill(`M48\n${head}\n${tool}\n%\nT1\nX1.0Y2.0\nM30\n`, "a.drl");
  expect(
    d.hits.map((h) => [Number(h.diameterMm.toFixed(6)), Number(h.x.toFixed(6)), Number(h.y.toFixed(6))]),
  ).toEqual(places.map(([x, y]) => [mm, x, y]));
});

test.each<[string, string, string, [number, number, number]]>([
  ["digits by noughts, metric", "METRIC,TZ,0000.00", "T1C0.8\n%\nT1\nX100Y-250", [0.8, 1, -2.5]],
  [
    "digits by noughts, leading zeros kept",
    "METRIC,LZ,0000.00",
    "T1C0.8\n%\nT1\nX0012Y-00015",
    [0.8, 12, -1.5],
  ],
  ["digits by noughts, inches", "INCH,TZ,00.00", "T1C0.05\n%\nT1\nX100Y250", [1.27, 25.4, 63.5]],
  [
    "a tool's size in ten-thousandths of an inch",
    "INCH,TZ",
    "T1C315\n%\nT1\nX10000Y5000",
    [0.8001, 25.4, 12.7],
  ],
  ["a tool's size in micrometres", "METRIC,TZ", "T1C800\n%\nT1\nX1000Y2000", [0.8, 1, 2]],
  ["a tool of ten, which no number of micrometres is", "METRIC,TZ", "T1C10\n%\nT1\nX1000Y2000", [10, 1, 2]],
  ["a tool of forty-nine", "METRIC,TZ", "T1C49\n%\nT1\nX1000Y2000", [49, 1, 2]],
  ["a tool of fifty", "METRIC,TZ", "T1C50\n%\nT1\nX1000Y2000", [0.05, 1, 2]],
  ["a tool of ten ten-thousandths", "INCH,TZ", "T1C10\n%\nT1\nX10000Y5000", [0.0254, 25.4, 12.7]],
  ["a tool of nine millimetres", "METRIC,TZ", "T1C9\n%\nT1\nX1000Y2000", [9, 1, 2]],
])("a drill file with %s", (_, head, body, want) => {
  const d = readDrill(`M48\n${head}\n${body}\nM30\n`, "a.drl");
  expect(d.hits.map((h) => [h.diameterMm, h.x, h.y].map((v) => Number(v.toFixed(6))))).toEqual([want]);
});
