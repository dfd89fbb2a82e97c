import { useMemo, useState } from "react";
import { useRun } from "../run/runState.ts";
import { count } from "../ui/text/format.ts";
import { boardColours } from "./colours.ts";
import { litPlaces } from "./litPlaces.ts";
import type { SmallPicture } from "./thumb/small.ts";
import { Thumb } from "./thumb/Thumb.tsx";
import { usePointed } from "./usePointed.ts";

const WIDTH = 238;
const HEIGHT = 170;

/** The run's board in the margin: the parts of the line that is pointed at are lit where they sit. */
export function LitBoard() {
  const { answer, doc, result } = useRun();
  const pointed = usePointed();
  const lit = useMemo(() => litPlaces(doc, pointed), [doc, pointed]);
  const [picture, setPicture] = useState<{ readonly of: string; readonly picture: SmallPicture }>();
  if (doc.placements.length === 0) return null;
  const at = lit?.board ?? 0;
  const side = lit?.side ?? "top";
  const board = doc.boards[at];
  const { mask = "green", finish = "", legend = "white" } = result.options ?? {};
  const of = `${answer.boardIds[at]} ${side}`;
  const shown = picture?.of === of ? picture.picture : undefined;
  const seen = shown ? (lit?.places.filter((p) => isOn(shown.box, p.xMm, p.yMm)) ?? []) : [];
  const off = shown ? (lit?.places.length ?? 0) - seen.length : 0;
  const says = !lit
    ? "Point at a line: its parts light up."
    : [
        lit.places.length > 0 && `${count(lit.places.length, "part")} on the ${side}`,
        lit.elsewhere > 0 && `${lit.elsewhere} on another side or board`,
        lit.unplaced > 0 && `${lit.unplaced} without a place`,
        off > 0 && `${off} placed beside the board`,
      ]
        .filter(Boolean)
        .join(", ");
  return (
    <figure className="mt-4 max-[1100px]:hidden">
      <div className="relative w-fit">
        <Thumb
          key={of}
          boardId={answer.boardIds[at] ?? ""}
          look={JSON.stringify([mask, finish, legend, board?.measure.layers, board?.measure.extentMm])}
          side={side}
          size={[WIDTH, HEIGHT]}
          colours={() => boardColours(mask, finish, legend)}
          onPainted={(p) => setPicture({ of, picture: p })}
        />
        {shown && (
          <svg className="absolute inset-0" width={WIDTH + 2} height={HEIGHT + 2} aria-hidden="true">
            {seen.map((p) => {
              const [x, y] = onPicture(shown, side, p.xMm, p.yMm);
              return (
                <g key={p.ref} fill="none">
                  <circle cx={x} cy={y} r="6" stroke="var(--sheet)" strokeWidth="5" />
                  <circle cx={x} cy={y} r="6" stroke="var(--metal)" strokeWidth="2.5" />
                </g>
              );
            })}
          </svg>
        )}
      </div>
      <figcaption className="mt-1 text-[13px] text-ink-2">
        {doc.boards.length > 1 && lit ? `${board?.name}: ` : ""}
        {says}
      </figcaption>
    </figure>
  );
}

type Box = readonly [number, number, number, number];
const isOn = ([x0, y0, x1, y1]: Box, x: number, y: number) => x >= x0 && x <= x1 && y >= y0 && y <= y1;

function onPicture(
  { box: [x0, y0, x1, y1], scale }: SmallPicture,
  side: "top" | "bottom",
  x: number,
  y: number,
): [number, number] {
  const flip = side === "bottom" ? -1 : 1;
  return [WIDTH / 2 + flip * (x - (x0 + x1) / 2) * scale + 1, HEIGHT / 2 - (y - (y0 + y1) / 2) * scale + 1];
}
