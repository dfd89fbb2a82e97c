import { readDrawing } from "./read.ts";

export const bytes = (text: string) => new TextEncoder().encode(text);
/** A text exchange drawing from its pairs: 0 LINE 10 0 20 0 … */
export const dxf = (entities: string, { header = "", tables = "", blocks = "" } = {}) =>
  bytes(
    `${[
      header && `0 SECTION 2 HEADER ${header} 0 ENDSEC`,
      tables && `0 SECTION 2 TABLES ${tables} 0 ENDSEC`,
      blocks && `0 SECTION 2 BLOCKS ${blocks} 0 ENDSEC`,
      `0 SECTION 2 ENTITIES ${entities} 0 ENDSEC 0 EOF`,
    ]
      .filter(Boolean)
      .join(" ")
      .split(" ")
      .join("\r\n")}\r\n`,
  );
export const svg = (body: string, attributes = 'width="100mm" height="50mm" viewBox="0 0 100 50"') =>
  bytes(`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`);

export const circlesOf = (file: Uint8Array) => {
  const d = readDrawing(file);
  if (d.kind !== "drawing") throw new Error(d.why);
  const r = (v: number) => Math.round(v * 100) / 100 + 0;
  return d.circles.map((c) => [r(c.x), r(c.y), r(c.diameter)]);
};
export const unitOf = (file: Uint8Array) => {
  const d = readDrawing(file);
  return d.kind === "drawing" ? d.unitMm : d.why;
};

/** A circle of 3 about 5/7, and a block that holds something. */
export const CIRCLE = "0 CIRCLE 8 0 10 5 20 7 30 0 40 1.5";
export const block = (inside: string, name = "POST", base = "10 0 20 0") =>
  `0 BLOCK 8 0 2 ${name} 70 0 ${base} 30 0 3 ${name} ${inside} 0 ENDBLK 8 0`;
