import type { Besides, TestItem, TypedPoints } from "@kobbin/core";

/** How far a board is while an item is tried, in words. */
export const STATES: readonly (readonly [TestItem["state"], string])[] = [
  ["bare", "without power"],
  ["powered", "powered"],
  ["programmed", "programmed"],
  ["housed", "in its housing"],
];

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
export const replaced = (plan: readonly TestItem[], item: TestItem): TestItem[] =>
  plan.map((t) => (t.id === item.id ? item : t));
export const without = (plan: readonly TestItem[], id: string): TestItem[] => plan.filter((t) => t.id !== id);
export function moved(plan: readonly TestItem[], id: string, by: -1 | 1): TestItem[] {
  const at = plan.findIndex((t) => t.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= plan.length) return [...plan];
  return plan.with(at, plan[to]!).with(to, plan[at]!);
}
/** A plan as it is now in the order of another of it; what that does not have stays behind the rest. */
export function inOrderOf(plan: readonly TestItem[], order: readonly TestItem[]): TestItem[] {
  const at = new Map(order.map((t, i) => [t.id, i]));
  const place = (t: TestItem) => at.get(t.id) ?? order.length;
  return [...plan].sort((a, b) => place(a) - place(b));
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

type Limit = "min" | "max" | "guard";
/** An item with another limit; an empty one is taken away. Undefined for what is no number. */
export function withLimit(t: TestItem, key: Limit, typed: string): TestItem | undefined {
  const { [key]: _, ...rest } = t;
  const text = typed.replace(",", ".").trim();
  if (text === "") return rest;
  // limits are kept as they are typed, without a sign that says nothing
  const m = /^([+−-]?)(\d{1,12}(?:\.\d{1,9})?)$/.exec(text);
  return m ? { ...t, [key]: `${m[1] === "" || m[1] === "+" ? "" : "-"}${m[2]}` } : undefined;
}
/** An item read in another unit; without one it is answered by yes or no, and has no limits. */
export function withUnit({ unit: _, min, max, guard, ...rest }: TestItem, unit: string): TestItem {
  if (unit === "") return rest;
  const limits = {
    ...(min === undefined ? {} : { min }),
    ...(max === undefined ? {} : { max }),
    ...(guard === undefined ? {} : { guard }),
  };
  return { ...rest, unit: unit as NonNullable<TestItem["unit"]>, ...limits };
}
/** What of it is said anew; undefined takes it away. */
export type BesidesChange = { readonly [K in keyof Besides]?: Besides[K] | undefined };
/** An item with something else of what makes it one besides the bench; without any of it it is tried with the rest. */
export function withBesides({ besides, ...rest }: TestItem, more: BesidesChange): TestItem {
  const left = Object.entries({ ...besides, ...more }).filter(([, v]) => v !== undefined);
  return left.length === 0 ? rest : { ...rest, besides: Object.fromEntries(left) };
}
/** An item with what it is loaded with; nothing takes it away. */
export const withLoad = ({ load: _, ...rest }: TestItem, load: TestItem["load"]): TestItem =>
  load === undefined ? rest : { ...rest, load };
type Point = NonNullable<TestItem["point"]>;
/** What is said of a line as a whole; undefined takes it away. */
export type LineChange = { readonly [K in "of" | "worst" | "most" | "days" | "form"]?: Point[K] | undefined };

const pointName = (of: string, { applied, unit }: Pick<Point, "applied" | "unit">) =>
  `${of} at ${applied} ${unit}`.slice(0, 120);

/**
 * A plan in which an item is a point of a line: what is applied there, and an item more behind it for each other point that was
 * typed. The line is called as the item was; nothing makes it an item like others.
 */
export function withPoints(
  plan: readonly TestItem[],
  item: TestItem,
  typed: TypedPoints | undefined,
): TestItem[] {
  const { point, ...plain } = item;
  if (!typed) return replaced(plan, point ? { ...plain, name: point.of } : plain);
  const of = point?.of ?? item.name.slice(0, 60);
  const points = typed.applied.map((applied): Point => ({ ...point, of, applied, unit: typed.unit }));
  const [first, ...rest] = points.map((p): TestItem => ({ ...plain, point: p, name: pointName(of, p) }));
  const at = plan.findIndex((t) => t.id === item.id);
  return rest.reduce<TestItem[]>(
    (list, next, i) => {
      const { id, ...more } = next;
      const one = added(list, more);
      return one.slice(0, -1).toSpliced(at + 1 + i, 0, one.at(-1)!);
    },
    replaced(plan, first!),
  );
}

/** A plan with something else said of the line an item is a point of, at each of its points. */
export function withLine(plan: readonly TestItem[], item: TestItem, more: LineChange): TestItem[] {
  return plan.map((t) => {
    if (!t.point || t.point.of !== item.point?.of) return t;
    const all = Object.entries({ ...t.point, ...more }).filter(([, v]) => v !== undefined);
    const point = Object.fromEntries(all) as unknown as Point;
    const isNamed = t.name === pointName(t.point.of, t.point);
    return { ...t, point, ...(isNamed ? { name: pointName(point.of, point) } : {}) };
  });
}

const stateOf = (t: Pick<TestItem, "state">) => STATES.findIndex(([s]) => s === t.state);
/**
 * A plan with proposed items in it: one that is called alike and tried in the same state has its limits and places brought up
 * to date; the others come first of their state, in their order.
 */
export function withProposed(plan: readonly TestItem[], items: readonly Omit<TestItem, "id">[]): TestItem[] {
  const isSame = (a: Omit<TestItem, "id">, b: Omit<TestItem, "id">) =>
    a.name === b.name && a.state === b.state;
  const old = plan.map((t) => {
    const fresh = items.find((i) => isSame(i, t));
    if (!fresh) return t;
    // what only a person knows of it stays
    const { id, minutes, besides, load, point } = t;
    return {
      ...fresh,
      id,
      minutes,
      ...(besides ? { besides } : {}),
      ...(load ? { load } : {}),
      ...(point ? { point } : {}),
    };
  });
  const all = items
    .filter((i) => !plan.some((t) => isSame(i, t)))
    .reduce((list, i) => added(list, i), [...old]);
  return all.slice(old.length).reduce((list, t) => {
    const isNew = (x: TestItem) => old.every((o) => o.id !== x.id);
    const at = list.findIndex((x) => stateOf(x) > stateOf(t) || (stateOf(x) === stateOf(t) && !isNew(x)));
    return list.toSpliced(at < 0 ? list.length : at, 0, t);
  }, old);
}

/** Whether two plans say the same, however their fields are laid. */
export const isSamePlan = (a: readonly TestItem[], b: readonly TestItem[]): boolean => {
  const laid = (plan: readonly TestItem[]) =>
    JSON.stringify(plan.map((t) => Object.entries(t).sort(([x], [y]) => (x < y ? -1 : 1))));
  return laid(a) === laid(b);
};
