import type { FindingList } from "../findings.ts";
import type { DrillReading, DrillTool } from "./data.ts";
import { holesFor } from "./use.ts";

const NOT_PLATED = /\bNO[NT][_ -]?PLATED\b|\bNPTH\b|\bUNPLATED\b/gi;

/** What a comment says of plating; nothing where it speaks of both. */
function platedBy(text: string): boolean | undefined {
  const rest = text.replace(NOT_PLATED, " ");
  const isPlated = /\bPLATED\b/i.test(rest);
  return rest === text ? isPlated || undefined : isPlated ? undefined : false;
}

/** What a drill file states of itself: unit, zeros, plating, tools; and how its numbers read under that. */
export class DrillHead {
  private readonly file: string;
  private readonly found: FindingList;
  private readonly reading: DrillReading | undefined;
  readonly tools = new Map<number, DrillTool & { readonly mm: number }>();
  readonly fileAttributes: Record<string, string[]> = {};
  unitMm: number | undefined;
  zeros: "keep-leading" | "keep-trailing" | undefined;
  integers = 0;
  decimals = 0;
  hasBareNumbers = false;
  hasPoints = false;
  filePlated: boolean | undefined;
  toolPlated: boolean | undefined;
  /** Sizes of tools told in remarks, mm. */
  private readonly remarked = new Map<number, number>();
  private toolUse: string | undefined;
  private toolTolerance: readonly [number, number] | undefined;
  private inHeader = false;
  /** How much of it looks like a drill file. */
  evidence = 0;
  /** A tool defined in the body, which is in hand from there on; the reader takes it. */
  defined: number | undefined;

  constructor(file: string, reading: DrillReading | undefined, found: FindingList) {
    this.file = file;
    this.reading = reading;
    this.found = found;
  }

  /** True where nothing is left open: a reading was given, or the file states unit and zeros as far as it needs them. */
  get isCertain(): boolean {
    return (
      this.reading !== undefined ||
      (this.unitMm !== undefined && (!this.hasBareNumbers || this.zeros !== undefined))
    );
  }

  /** Takes a comment: attributes, plating, unit and format are told there too. */
  comment(text: string): void {
    const attribute = /^#@!\s*(T[FAD])(.*)$/.exec(text);
    if (attribute) {
      const [name = "", ...fields] = attribute[2]!.trim().replace(/\*$/, "").split(",");
      if (attribute[1] === "TF") {
        this.fileAttributes[name.replace(/^\./, "")] = fields;
        if (name === ".FileFunction") {
          if (fields[0] === "Plated") this.filePlated = true;
          if (fields[0] === "NonPlated") this.filePlated = false;
        }
      } else if (attribute[1] === "TA" && name === ".DrillTolerance") {
        const [more, less] = fields.map((f) => Number(f) * (this.unitMm ?? 1));
        if (Number.isFinite(more) && Number.isFinite(less)) this.toolTolerance = [more!, less!];
      } else if (attribute[1] === "TA") {
        this.toolUse = holesFor(fields);
        if (
          fields.includes("Plated") ||
          fields.includes("ViaDrill") ||
          fields.includes("ComponentDrill") ||
          fields.includes("CastellatedDrill")
        )
          this.toolPlated = true;
        else if (fields.includes("NonPlated") || fields.includes("MechanicalDrill")) this.toolPlated = false;
      } else {
        this.toolPlated = undefined;
        this.toolUse = undefined;
        this.toolTolerance = undefined;
      }
      return;
    }
    const format = /FILE_FORMAT\s*=\s*(\d)\s*:\s*(\d)/i.exec(text);
    if (format) {
      this.integers = Number(format[1]);
      this.decimals = Number(format[2]);
    }
    const isPlated = platedBy(text);
    if (isPlated !== undefined) this.mark(isPlated);
    this.remarkTool(text);
    if (this.unitMm === undefined && /\bunits?\b.*\b(inch|inches|imperial)\b/i.test(text)) this.unitMm = 25.4;
    if (this.unitMm === undefined && /\bunits?\b.*\b(mm|metric|millimet)/i.test(text)) this.unitMm = 1;
  }

