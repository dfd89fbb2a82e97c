import { fields, flag, list, matching, maybe, oneOf, text, whole } from "./shape.ts";

/** Whether versions of an image run on a revision. */
export const IMAGE_FITS = ["yes", "limits", "no"] as const;

/** One thing that is loaded at a place, in the order of the list. */
export const programImageShape = fields({
  id: text(60, 1),
  at: text(80, 1),
  name: text(120, 1),
  version: text(60),
  file: text(200),
  sha256: maybe(matching(/^[0-9a-f]{64}$/, "the hash of a file")),
  bytes: maybe(whole(0, 1e9)),
  from: text(300),
  tool: text(200),
  wires: list(fields({ pin: text(80), to: text(80) }), 40),
  settings: text(1000),
  command: text(1000),
  expect: text(300),
  fits: list(
    fields({ versions: text(80, 1), revision: text(80, 1), is: oneOf(...IMAGE_FITS), why: text(300) }),
    60,
  ),
  values: list(fields({ name: text(80, 1), isWiped: flag }), 20),
});
