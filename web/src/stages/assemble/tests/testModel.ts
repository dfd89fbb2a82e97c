import type { TestItem } from "@kobbin/core";

/**
 * Pins and parts as they are typed: apart by blanks, commas or semicolons; capitals as boards have them. Of several boards
 * each is called with its board: "U1.4 of Base" or "U1 of Base.4".
 *
 * @param boards names of the boards where there are several
 */
export function typedPins(text: string, boards: readonly string[] = []): string[] {
  const names = [...boards].sort((a, b) => b.length - a.length).map((b) => b.replace(/[^\w\s]/g, "\\$&"));
  const of = boards.length > 0 ? `(?:\\s+of\\s+(${names.join("|")})(\\.[^\\s,;]+)?(?=[\\s,;]|$))?` : "()()";
  const pins = [...text.matchAll(new RegExp(`([^\\s,;]+)${of}`, "gi"))].map(([, word = "", board, after]) => {
    const dot = word.indexOf(".");
    const [ref, pin] = dot < 0 ? [word, after ?? ""] : [word.slice(0, dot), word.slice(dot)];
    const name = board && boards.find((b) => b.toLowerCase() === board.toLowerCase());
    return `${ref.toUpperCase()}${name ? ` of ${name}` : ""}${pin}`;
  });
  return [...new Set(pins)];
}

/** A plan with an item changed, put in, moved by one place, or taken out. */
export const changed = (plan: readonly TestItem[], id: string, more: Partial<TestItem>): TestItem[] =>
  plan.map((t) => (t.id === id ? { ...t, ...more } : t));
export const without = (plan: readonly TestItem[], id: string): TestItem[] => plan.filter((t) => t.id !== id);
export function moved(plan: readonly TestItem[], id: string, by: -1 | 1): TestItem[] {
  const at = plan.findIndex((t) => t.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= plan.length) return [...plan];
  return plan.with(at, plan[to]!).with(to, plan[at]!);
}
/** A new item at the end, with a name nobody has yet. */
export function added(plan: readonly TestItem[], more: Partial<TestItem>): TestItem[] {
  let n = plan.length + 1;
  while (plan.some((t) => t.id === `t${n}`)) n++;
  return [
    ...plan,
    {
      id: `t${n}`,
      name: `item ${n}`,
      state: "powered",
      drives: [],
      reads: [],
      through: [],
      expect: "",
      minutes: 0.5,
      ...more,
    },
  ];
}