  /** A tool's size told in a remark: "T1 = 0.8 mm", "Tool 2 diameter 1.2"; it counts where nothing else says it. */
  private remarkTool(text: string): void {
    const m =
      /^\s*(?:t|tool|drill)\s*#?0*(\d{1,3})\b\s*(?:diameter|dia\.?|size|ø)?\s*[:=]?\s*(\d*[.,]?\d+)\s*(mm|mil|mils|inch|inches|in|")?(?![\w.])/i.exec(
        text,
      );
    const size = Number(m?.[2]?.replace(",", "."));
    if (!m || !(size > 0)) return;
    const word = m[3]?.toLowerCase();
    const unit =
      word === undefined
        ? (this.reading?.unitMm ?? this.unitMm ?? 1)
        : word === "mm"
          ? 1
          : word.startsWith("mil")
            ? 0.0254
            : 25.4;
    if (size * unit < 13) this.remarked.set(Number(m[1]), size * unit);
  }

  /** Gives a tool that is used and not defined the size a remark states, and says so; false where none does. */
  takeRemarked(number: number, no: number): boolean {
    const mm = this.remarked.get(number);
    if (mm === undefined) return false;
    this.tools.set(number, { name: `T${number}`, mm, plated: this.toolPlated ?? this.filePlated });
    this.found.add({
      tag: "drill-tool-unit",
      level: "remark",
      file: this.file,
      line: no,
      text: `The size of tool ${number} stands only in a remark: ${mm.toFixed(3)} mm was taken.`,
    });
    return true;
  }

  private mark(isPlated: boolean): void {
    if (this.inHeader && this.tools.size === 0) this.filePlated = isPlated;
    this.toolPlated = isPlated;
  }

  /** Takes a statement of the header or a tool's definition, without spaces and with the comment behind it; false where it is one of the body. */
  statement(line: string, comment: string, no: number): boolean {
    if (line === "M48") {
      this.evidence += 5;
      this.inHeader = true;
      return true;
    }
    if (line === "%" || line === "M95") {
      this.inHeader = false;
      return true;
    }
    const unit = /^(METRIC|INCH)((?:,[A-Z0-9.]+)*)$/i.exec(line);
    if (unit) {
      this.evidence += 3;
      this.unitMm = unit[1]!.toUpperCase() === "METRIC" ? 1 : 25.4;
      for (const word of unit[2]!.toUpperCase().split(",")) {
        if (word === "LZ") this.zeros = "keep-leading";
        if (word === "TZ") this.zeros = "keep-trailing";
        const digits = /^(0+)\.(0+)$/.exec(word);
        if (digits) {
          this.integers = digits[1]!.length;
          this.decimals = digits[2]!.length;
        }
      }
      return true;
    }
    const define = /^T(\d+)(?=.*C)((?:[A-WZ][-+.\d]*)*)$/i.exec(line);
    if (define && /C[.\d]/i.test(line)) {
      this.defineTool(Number(define[1]), define[2]!, comment, no);
      return true;
    }
    return false;
  }

  private defineTool(number: number, fields: string, comment: string, no: number): void {
    this.evidence += 2;
    const c = /C([.\d]+)/i.exec(fields);
    const size = Number(c?.[1]);
    const unit = this.reading?.unitMm ?? this.unitMm ?? 1;
    let mm = size * unit;
    let was: string | undefined;
    // a whole number larger than any drill is in micrometres, or ten-thousandths of an inch
    const [large, parts] = unit === 1 ? [50, 1000] : [10, 10000];
    if (!c![1]!.includes(".") && size >= large) mm = (size / parts) * unit;
    // with a point it is in thousandths of the unit: what is as thick as a fist is no drill
    else if (mm >= 50 && (mm / 1000 >= 0.1 || unit === 1) && mm / 1000 < 13) {
      mm /= 1000;
      was = unit === 1 ? "micrometres" : "mil";
    }
    if (!(mm > 0 && mm < 50)) {
      this.found.add({
        tag: "parse-error",
        level: "error",
        file: this.file,
        line: no,
        text: `The diameter of tool ${number} is ${c?.[1]}; that cannot be.`,
        do: "Export the drill file again.",
      });
      return;
    }
    if (was !== undefined)
      this.found.add({
        tag: "drill-tool-unit",
        level: "warning",
        file: this.file,
        line: no,
        text: `The diameter of tool ${number} is ${c![1]} ${unit === 1 ? "mm" : "inches"} as the file states its unit; that cannot be, and ${was} were taken: ${mm.toFixed(3)} mm.`,
        do: "Check the sizes in the drill table, or export the file with one unit.",
      });
    this.tools.set(number, {
      name: `T${number}`,
      mm,
      plated: platedBy(comment) ?? this.toolPlated ?? this.filePlated,
      ...(this.toolUse ? { use: this.toolUse } : {}),
      ...(this.toolTolerance ? { toleranceMm: this.toolTolerance } : {}),
    });
    if (!this.inHeader) this.defined = number;
  }

  /** A coordinate or size in mm. */
  number(text: string): number {
    const unit = this.reading?.unitMm ?? this.unitMm ?? 1;
    // in a file that writes points, a number without one is whole units
    if (text.includes(".") || this.hasPoints) return Number(text) * unit;
    this.hasBareNumbers = true;
    const sign = text.startsWith("-") ? -1 : 1;
    const digits = text.replace(/^[-+]/, "");
    const zeros = this.reading?.zeros ?? this.zeros ?? "keep-trailing";
    const decimals = this.reading?.decimals ?? (this.decimals || (unit === 1 ? 3 : 4));
    const integers = this.reading?.integers ?? (this.integers || (unit === 1 ? 3 : 2));
    const full = zeros === "keep-leading" ? digits.padEnd(integers + decimals, "0") : digits;
    return ((sign * Number(full)) / 10 ** decimals) * unit;
  }
}
