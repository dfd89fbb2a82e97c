import { type PanelChoice, type PanelDesign, type PanelLayout, type SheetSide, SIDES } from "@kobbin/core";
import type { KeyboardEvent, PointerEvent } from "react";
import { mm } from "../../ui/format.ts";
import { outlinePath, pathOf, placeTransform, tabsPath } from "./drawn.ts";
import { STEP_MM, withRail } from "./sheetModel.ts";
import type { BoardPicture } from "./useBoardPictures.ts";
import { useSheetHands } from "./useSheetHands.ts";

/**
 * The sheet, large: boards as they will be delivered, tabs, scores, rails with what stands on them. A board or a rail's edge
 * is dragged, or moved by the arrow keys; what cannot be is shown while it is held, and goes back when it is let go.
 */
export function Sheet({
  choice,
  layout: l,
  designs,
  pictures,
  boardKeys,
  isLocked,
  onMoved,
}: {
  choice: PanelChoice;
  layout: PanelLayout;
  designs: readonly PanelDesign[];
  pictures: readonly (BoardPicture | undefined)[];
  boardKeys: readonly string[];
  isLocked: boolean;
  onMoved: (next: PanelChoice, words: string) => void;
}) {
  const hands = useSheetHands({ choice, layout: l, designs, boardKeys, isLocked, onMoved });
  const { held, clash } = hands;
  const now = held ?? choice;
  const H = now.heightMm;
  const unit = Math.max(l.widthMm, l.heightMm) / 150;
  const pad = 9 * unit;
  return (
    <figure className="border border-rule bg-sheet p-3">
      <svg
        ref={hands.svg}
        viewBox={`${-pad} ${-pad} ${now.widthMm + 2 * pad} ${H + 2 * pad}`}
        className="max-h-[62vh] w-full touch-none select-none"
        onPointerMove={hands.move}
        onPointerUp={hands.letGo}
        onPointerCancel={hands.letGo}
      >
        <title>{`Sheet of ${l.places.length}, ${mm(now.widthMm)} × ${mm(H)} mm`}</title>
        <defs>
          {designs.map((d, i) => (
            <clipPath key={d.name} id={`board-${i}`}>
              <path d={outlinePath(d)} clipRule="evenodd" />
            </clipPath>
          ))}
        </defs>
        {held ? (
          <rect
            width={now.widthMm}
            height={H}
            fill="var(--grid)"
            stroke="var(--ink-3)"
            strokeWidth={0.3 * unit}
          />
        ) : (
          <>
            <path
              d={l.frame.map((a) => pathOf(a, l.heightMm)).join("")}
              fillRule="evenodd"
              fill="var(--grid)"
              stroke="var(--ink-3)"
              strokeWidth={0.25 * unit}
            />
            <path d={tabsPath(l)} fill="var(--metal-soft)" stroke="var(--metal)" strokeWidth={0.2 * unit} />
          </>
        )}
        {now.places.map((p, i) => {
          const board = boardKeys.indexOf(p.board);
          const design = designs[board];
          return (
            design && (
              <BoardOnSheet
                key={String(i)}
                name={`Board ${i + 1} of ${now.places.length}${p.turnDeg === 0 ? "" : `, turned ${p.turnDeg}°`}`}
                transform={placeTransform(p, H)}
                design={design}
                clip={`board-${board}`}
                picture={pictures[board]}
                unit={unit}
                look={clash && hands.drag?.index === i ? "wrong" : hands.picked === i ? "picked" : "plain"}
                isLocked={isLocked}
                onBegin={(e) => hands.begin(e, { index: i })}
                onPick={() => hands.setPicked(i)}
                onKeys={(e) => hands.keys(e, i)}
              />
            )
          );
        })}
        {!held && <Furniture layout={l} unit={unit} />}
        <Rails
          now={now}
          unit={unit}
          isLocked={isLocked}
          onBegin={hands.begin}
          onSet={(s, w) => onMoved(withRail(choice, s, w), `Rail ${s} ${mm(w)} mm`)}
        />
        <Size w={now.widthMm} h={H} unit={unit} />
      </svg>
      <figcaption className="mt-2 min-h-10 text-[13.5px] text-ink-2" aria-live="polite">
        {clash ? (
          <span className="text-stop">{clash.reason} It goes back when you let go.</span>
        ) : isLocked ? (
          `${l.places.length} on the sheet.`
        ) : (
          "Drag a board or a rail's inner edge; arrow keys move the board that is picked by half a millimetre, with shift by five, t turns it."
        )}
      </figcaption>
    </figure>
  );
}

/** One board where it lies. */
function BoardOnSheet({
  name,
  transform,
  design,
  clip,
  picture,
  unit,
  look,
  isLocked,
  onBegin,
  onPick,
  onKeys,
}: {
  name: string;
  transform: string;
  design: PanelDesign;
  clip: string;
  picture: BoardPicture | undefined;
  unit: number;
  look: "plain" | "picked" | "wrong";
  isLocked: boolean;
  onBegin: (e: PointerEvent) => void;
  onPick: () => void;
  onKeys: (e: KeyboardEvent) => void;
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a board on a drawing is no button of a form
    <g
      role="button"
      tabIndex={isLocked ? -1 : 0}
      aria-label={name}
      transform={transform}
      className={`outline-none ${isLocked ? "" : "cursor-grab"}`}
      onPointerDown={onBegin}
      onFocus={onPick}
      onKeyDown={onKeys}
    >
      {picture && (
        <image
          href={picture.url}
          x={picture.x}
          y={picture.y}
          width={picture.width}
          height={picture.height}
          preserveAspectRatio="none"
          clipPath={`url(#${clip})`}
        />
      )}
      <path
        d={outlinePath(design)}
        fillRule="evenodd"
        fill={picture ? "transparent" : "var(--fine-soft)"}
        stroke={{ wrong: "var(--stop)", picked: "var(--metal)", plain: "var(--ink-2)" }[look]}
        strokeWidth={(look === "plain" ? 0.3 : 0.8) * unit}
      />
    </g>
  );
}

