/** The demo boards: generator and drawing lists. Imports nothing of the readers, so that expectations stand apart. */
import { kilnWatch } from "./boards/kiln-watch.ts";
import { probeTail } from "./boards/probe-tail.ts";
import { rackCard } from "./boards/rack-card.ts";
import type { Design } from "./design.ts";
import { writeDrills } from "./write/drills.ts";
import { writeLayers } from "./write/layers.ts";
import { writeTables } from "./write/tables.ts";

export type { Design, Pad, Part } from "./design.ts";
export { expectedFacts } from "./expected.ts";

/** All demo boards: file name of the archive → how to make it. */
export const DEMO_BOARDS: Readonly<Record<string, () => Design>> = {
  "kiln-watch-a": () => kilnWatch("A"),
  "kiln-watch-b": () => kilnWatch("B"),
  "probe-tail": probeTail,
  "rack-card": rackCard,
};

/** Every file of a design's archive. */
export const filesOf = (d: Design): Record<string, string> => ({
  ...writeLayers(d),
  ...writeDrills(d),
  ...writeTables(d),
  "read-me.txt": `${d.name} revision ${d.revision}: layers, drills, parts and places of a demo board. Everything in it is made up.\n`,
});
