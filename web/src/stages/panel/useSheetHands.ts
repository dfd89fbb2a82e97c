import { clashAt, type PanelChoice, type PanelDesign, type PanelLayout, type SheetSide } from "@kobbin/core";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { mm } from "../../ui/text/format.ts";
import { STEP_MM, withMoved, withRail, withTurned } from "./sheetModel.ts";
import { useTabHands } from "./useTabHands.ts";

interface Drag {
  readonly index?: number;
  readonly rail?: SheetSide;
  readonly x: number;
  readonly y: number;
}

const snap = (v: number) => Math.round(v / STEP_MM) * STEP_MM;

/** Moving boards and rails by pointer and keys: what is held, what it runs into, and what is done when it is let go. */
export function useSheetHands({
  choice,
  layout,
  designs,
  boardKeys,
  isLocked,
  onMoved,
}: {
  choice: PanelChoice;
  layout: PanelLayout;
  designs: readonly PanelDesign[];
  boardKeys: readonly string[];
  isLocked: boolean;
  onMoved: (next: PanelChoice, words: string) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag>();
  const [held, setHeld] = useState<PanelChoice>();
  const [picked, setPicked] = useState<number>();
  const clashOf = (c: PanelChoice) =>
    clashAt(designs, c.gapMm, {
      ...c,
      places: c.places.map((p, i) => ({ ...p, board: boardKeys.indexOf(p.board), copy: i + 1 })),
    });
  const clash = held && clashOf(held);
  const at = (e: PointerEvent): readonly [number, number] => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse());
    return [p.x, p.y];
  };
  const tabs = useTabHands({
    choice,
    layout,
    designs,
    boardKeys,
    isLocked,
    onMoved,
    at: (e) => {
      const [x, y] = at(e);
      return [x, layout.heightMm - y];
    },
  });
  const begin = (e: PointerEvent, what: Pick<Drag, "index" | "rail">) => {
    if (what.index !== undefined) setPicked(what.index);
    if (isLocked || e.button !== 0) return;
    const [x, y] = at(e);
    setDrag({ ...what, x, y });
    (e.target as Element).setPointerCapture(e.pointerId);
  };
  const move = (e: PointerEvent) => {
    tabs.move(e);
    if (!drag) return;
    const [x, y] = at(e);
    if (drag.index !== undefined) setHeld(withMoved(choice, drag.index, snap(x - drag.x), snap(drag.y - y)));
    else if (drag.rail) {
      const by = drag.rail === "left" || drag.rail === "right" ? x - drag.x : y - drag.y;
      const wider = drag.rail === "left" || drag.rail === "top" ? by : -by;
      setHeld(withRail(choice, drag.rail, snap(choice.rails[drag.rail] + wider)));
    }
  };
  const letGo = () => {
    tabs.letGo();
    const next = held;
    const what = drag;
    setDrag(undefined);
    setHeld(undefined);
    if (!what || !next || clash || JSON.stringify(next) === JSON.stringify(choice)) return;
    onMoved(
      next,
      what.rail ? `Rail ${what.rail} ${mm(next.rails[what.rail])} mm` : `Board ${what.index! + 1} moved`,
    );
  };
  const keys = (e: KeyboardEvent, index: number) => {
    if (isLocked) return;
    if (e.key === "a") {
      e.preventDefault();
      tabs.add(index + 1);
      return;
    }
    const by = e.shiftKey ? STEP_MM * 10 : STEP_MM;
    const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[e.key];
    const design = designs[layout.places[index]?.board ?? 0];
    const isTurn = e.key === "t" && design !== undefined;
    if (!way && !isTurn) return;
    e.preventDefault();
    const next = way ? withMoved(choice, index, way[0]!, way[1]!) : withTurned(choice, index, design!);
    if (!clashOf(next)) onMoved(next, `Board ${index + 1} ${isTurn ? "turned" : "moved"}`);
  };
  return { svg, tabs, held, clash, drag, picked, setPicked, begin, move, letGo, keys };
}
