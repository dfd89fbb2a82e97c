import type { ObjectAttributes } from "./image.ts";

/**
 * The attributes in force while a layer is read (published layer format, section on attributes): those of the file,
 * the function of apertures defined next, and net, component and pin of objects drawn next.
 */
export class Attributes {
  /** Name without its dot → fields, as FileFunction → ["Copper", "L1", "Top"]. */
  readonly file: Record<string, string[]> = {};
  /** Object attributes met so far; row 0 says nothing. */
  readonly table: ObjectAttributes[] = [{}];
  /** Row of the table for objects drawn now. */
  index = 0;
  apertureFunction: string[] | undefined;
  /** In the file's unit: by how much larger and smaller. */
  drillTolerance: number[] | undefined;
  private object: ObjectAttributes = {};

  /**
   * Takes one attribute command: TF, TA, TO or TD with its fields.
   * @returns false when it was not understood
   */
  apply(s: string): boolean {
    const body = s.slice(2);
    const [name = "", ...fields] = body.split(",").map(unescapeField);
    if (s.startsWith("TF")) this.file[name.replace(/^\./, "")] = fields;
    else if (s.startsWith("TA")) {
      if (name === ".AperFunction") this.apertureFunction = fields;
      else if (name === ".DrillTolerance") this.drillTolerance = fields.map(Number);
    } else if (s.startsWith("TO")) {
      const o: { -readonly [K in keyof ObjectAttributes]: ObjectAttributes[K] } = { ...this.object };
      if (name === ".N") o.net = fields[0] ?? "";
      else if (name === ".C") o.ref = fields[0] ?? "";
      else if (name === ".P") {
        o.ref = fields[0] ?? "";
        o.pin = fields[1] ?? "";
      } else if (COMPONENT.test(name)) o.component = { ...o.component, [name.slice(1)]: fields[0] ?? "" };
      this.setObject(o);
    } else if (name === "" || name === ".AperFunction" || name.startsWith(".")) {
      if (name === "" || name === ".AperFunction") this.apertureFunction = undefined;
      if (name === "" || name === ".DrillTolerance") this.drillTolerance = undefined;
      if (name === "") this.setObject({});
      else if (name === ".N") this.setObject(omit(this.object, "net"));
      else if (name === ".C" || name === ".P") this.setObject(omit(omit(this.object, "ref"), "pin"));
      else if (COMPONENT.test(name) && this.object.component)
        this.setObject({ ...this.object, component: omit(this.object.component, name.slice(1)) });
    } else return s.startsWith("TD");
    return true;
  }

  private setObject(o: ObjectAttributes): void {
    this.object = o;
    if (Object.keys(o).length === 0) this.index = 0;
    else {
      this.index = this.table.length;
      this.table.push(o);
    }
  }
}

/** Attributes a component layer gives its parts: rotation, maker, number, value, mounting, package and so on. */
const COMPONENT = /^\.C[A-Z][A-Za-z]+$/;

const omit = <T extends object, K extends keyof T>(o: T, key: K): Omit<T, K> => {
  const { [key]: _, ...rest } = o;
  return rest;
};

/** Attribute fields may carry escapes such as \u002C (published layer format, attribute values). */
const unescapeField = (field: string) =>
  field.replace(/\\u([0-9a-fA-F]{4})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
