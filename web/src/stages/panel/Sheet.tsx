import type { PanelChoice, PanelDesign, PanelLayout } from "@kobbin/core";
import type { KeyboardEvent, PointerEvent } from "react";
import { mm } from "../../ui/text/format.ts";
import { outlinePath, pathOf, placeTransform } from "./drawn.ts";
import { Furniture, Rails, Size } from "./SheetMarks.tsx";
import { withRail } from "./sheetModel.ts";
import { Tabs } from "./Tabs.tsx";
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
          <path
            d={l.frame.map((a) => pathOf(a, l.heightMm)).join("")}
            fillRule="evenodd"
            fill="var(--grid)"
            stroke="var(--ink-3)"
            strokeWidth={0.25 * unit}
          />
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
        {!held && (
          <>
            <Tabs layout={l} unit={unit} hands={hands.tabs} picked={hands.picked} isLocked={isLocked} />
            <Furniture layout={l} unit={unit} />
          </>
        )}
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
        <Caption hands={hands} isLocked={isLocked} count={l.places.length} />
      </figcaption>
    </figure>
  );
}

/** What is held and what it runs into; else how things are moved. */
function Caption({
  hands: { clash, tabs },
  isLocked,
  count,
}: {
  hands: ReturnType<typeof useSheetHands>;
  isLocked: boolean;
  count: number;
}) {
  const back = "It goes back when you let go.";
  if (clash) return <span className="text-stop">{`${clash.reason} ${back}`}</span>;
  const where = tabs.held?.where;
  if (where?.why !== undefined)
    return (
      <span className="text-stop">
        {`No tab there: ${where.why}. ${back}`}
        {where.nearest ? " The nearest place that can be is drawn." : ""}
      </span>
    );
  if (tabs.said) return <span className="text-stop">{tabs.said}</span>;
  if (isLocked) return <>{`${count} on the sheet.`}</>;
  return (
    <>
      Drag a board, a tab, or a rail's inner edge. Arrow keys move what is picked by half a millimetre, with
      shift by five; t turns a board, a adds a tab to it, delete takes a tab away.
    </>
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