function Furniture({ layout: l, unit }: { layout: PanelLayout; unit: number }) {
  const y = (v: number) => l.heightMm - v;
  return (
    <g fill="none" strokeWidth={0.3 * unit}>
      {l.scores.map((s) => (
        <line
          key={`${s.x1} ${s.y1}`}
          x1={s.x1}
          y1={y(s.y1)}
          x2={s.x2}
          y2={y(s.y2)}
          stroke="var(--metal)"
          strokeDasharray={`${2 * unit} ${unit}`}
          strokeWidth={0.5 * unit}
        />
      ))}
      {l.fiducials.map((f) => (
        <g key={`${f.xMm} ${f.yMm}`}>
          <circle cx={f.xMm} cy={y(f.yMm)} r={1} stroke="var(--ink-3)" />
          <circle cx={f.xMm} cy={y(f.yMm)} r={0.5} fill="var(--metal)" />
        </g>
      ))}
      {l.toolingHoles.map((h) => (
        <circle
          key={`${h.xMm} ${h.yMm}`}
          cx={h.xMm}
          cy={y(h.yMm)}
          r={h.diameterMm / 2}
          fill="var(--sheet)"
          stroke="var(--ink-2)"
        />
      ))}
      {l.waste.flatMap((w) =>
        [...w.slots, ...w.pads].map(([x0, y0, x1, y1]) => (
          <rect
            key={`${x0} ${y0}`}
            x={x0}
            y={y(y1)}
            width={x1 - x0}
            height={y1 - y0}
            fill={w.slots.length > 0 ? "var(--sheet)" : "var(--metal)"}
            stroke="var(--ink-3)"
            strokeWidth={0.15 * unit}
          />
        )),
      )}
      {l.badMarks.map((b) => (
        <circle key={b.copy} cx={b.xMm} cy={y(b.yMm)} r={1} stroke="var(--metal-line)" />
      ))}
      {l.tabs.flatMap((t) =>
        t.at.map(([x, v]) => <circle key={`${x} ${v}`} cx={x} cy={y(v)} r={0.25} fill="var(--sheet)" />),
      )}
    </g>
  );
}

/** Inner edges of the rails: each is dragged, or set by the arrow keys. */
function Rails({
  now,
  unit,
  isLocked,
  onBegin,
  onSet,
}: {
  now: PanelChoice;
  unit: number;
  isLocked: boolean;
  onBegin: (e: PointerEvent, what: { rail: SheetSide }) => void;
  onSet: (side: SheetSide, widthMm: number) => void;
}) {
  if (isLocked) return null;
  const { widthMm: W, heightMm: H, rails } = now;
  return SIDES.filter((s) => rails[s] > 0).map((s) => {
    const w = rails[s];
    const [x1, y1, x2, y2] =
      s === "left"
        ? [w, 0, w, H]
        : s === "right"
          ? [W - w, 0, W - w, H]
          : s === "top"
            ? [0, w, W, w]
            : [0, H - w, W, H - w];
    const isUpright = s === "left" || s === "right";
    return (
      <line
        key={s}
        role="slider"
        tabIndex={0}
        aria-label={`Rail ${s}`}
        aria-valuenow={w}
        aria-valuemin={3}
        aria-valuemax={60}
        aria-valuetext={`${mm(w)} mm`}
        x1={x1}
        y1={y1}
        x2={x2}
        y2={y2}
        stroke="transparent"
        strokeWidth={2.2 * unit}
        className={`outline-none focus-visible:stroke-metal ${isUpright ? "cursor-ew-resize" : "cursor-ns-resize"}`}
        onPointerDown={(e) => onBegin(e, { rail: s })}
        onKeyDown={(e) => {
          const by = { ArrowRight: STEP_MM, ArrowUp: STEP_MM, ArrowLeft: -STEP_MM, ArrowDown: -STEP_MM }[
            e.key
          ];
          if (by === undefined) return;
          e.preventDefault();
          onSet(s, w + by);
        }}
      />
    );
  });
}

/** Width and height as a drawing has them. */
function Size({ w, h, unit }: { w: number; h: number; unit: number }) {
  const o = 4 * unit;
  const line = { stroke: "var(--ink-3)", strokeWidth: 0.2 * unit };
  const text = { fontSize: 3.6 * unit, fill: "var(--ink-2)", textAnchor: "middle" as const };
  return (
    <g className="num pointer-events-none">
      <line x1={0} y1={-o} x2={w} y2={-o} {...line} />
      <line x1={0} y1={-o - unit} x2={0} y2={-o + unit} {...line} />
      <line x1={w} y1={-o - unit} x2={w} y2={-o + unit} {...line} />
      <text x={w / 2} y={-o - unit} {...text}>
        {mm(w)}
      </text>
      <line x1={-o} y1={0} x2={-o} y2={h} {...line} />
      <line x1={-o - unit} y1={0} x2={-o + unit} y2={0} {...line} />
      <line x1={-o - unit} y1={h} x2={-o + unit} y2={h} {...line} />
      <text x={-o - unit} y={h / 2} transform={`rotate(-90 ${-o - unit} ${h / 2})`} {...text}>
        {mm(h)}
      </text>
    </g>
  );
}
