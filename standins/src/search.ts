import type { FeedFound, FeedPart, FeedRule } from "@kobbin/contract";
import { chance, offersFor } from "./catalogue.ts";

/**
 * Parts that made-up makers have for a rule, as lists describe them: some better than asked, some worse, some with half of
 * it unsaid. Suppliers look for class, value and size alone; what does is for the asker to tell.
 */
function partsFor(rule: FeedRule): FeedPart[] {
  const size = /(?<!\d)(0201|0402|0603|0805|1206|1210)(?!\d)/.exec(rule.package)?.[1];
  const value = rule.params.value ?? "";
  const code =
    value
      .replace(/[ ΩFH]/g, "")
      .replace("µ", "u")
      .replace(".", "p") || "0";
  if (rule.kind === "resistor" && size && /Ω$/.test(value)) return resistors(value, code, size);
  if (rule.kind === "capacitor" && size && /F$/.test(value)) return capacitors(value, code, size);
  if (rule.kind === "lamp" && size && rule.params.colour) return lamps(rule.params.colour, size);
  if (rule.kind === "connector" && rule.params.pins) return rows(rule);
  return [];
}

const part = (
  kind: string,
  mpn: string,
  maker: string,
  description: string,
  pkg: string,
  params: Record<string, string>,
): FeedPart => ({ kind, mpn, maker, description, package: pkg, params });

function resistors(value: string, code: string, size: string): FeedPart[] {
  const power = { "0402": "0.063 W", "0603": "0.1 W", "0805": "0.125 W", "1206": "0.25 W" }[size];
  const more = power ? { power } : {};
  const words = `resistor ${value} ${size}`;
  const at = (tolerance: string) => ({ value, tolerance, ...more });
  return [
    part("resistor", `OX-R${size}-${code}-1`, "Oxbow Electric", `${words} 1 %`, size, at("1 %")),
    part("resistor", `OX-R${size}-${code}-01`, "Oxbow Electric", `${words} 0.1 %`, size, at("0.1 %")),
    part("resistor", `QL-R${size}-${code}-5`, "Quillon", `${words} 5 %`, size, at("5 %")),
    part("resistor", `QL-R${size}-${code}`, "Quillon", words, size, { value }),
  ];
}

function capacitors(value: string, code: string, size: string): FeedPart[] {
  const [, digits = "0", prefix = ""] = /^([\d.]+) ([pnµm]?)F$/.exec(value) ?? [];
  const farads = Number(digits) * ({ p: 1e-12, n: 1e-9, µ: 1e-6, m: 1e-3 }[prefix] ?? 1);
  // what a body of a size holds: much at a low voltage, or little at a high one
  const room = { "0201": 0.1e-6, "0402": 1e-6, "0603": 10e-6, "0805": 22e-6, "1206": 47e-6, "1210": 100e-6 }[
    size
  ]!;
  const make = (voltage: number, dielectric: string, tolerance?: string) =>
    part(
      "capacitor",
      `PW-C${size}-${code}-${voltage}-${dielectric}`,
      "Pinewood",
      `ceramic capacitor ${value} ${voltage} V ${dielectric} ${size}`,
      size,
      { value, voltage: `${voltage} V`, dielectric, ...(tolerance ? { tolerance } : {}) },
    );
  if (farads <= 10e-9) return [make(50, "C0G", "5 %"), make(50, "X7R", "10 %"), make(25, "Y5V", "20 %")];
  return [
    ...(farads <= room / 10 ? [make(50, "X7R", "10 %")] : []),
    ...(farads <= room / 3 ? [make(25, "X7R", "10 %")] : []),
    ...(farads <= room ? [make(16, "X5R", "20 %"), make(6.3, "X5R", "20 %"), make(16, "Y5V")] : []),
  ];
}

function lamps(colour: string, size: string): FeedPart[] {
  const letter = colour.slice(0, 2).toUpperCase();
  const drop = { red: "1.9 V", amber: "2 V", yellow: "2 V", green: "2.1 V" }[colour] ?? "3 V";
  return [
    part("lamp", `TB-L${size}-${letter}`, "Tilebarn", `lamp ${colour} ${size}`, size, {
      colour,
      pinout: "1 cathode, 2 anode",
      drop,
    }),
    part("lamp", `TB-L${size}-${letter}R`, "Tilebarn", `lamp ${colour} ${size}, other way round`, size, {
      colour,
      pinout: "1 anode, 2 cathode",
      drop,
    }),
    part("lamp", `TB-L${size}-${letter}-X`, "Tilebarn", `lamp ${colour} ${size}`, size, { colour }),
  ];
}

function rows({ params }: FeedRule): FeedPart[] {
  const count = Number(params.rows ?? "1");
  const pitch = params.pitch ?? "2.54 mm";
  const grid = `${count}x${Number(params.pins) / count}`;
  const code = pitch.replace(/[^\d]/g, "").padEnd(3, "0").slice(0, 3);
  const make = (letter: string, gender: string, orientation: string) =>
    part(
      "connector",
      `HB-${letter}${code}-${grid}`,
      "Hollybank",
      `${gender === "pins" ? "pin row" : "socket row"} ${grid}, ${pitch}, ${orientation}`,
      `HDR-${grid}`,
      { pins: params.pins!, pitch, family: "pin row", gender, orientation },
    );
  return [make("H", "pins", "upright"), make("A", "pins", "lying"), make("S", "socket", "upright")];
}

/** What a supplier names for each rule, with what it offers; of most makers' parts only some are on its list. */
export function search(
  supplierKey: string,
  rules: readonly FeedRule[],
  seed: string,
  day?: string,
): FeedFound {
  return {
    found: rules.slice(0, 200).map((rule) => ({
      id: rule.id,
      parts: partsFor(rule)
        .map((p) => ({ part: p, offers: offersFor(supplierKey, p.mpn, seed, day) }))
        .filter((f) => f.offers.length > 0)
        .sort((a, b) => chance(`${seed}|${a.part.mpn}`) - chance(`${seed}|${b.part.mpn}`)),
    })),
  };
}
