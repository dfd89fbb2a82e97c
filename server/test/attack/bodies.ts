/** Values that no field means; each stands in for every field of every body in turn. */
export const ODD: readonly (readonly [string, unknown])[] = [
  ["null", null],
  ["an object", {}],
  ["an object with a key of the language's", JSON.parse('{"__proto__":{"x":1},"constructor":1}')],
  ["a list", []],
  ["a list of nothings", [null, null]],
  ["a list of lists", [[[[[]]]]]],
  ["an empty text", ""],
  ["blanks", "   "],
  ["a long text", "x".repeat(70_000)],
  ["a text with NUL", "a\u0000b"],
  ["half a character", "a\ud800"],
  ["a number as text", "5"],
  ["a very large number", 1e300],
  ["a number beyond whole ones", 2 ** 53 + 2],
  ["below nothing", -1],
  ["a fraction", 0.5],
  ["true", true],
  ["no day of the calendar", "2026-02-31"],
  ["an id nobody has", "00000000-0000-4000-8000-000000000000"],
  ["a name of the language's", "__proto__"],
  ["a piece of a statement", "'; drop table run; --"],
  ["a path", "../../../../etc/passwd"],
  ["a page's piece", "<img src=x onerror=alert(1)>"],
  ["a formula", '=HYPERLINK("http://x")'],
];

/** Bodies that are nothing a route means, whatever it takes. */
export const WHOLE: readonly (readonly [string, unknown])[] = [
  ["nothing", null],
  ["a text", "text"],
  ["a number", 12],
  ["a list", [1, 2, 3]],
  ["a list of a hundred thousand", Array.from({ length: 100_000 }, () => 0)],
  ["two hundred deep", nested(200)],
  ["a mapping of fifty thousand", Object.fromEntries(Array.from({ length: 50_000 }, (_, i) => [`k${i}`, i]))],
];

function nested(depth: number): unknown {
  let v: unknown = 1;
  for (let i = 0; i < depth; i++) v = { a: v };
  return v;
}

/** Every place in a body, as a path. */
export function placesOf(value: unknown, path: readonly (string | number)[] = []): (string | number)[][] {
  if (typeof value !== "object" || value === null) return path.length > 0 ? [[...path]] : [];
  const own = path.length > 0 ? [[...path]] : [];
  return [
    ...own,
    ...Object.entries(value).flatMap(([k, v]) =>
      placesOf(v, [...path, Array.isArray(value) ? Number(k) : k]),
    ),
  ];
}

/** The body with another value in one place. */
export function withOdd(body: unknown, path: readonly (string | number)[], value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (Array.isArray(body)) return body.map((v, i) => (i === key ? withOdd(v, rest, value) : v));
  return { ...(body as object), [key]: withOdd((body as Record<string, unknown>)[key], rest, value) };
}
