import { defineAperture } from "./aperture.ts";
import { ImageBuilder } from "./image.ts";
import type { LayerState } from "./state.ts";

/** Blocks nested deeper than this are refused. */
const MAX_NESTING = 10;

/** Scales beyond this are a broken file. */
const MAX_SCALE = 100;
/** Stamps wider than this, mm, are a wrong unit or a broken file. */
const WIDEST_MM = 2000;

/** A word that belongs outside of percent signs. */
const WORD = /^(?:[GDXYIJMN][-+]?[.\d]+)+$/;

/** Carries out what stands between two percent signs: one macro, or statements separated by stars. */
export function readBlock(s: LayerState, text: string, line: number): void {
  const statements = text.split("*");
  const first = statements[0]!.trim();
  if (first.startsWith("AM")) {
    const name = first.slice(2).trim();
    // behind the last star stands nothing
    const own = statements.slice(1, statements.at(-1)!.trim() === "" ? -1 : undefined);
    const macro = { name, statements: own.map((t) => t.replace(/[\r\n]/g, "").trim()) };
    const old = s.macros.get(name);
    if (old && old.statements.join("*") !== macro.statements.join("*")) twice(s, `The macro ${name}`, line);
    s.macros.set(name, macro);
    s.evidence++;
    return;
  }
  for (const raw of statements) {
    const statement = raw.replace(/[\r\n]/g, "").trim();
    if (statement === "") continue;
    try {
      extended(s, statement, line);
    } catch (error) {
      s.say(
        statement.startsWith("AD") ? "macro-error" : "parse-error",
        "error",
        line,
        `${statement.slice(0, 40)}: ${(error as Error).message}.`,
        "What it draws is missing; export the layer again.",
      );
    }
  }
}

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one list of commands, each a line or two
function extended(s: LayerState, t: string, line: number): void {
  switch (t.slice(0, 2)) {
    case "FS":
      s.evidence++;
      if (s.numbers.format !== undefined && s.numbers.format !== t) twice(s, "The number format", line);
      if (!/^FS[LTD]/.test(t))
        s.say(
          "parse-error",
          "warning",
          line,
          "The number format does not say which zeros are left out; leading ones were taken.",
          "Compare the layer's size and place with the others on the picture.",
        );
      if (!s.numbers.setFormat(t))
        s.say(
          "parse-error",
          "remark",
          line,
          "X and Y state different number formats; each was read by its own.",
        );
      break;
    case "MO":
      s.evidence++;
      if (t === "MOMM") setUnit(s, 1, line);
      else if (t === "MOIN") setUnit(s, 25.4, line);
      else throw new Error("the unit is neither MM nor IN");
      break;
    case "AD":
      define(s, t, line);
      break;
    case "LP":
      if (t[2] !== "C" && t[2] !== "D") throw new Error("the polarity is neither C nor D");
      s.dark = t[2] === "C" ? 0 : 1;
      break;
    case "LM":
      if (!/^LM(N|X|Y|XY)$/.test(t)) throw new Error("the mirroring is none of N, X, Y and XY");
      s.transform = { ...s.transform, mirrorX: t.includes("X", 2), mirrorY: t.includes("Y", 2) };
      break;
    case "LR":
      s.transform = { ...s.transform, degrees: finite(t.slice(2)) };
      break;
    case "LS": {
      const scale = finite(t.slice(2));
      if (scale <= 0 || scale > MAX_SCALE) throw new Error(`a scale of ${scale} cannot be meant`);
      s.transform = { ...s.transform, scale };
      break;
    }
    case "SR":
      stepRepeat(s, t);
      break;
    case "AB":
      block(s, t, line);
      break;
    case "TF":
    case "TA":
    case "TO":
    case "TD":
      readAttribute(s, t, line);
      break;
    case "IP":
    case "OF":
    case "MI":
    case "SF":
    case "AS":
    case "IR":
      deprecated(s, t, line);
      break;
    case "IN":
    case "LN":
    case "IF":
    case "IJ":
    case "PF":
      break;
    default:
      // a block whose second % is missing swallows what stands behind it; knocking out clears copper
      if (WORD.test(t) || t.startsWith("KO"))
        s.say(
          "unknown-command",
          "error",
          line,
          `“${t.slice(0, 30)}” cannot stand between percent signs; what it draws or chooses is missing.`,
          "Export the layer again.",
        );
      else
        s.say(
          "unknown-command",
          "warning",
          line,
          `“${t.slice(0, 30)}” is not a command of the format and was passed over.`,
        );
  }
}

/** Takes the unit; one that is stated otherwise later is said. */
export function setUnit(s: LayerState, mm: number, line: number): void {
  if (s.numbers.hasUnit && s.numbers.unitMm !== mm) twice(s, "The unit", line);
  s.numbers.setUnit(mm);
}

function twice(s: LayerState, what: string, line: number): void {
  s.say(
    "defined-twice",
    "warning",
    line,
    `${what} is stated a second time and otherwise; each holds from where it stands.`,
    "Look at the layer on the picture, or export it again.",
  );
}

