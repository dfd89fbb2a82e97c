import { SAG_SHARE, sagMm } from "../panel/sag.ts";
import { isRefusal } from "../panel/spec.ts";
import type { RunDocument } from "./document.ts";
import type { Add } from "./note.ts";
import type { BoardOrder } from "./order-boards.ts";
import { layoutOfChoice, liesOn, PLATE_MM, panelOf, panelThickness } from "./panel.ts";
import type { PasteSides } from "./sides.ts";

const mm = (v: number) => String(Math.round(v * 100) / 100);

/** What is to be said of the sheet a run's boards are ordered on. */
export function panelNotes(
  doc: RunDocument,
  orders: readonly BoardOrder[],
  start: number,
  sides: PasteSides,
  add: Add,
): void {
  const { panel: choice } = doc.choices;
  if (!choice) return;
  const say = (key: string, level: "error" | "warning" | "remark", text: string, todo?: string) =>
    add("panel", key, level, text, todo ? { do: todo } : {});
  if (doc.house?.bench) {
    say(
      "panel-at-bench",
      "warning",
      "Boards of the own bench are made one by one: the sheet does not count there.",
      "Choose another house, or order singly.",
    );
    return;
  }
  const panel = panelOf(doc);
  if (!panel) {
    say(
      "panel-of-others",
      "error",
      "The sheet holds none of the product's boards.",
      "Take a sheet anew, or order singly.",
    );
    return;
  }
  const layout = layoutOfChoice(doc, choice);
  if (isRefusal(layout)) {
    say(
      `panel-cannot ${layout.tag}`,
      "error",
      `The sheet cannot be made as it stands: ${layout.reason}`,
      layout.do ?? "Take a sheet anew.",
    );
    return;
  }
  for (const f of layout.findings)
    add("panel", `${f.tag}${f.at ? ` ${mm(f.at.x)}/${mm(f.at.y)}` : ""}`, f.level, f.text, {
      ...(f.do ? { do: f.do } : {}),
      ...(f.at ? { at: { layer: "sheet", x: f.at.x, y: f.at.y } } : {}),
    });
  sayWork(doc, choice, sides, say);
  const over = orders.reduce(
    (n, o, i) => n + (o.sheet ? o.quote.pieces - start * doc.boards[i]!.perProduct : 0),
    0,
  );
  if (over > 0)
    say(
      "panel-over",
      "remark",
      `Whole sheets bring ${over} bare board${over === 1 ? "" : "s"} more than are started.`,
    );
}

type Say = (key: string, level: "error" | "warning" | "remark", text: string, todo?: string) => void;
type Choice = NonNullable<RunDocument["choices"]["panel"]>;

function sayWork(doc: RunDocument, choice: Choice, sides: PasteSides, say: Say): void {
  const size = `${mm(choice.widthMm)} × ${mm(choice.heightMm)} mm`;
  if (doc.assembly.method === "stencil" && !liesOn(choice, PLATE_MM))
    say(
      "panel-larger-than-plate",
      "warning",
      `The sheet, ${size}, is larger than a hot plate of ${PLATE_MM.join(" × ")} mm: boards would be parted between printing and heat.`,
      "Take a smaller sheet, or heat in an oven that takes it.",
    );
  if (doc.assembly.method === "stencil" && doc.assembly.foil)
    say(
      "panel-needs-foil",
      "error",
      "The foil that is used again was cut for single boards; the sheet wants one of its own.",
      "Choose a new foil, or order singly.",
    );
  const t = panelThickness(doc);
  const span = Math.min(choice.widthMm, choice.heightMm);
  const hot = sagMm(span, t, "hot");
  if (doc.assembly.method !== "iron" && hot > SAG_SHARE * span)
    say(
      "panel-sags",
      "warning",
      `Held on two sides ${mm(span)} mm apart, the sheet hangs through ${hot.toFixed(2)} mm when it is hot (${sagMm(span, t, "cold").toFixed(2)} mm cold).`,
      "Support its middle, or take a smaller sheet.",
    );
  if (sides.both.length > 0)
    say(
      "panel-two-sides",
      "remark",
      `${sides.both.join(", ")} carries parts on both sides: the sheet is printed, placed and heated twice.`,
    );
  say(
    "panel-dust",
    "remark",
    "Parting boards makes glass dust and throws splinters: cut under extraction or outdoors, with glasses on, and never blow the dust away. Local rules go first.",
  );
}
