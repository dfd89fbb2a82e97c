import {
  type HeldTab,
  ownTabsOf,
  type PanelChoice,
  type PanelDesign,
  type PanelLayout,
  specOf,
  type TabAt,
  TabHand,
} from "@kobbin/core";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { STEP_MM } from "./sheetModel.ts";

/** Tabs by pointer and keys: where the held one could stand, why not, and what is done when it is let go. */
export function useTabHands({
  choice,
  layout,
  designs,
  boardKeys,
  isLocked,
  onMoved,
  at,
}: {
  choice: PanelChoice;
  layout: PanelLayout;
  designs: readonly PanelDesign[];
  boardKeys: readonly string[];
  isLocked: boolean;
  onMoved: (next: PanelChoice, words: string) => void;
  /** A pointer's place on the sheet, y up. */
  at: (e: PointerEvent) => readonly [number, number];
}) {
  const [held, setHeld] = useState<{ readonly index: number; readonly where: TabAt }>();
  const [said, setSaid] = useState<string>();
  const hand = useRef<TabHand>(undefined);
  const handWithout = (index?: number) => new TabHand(designs, specOf(choice, boardKeys, 0), layout, index);
  const copyOf = (index: number) => {
    const [a, b] = layout.tabs[index]!.between;
    return a > 0 ? a : b;
  };
  const put = (index: number, made: HeldTab, words: string) => {
    setSaid(undefined);
    const tabs = ownTabsOf(designs, layout);
    onMoved({ ...choice, tabs: tabs.map((t, i) => (i === index ? made.own : t)) }, words);
  };
  const isElsewhere = (index: number, { tab }: HeldTab) =>
    Math.hypot(tab.xMm - layout.tabs[index]!.xMm, tab.yMm - layout.tabs[index]!.yMm) > 0.01;
  const begin = (e: PointerEvent, index: number) => {
    if (isLocked || e.button !== 0) return;
    e.stopPropagation();
    hand.current = handWithout(index);
    setSaid(undefined);
    setHeld({ index, where: { tab: layout.tabs[index]!, own: ownTabsOf(designs, layout)[index]! } });
    (e.target as Element).setPointerCapture(e.pointerId);
  };
  const move = (e: PointerEvent) => {
    if (held && hand.current) setHeld({ ...held, where: hand.current.at(copyOf(held.index), ...at(e)) });
  };
  const letGo = () => {
    if (!held) return;
    setHeld(undefined);
    const { index, where } = held;
    if (where.why === undefined && isElsewhere(index, where)) put(index, where, "Tab moved");
  };
  const remove = (index: number) =>
    onMoved({ ...choice, tabs: ownTabsOf(designs, layout).filter((_, i) => i !== index) }, "Tab taken away");
  const keys = (e: KeyboardEvent, index: number) => {
    if (isLocked) return;
    if (e.key === "Delete" || e.key === "Backspace") {
      e.preventDefault();
      remove(index);
      return;
    }
    const by = e.shiftKey ? STEP_MM * 10 : STEP_MM;
    const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[e.key];
    if (!way) return;
    e.preventDefault();
    const t = layout.tabs[index]!;
    const where = handWithout(index).at(copyOf(index), t.xMm + way[0]!, t.yMm + way[1]!);
    if (where.why !== undefined) setSaid(`No tab there: ${where.why}.`);
    else if (isElsewhere(index, where)) put(index, where, "Tab moved");
  };
  const add = (copy: number) => {
    const one = handWithout().oneMore(copy);
    if (!one) setSaid("No tab more can stand on that board's edge.");
    else onMoved({ ...choice, tabs: [...ownTabsOf(designs, layout), one.own] }, "Tab added");
  };
  return { held, said, begin, move, letGo, keys, add };
}
