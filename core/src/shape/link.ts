import { both, type DataShape, fields, flag, list, mapOf, maybe, text, tuple } from "./shape.ts";

const name = text(40, 1);
const SPEC = {
  positions: list(fields({ name, joins: maybe(tuple(text(80, 1), text(80, 1))), does: text(200) }), 12, 1),
  /** The position it is set to; empty where nobody said it. */
  set: text(40),
  /** Where a version of the product has it otherwise: its id → position. */
  variants: mapOf(name, 500),
  /** A piece of its own closes it: a cap, a wire. */
  isCap: flag,
};

function agreed(v: unknown, path: string): string | undefined {
  const s = v as { positions: { name: string }[]; set: string; variants: Record<string, string> };
  const names = s.positions.map((p) => p.name);
  const under = path === "" ? "" : `${path}.`;
  if (new Set(names).size < names.length) return `${under}positions has one twice`;
  const none = [s.set, ...Object.values(s.variants)].find((n) => n !== "" && !names.includes(n));
  return none === undefined ? undefined : `${under}positions has none called ${none}`;
}

/** What is kept of a link: its positions, what each does, and which is set. */
export const linkSpecShape: DataShape = both(fields(SPEC), agreed);
/** As it stands in a run's document. */
export const linkRowShape: DataShape = both(
  fields({ id: text(80, 1), board: maybe(text(200)), ref: text(80, 1), ...SPEC }),
  agreed,
);
