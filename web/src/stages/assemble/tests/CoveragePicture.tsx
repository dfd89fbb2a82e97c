import type { Coverage, PinStand } from "@kobbin/core";
import { memo, useState } from "react";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import { useRun } from "../../../run/runState.ts";
import { Tab } from "../../../ui/Tab.tsx";

const SIZE = [430, 306] as const;
const SHAPE: Readonly<Record<PinStand, { readonly fill: string; readonly words: string }>> = {
  tested: { fill: "var(--fine)", words: "tested" },
  implied: { fill: "var(--look)", words: "implied: the net is tested, not this pin’s part" },
  never: { fill: "var(--stop)", words: "never" },
};

/** Every pin on its board as the plan stands to it: a full dot, a half one, a cross; those of an item that is pointed at ringed. */
export function CoveragePicture({ coverage, lit }: { coverage: Coverage; lit: ReadonlySet<string> }) {
  const { doc } = useRun();
  const [at, setAt] = useState<{ board: number; side: "top" | "bottom" }>({ board: 0, side: "top" });
  const board = doc.boards[at.board];
  if (!board) return null;
  const onSide = (side: "top" | "bottom") =>
    coverage.pins.filter((p) => p.board === at.board && (p.layer === "bottom") === (side === "bottom"));
  const pins = onSide(at.side);
  return (
    <figure>
      <div className="mb-1 flex flex-wrap gap-4 text-[14px]">
        {doc.boards.map((b, i) =>
          (["top", "bottom"] as const).map((side) => (
            <Tab
              key={`${b.name} ${side}`}
              isOn={at.board === i && at.side === side}
              onClick={() => setAt({ board: i, side })}
            >
              {doc.boards.length > 1 ? `${b.name}, ` : ""}
              {side}
            </Tab>
          )),
        )}
      </div>
      <DrawnBoard board={board} side={at.side} size={SIZE}>
        {(to) =>
          pins.map((p) => {
            const [x, y] = to([p.x, p.y]);
            return <Pin key={p.name} x={x} y={y} stand={p.stand} isLit={lit.has(p.name)} />;
          })
        }
      </DrawnBoard>
      <figcaption className="mt-1 text-[13.5px] text-ink-2">
        {(["tested", "implied", "never"] as const).map((s) => (
          <span key={s} className="mr-5 inline-flex items-center gap-1">
            <Dot stand={s} /> {SHAPE[s].words}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

/** A pin as the plan stands to it; drawn anew only where that is another. */
const Pin = memo(function Pin({
  x,
  y,
  stand,
  isLit,
}: {
  x: number;
  y: number;
  stand: PinStand;
  isLit: boolean;
}) {
  return (
    <g>
      {isLit && <circle cx={x} cy={y} r="9" fill="none" stroke="var(--metal)" strokeWidth="3" />}
      <circle cx={x} cy={y} r="4.2" fill="var(--sheet)" />
      {stand === "never" ? (
        <path
          d={`M${x - 3} ${y - 3}l6 6M${x + 3} ${y - 3}l-6 6`}
          stroke={SHAPE.never.fill}
          strokeWidth="1.8"
        />
      ) : stand === "implied" ? (
        <path d={`M${x} ${y - 3.4}a3.4 3.4 0 0 1 0 6.8z`} fill={SHAPE.implied.fill} />
      ) : (
        <circle cx={x} cy={y} r="3.4" fill={SHAPE.tested.fill} />
      )}
    </g>
  );
});

function Dot({ stand }: { stand: PinStand }) {
  return (
    <svg width="12" height="12" aria-hidden="true">
      {stand === "never" ? (
        <path d="M2 2l8 8M10 2l-8 8" stroke={SHAPE.never.fill} strokeWidth="2" />
      ) : stand === "implied" ? (
        <path d="M6 1.5a4.5 4.5 0 0 1 0 9z" fill={SHAPE.implied.fill} />
      ) : (
        <circle cx="6" cy="6" r="4.5" fill={SHAPE.tested.fill} />
      )}
    </svg>
  );
}
