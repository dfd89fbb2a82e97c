import type { HouseEffect, RunDocument } from "@kobbin/core";

type Check = HouseEffect["breaches"][number];

/** Where on its board a measure is at its tightest: the address of the picture that shows it; nothing where it has no place. */
export function onBoard(runId: string, doc: RunDocument, c: Check): string | undefined {
  if (!c.at) return undefined;
  const board = doc.boards.findIndex((b) => b.id === c.board);
  const side = c.at.layer.includes("bottom") ? "&side=bottom" : "";
  return `/runs/${runId}/board?measure=${encodeURIComponent(c.measure.replace(/Mm$/, ""))}${board > 0 ? `&board=${board + 1}` : ""}${side}`;
}
