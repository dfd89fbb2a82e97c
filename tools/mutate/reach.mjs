// Which test runs which function, and at which places a change could be noticed by it (the changed expression comes to
// something else there at least once): asked for by KOBBIN_REACH (a folder), written there, one file a test file. A change
// of the code is then tried on the tests that could notice it, and on no others (mutate.ts).
import { relative, sep } from "node:path";
// biome-ignore lint/correctness/useImportExtensions: the types beside it are not the file
import { changesOf, functionsOf, SWAP } from "./places.mjs";

/** Whether a file of the tree is one whose functions are watched. */
const isWatched = (file) =>
  /^(core|formats|solver|packing|contract|standins|bin|server|web)\/src\/.*\.ts$/.test(file) &&
  !/\.(test|fixture|worker)\.ts$/.test(file);

const OPERATORS = Object.keys(SWAP);
const isLogical = (kind) => kind === "&&" || kind === "||";

/** What tells of a place that a change there would be seen, and hands on what it was given: a value, one that is true, the sides of an operator. */
const TELLS = [
  "const __value = (i, x) => { __seen[i] = 1; return x; };",
  "const __true = (i, x) => { if (x) __seen[i] = 1; return x; };",
  // what the other side would come to is not asked where it is not computed: it may not be
  "const __left = []; const __right = (i, x) => { if (x !== __left[i]) __seen[i] = 1; return x; };",
  "const __and = (i, x) => { if (!x) __seen[i] = 1; return (__left[i] = x); };",
  "const __or = (i, x) => { if (x) __seen[i] = 1; return (__left[i] = x); };",
  "const __extreme = (i, f, g, ...a) => { const x = f(...a); if (!Object.is(x, g(...a))) __seen[i] = 1; return x; };",
  ...OPERATORS.filter((op) => !isLogical(op)).map((op) => {
    const isOther = `typeof x === "bigint" || !Object.is(x, a ${SWAP[op]} b)`;
    const tell = `if (!__seen[i] && (${isOther})) __seen[i] = 1;`;
    return `const __both${OPERATORS.indexOf(op)} = (i, a, b) => { const x = a ${op} b; ${tell} return x; };`;
  }),
].join(" ");

/** What is put into a source: at `at`, of one place by `rank` and then `order`; what stands before `skip` is left out. */
function putsFor(source) {
  const puts = [];
  const around = ({ start, end }, tell, order) => {
    puts.push({ at: start, rank: 2, order, text: tell }, { at: end, rank: 0, order: -order, text: ")" });
  };
  changesOf(source).forEach((c, i) => {
    if (c.kind === "value") around(c, `__value(${i}, `, 2 * i);
    else if (c.kind === "if") around(c, `__true(${i}, `, 2 * i);
    else if (isLogical(c.kind)) {
      around(c.left, c.kind === "&&" ? `__and(${i}, ` : `__or(${i}, `, 2 * i + 1);
      around(c.right, `__right(${i}, `, 2 * i + 1);
    } else if (c.kind === "extreme") {
      const to = `__extreme(${i}, ${c.other === "Math.max" ? "Math.min" : "Math.max"}, ${c.other}, `;
      puts.push({ at: c.callee.start, rank: 2, order: 2 * i, text: to, skip: c.callee.end + 1 });
    } else if (c.kind !== "name") {
      around(c, `__both${OPERATORS.indexOf(c.kind)}(${i}, `, 2 * i);
      puts.push({ at: c.left.end, rank: 1, order: 0, text: ", ", skip: c.right.start });
    }
  });
  return puts;
}

/** The source, telling at the head of each function that it is run, and of each place that a change there would be seen. */
export function watched(source, path) {
  const file = relative(process.cwd(), path).split(sep).join("/");
  if (!isWatched(file)) return source;
  const puts = putsFor(source);
  const flags = [];
  for (const f of functionsOf(source)) {
    // told once: what is run by the million stays as quick as it was
    const flag = `__reached${flags.length}`;
    flags.push(`${flag} = false`);
    const tell = `${flag} || (${flag} = true, __reach.add(${JSON.stringify(`${file}:${f.start}`)}))`;
    if (f.isBlock) puts.push({ at: f.body.start + 1, rank: 2, order: -1, text: `${tell};` });
    else {
      puts.push({ at: f.body.start, rank: 2, order: -1, text: `(${tell}, ` });
      puts.push({ at: f.body.end, rank: 0, order: 1, text: ")" });
    }
  }
  // where one ends and another begins the closing comes first, and of those the inner one
  puts.sort((a, b) => a.at - b.at || a.rank - b.rank || a.order - b.order);
  let text = "";
  let from = 0;
  for (const put of puts) {
    text += source.slice(from, Math.max(from, put.at)) + put.text;
    from = Math.max(from, put.skip ?? put.at);
  }
  const name = JSON.stringify(file);
  const head = [
    `const __reach = globalThis.__reach ?? new Set(); __reach.add(${name});`,
    `const __seen = globalThis.__seenIn?.(${name}) ?? {};`,
    TELLS,
    flags.length > 0 ? `let ${flags.join(", ")};` : "",
  ];
  return `${head.join(" ")} ${text}${source.slice(from)}`;
}