const finite = (text: string): number => {
  const v = Number(text);
  if (text.trim() === "" || !Number.isFinite(v)) throw new Error("a number is missing");
  return v;
};

function deprecated(s: LayerState, t: string, line: number): void {
  const done = s.whole.take(t, s.numbers.unitMm);
  if (done === "neutral") return;
  if (done === "unknown")
    s.say(
      "deprecated-transform",
      "error",
      line,
      `“${t.slice(0, 30)}” would change the whole image but cannot be read; it is not applied.`,
      "Compare the layer's place with the others on the picture.",
    );
  else
    s.say(
      "deprecated-transform",
      t === "IPNEG" ? "warning" : "remark",
      line,
      t === "IPNEG"
        ? "The whole image is stated negative: what it draws is left out, the rest of the board is filled."
        : `“${t.slice(0, 30)}” changes the whole image; it was applied.`,
      "Compare the layer with the others on the picture.",
    );
}

function define(s: LayerState, t: string, line: number): void {
  const m = /^ADD(\d+)([A-Za-z_.$][\w.$-]*)(?:,(.*))?$/.exec(t);
  if (!m) throw new Error("the aperture cannot be read");
  s.evidence++;
  const code = Number(m[1]);
  if (code < 10) throw new Error(`apertures are numbered from D10, this one is D${code}`);
  const p = (m[3] ?? "")
    .split("X")
    .filter((v) => v.trim() !== "")
    .map(Number);
  if (p.some((v) => !Number.isFinite(v))) throw new Error("a parameter is not a number");
  const definition = `${m[2]},${p.join("X")}`;
  const old = s.definitions.get(code);
  if (old !== undefined && old !== definition) twice(s, `D${code}`, line);
  s.definitions.set(code, definition);
  const aperture = defineAperture(code, m[2]!, p, s.macros, s.numbers.unitMm);
  if (!(Math.max(...aperture.box.map(Math.abs)) < WIDEST_MM))
    throw new Error(`D${code} is metres wide; the unit or the number is wrong`);
  if (s.byCode.has(code) && s.current === s.byCode.get(code)) s.current = s.apertures.length;
  if (!s.numbers.hasUnit)
    s.say("missing-unit", "remark", line, "Apertures are defined before the unit is stated.");
  s.byCode.set(code, s.apertures.length);
  if (aperture.capsules.length === 0 && aperture.areas.length === 0) s.empty.add(s.apertures.length);
  const { apertureFunction, drillTolerance } = s.attributes;
  const [more, less] = drillTolerance?.map((v) => v * s.numbers.unitMm) ?? [];
  s.apertures.push({
    ...aperture,
    ...(apertureFunction ? { function: apertureFunction } : {}),
    ...(more !== undefined && less !== undefined ? { toleranceMm: [more, less] } : {}),
  });
}

/** One attribute command, also when it is hidden in a comment. */
export function readAttribute(s: LayerState, t: string, line: number): void {
  if (!s.attributes.apply(t))
    s.say("unknown-command", "remark", line, `“${t.slice(0, 30)}” was passed over.`);
}

function stepRepeat(s: LayerState, t: string): void {
  s.closeRepeat();
  if (t === "SR") return;
  const m = /^SR(?=X|Y|I|J)(?:X(\d+))?(?:Y(\d+))?(?:I([-+\d.]+))?(?:J([-+\d.]+))?$/.exec(t);
  const [nx, ny] = [Number(m?.[1] ?? 1), Number(m?.[2] ?? 1)];
  const hasSteps = (nx === 1 || m?.[3] !== undefined) && (ny === 1 || m?.[4] !== undefined);
  if (!m || nx < 1 || ny < 1 || !hasSteps) throw new Error("the numbers of copies and steps cannot be read");
  const dx = finite(m[3] ?? "0") * s.numbers.unitMm;
  const dy = finite(m[4] ?? "0") * s.numbers.unitMm;
  if (!(Math.abs(dx) * nx < 5000 && Math.abs(dy) * ny < 5000))
    throw new Error("the copies would lie metres away");
  // copies upon copies draw nothing new
  s.repeat = { nx: dx === 0 ? 1 : nx, ny: dy === 0 ? 1 : ny, dx, dy, from: s.builder.n };
}

function block(s: LayerState, t: string, line: number): void {
  if (t === "AB") {
    s.closeBlock(line);
    return;
  }
  const m = /^ABD(\d+)$/.exec(t);
  if (!m) throw new Error("the block's number cannot be read");
  if (s.open.length >= MAX_NESTING) {
    s.say(
      "block-recursive",
      "error",
      line,
      `Blocks are nested more than ${MAX_NESTING} deep; this one is drawn where it stands.`,
    );
    s.open.push({ code: Number(m[1]), builder: s.builder, repeat: s.repeat });
    return;
  }
  s.open.push({ code: Number(m[1]), builder: s.builder, repeat: s.repeat });
  s.repeat = undefined;
  s.builder = new ImageBuilder();
  s.evidence++;
}
