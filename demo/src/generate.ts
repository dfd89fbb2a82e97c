import { mkdirSync, writeFileSync } from "node:fs";
import { strToU8, zipSync } from "fflate";
import { DEMO_BOARDS, filesOf } from "./index.ts";

// Writes the demo archives; the same bytes every time, so that a change shows as a change.
const folder = new URL("../boards/", import.meta.url);
mkdirSync(folder, { recursive: true });
for (const [name, make] of Object.entries(DEMO_BOARDS)) {
  const started = Date.now();
  const design = make();
  const files = Object.fromEntries(
    Object.entries(filesOf(design)).map(([path, text]) => [
      path,
      [strToU8(text), { mtime: new Date(2026, 9, 5, 9) }] as const,
    ]),
  );
  const zip = zipSync(files as never, { level: 9 });
  writeFileSync(new URL(`${name}.zip`, folder), zip);
  console.log(
    `${name}: ${zip.length} bytes, ${design.tracks.length} tracks, ${design.pads.length} pads, ${design.fills.length} fills, ${Date.now() - started} ms`,
  );
}
