import { coverageOf, type FirstPowerCard } from "@kobbin/core";
import { useMemo, useState } from "react";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import { useRun } from "../../../run/runState.ts";
import { Tab } from "../../../ui/Tab.tsx";

const SIZE = [380, 270] as const;

/** Where each rail is read, by its number in the table, ground beside it, and what is not plugged in. */
export function PowerPicture({ card }: { card: FirstPowerCard }) {
  const { doc } = useRun();
  const places = useMemo(() => new Map(coverageOf(doc)?.pins.map((p) => [p.name, p] as const)), [doc]);
  const board = doc.boards[card.board]!;
  const marks = [
    ...card.reads.flatMap((pin, i) => {
      const at = pin === undefined ? undefined : places.get(pin);
      return at ? [{ key: `r${i}`, text: String(i + 1), at, isGround: false }] : [];
    }),
    ...(card.ground && places.get(card.ground)
      ? [{ key: "g", text: "", at: places.get(card.ground)!, isGround: true }]
      : []),
  ];
  const off = card.unplug.flatMap((u) => {
    const pins = [...places.values()].filter((p) => p.board === card.board && p.name.startsWith(`${u.ref}.`));
    if (pins.length === 0) return [];
    const [xs, ys] = [pins.map((p) => p.x), pins.map((p) => p.y)];
    return [
      {
        ref: u.ref,
        layer: pins[0]!.layer,
        box: [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const,
      },
    ];
  });
  const [side, setSide] = useState<"top" | "bottom">(marks[0]?.at.layer === "bottom" ? "bottom" : "top");
  const isHere = (layer: string) => (layer === "bottom") === (side === "bottom");
  return (
    <figure>
      <div className="mb-1 flex gap-4 text-[14px]">
        {(["top", "bottom"] as const).map((s) => (
          <Tab key={s} isOn={side === s} onClick={() => setSide(s)}>
            {s}
          </Tab>
        ))}
      </div>
      <DrawnBoard board={board} side={side} size={SIZE}>
        {(to) => (
          <>
            {off
              .filter((o) => isHere(o.layer))
              .map(({ ref, box }) => {
                const [ax, ay] = to([box[0], box[3]]);
                const [bx, by] = to([box[2], box[1]]);
                const [x, y, w, h] = [
                  Math.min(ax, bx) - 8,
                  Math.min(ay, by) - 8,
                  Math.abs(bx - ax) + 16,
                  Math.abs(by - ay) + 16,
                ];
                return (
                  <g key={ref} stroke="var(--paper)" strokeWidth="4.5" fill="none">
                    <rect x={x} y={y} width={w} height={h} rx="3" />
                    <path d={`M${x} ${y}l${w} ${h}M${x + w} ${y}l${-w} ${h}`} />
                    <g stroke="var(--stop)" strokeWidth="2">
                      <rect x={x} y={y} width={w} height={h} rx="3" />
                      <path d={`M${x} ${y}l${w} ${h}M${x + w} ${y}l${-w} ${h}`} />
                    </g>
                  </g>
                );
              })}
            {marks
              .filter((m) => isHere(m.at.layer))
              .map((m) => {
                const [x, y] = to([m.at.x, m.at.y]);
                return (
                  <g key={m.key}>
                    <circle
                      cx={x}
                      cy={y}
                      r="10.5"
                      fill={m.isGround ? "var(--ink)" : "var(--metal)"}
                      stroke="var(--paper)"
                      strokeWidth="2.5"
                    />
                    {m.isGround ? (
                      <Ground x={x} y={y} />
                    ) : (
                      <text
                        x={x}
                        y={y + 4.5}
                        textAnchor="middle"
                        fontSize="13"
                        fontWeight="700"
                        fill="var(--paper)"
                      >
                        {m.text}
                      </text>
                    )}
                  </g>
                );
              })}
          </>
        )}
      </DrawnBoard>
      <figcaption className="mt-1 max-w-[382px] text-[13.5px] text-ink-2">
        Numbers: where each rail is read, against ground{" "}
        <svg width="14" height="14" viewBox="-7 -7 14 14" className="inline align-[-2px]" aria-hidden="true">
          <circle r="7" fill="var(--ink)" />
          <Ground x={0} y={0} />
        </svg>
        . Crossed: nothing plugged in.
      </figcaption>
    </figure>
  );
}

/** Three lines, each shorter: ground. */
function Ground({ x, y }: { x: number; y: number }) {
  return (
    <path
      d={`M${x - 5} ${y - 2}h10M${x - 3.2} ${y + 1}h6.4M${x - 1.4} ${y + 4}h2.8`}
      stroke="var(--paper)"
      strokeWidth="1.6"
    />
  );
}
