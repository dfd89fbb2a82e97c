/** What a net carries, by its name. */
export type Rail = "ground" | "supply";

const GROUND = [
  /^[A-Z]{0,4}[_-]?GND[A-Z]{0,3}\d*([_.-].*)?$/,
  /^0V([_.-].*|[A-Z])?$/,
  /^VSS[A-Z]{0,3}\d*([_.-].*)?$/,
  /^(GROUND|EARTH|CHASSIS|SHIELD|PE|FG)$/,
];
const SUPPLY = [
  /^[+-]?P{0,2}\d+(\.\d+)?V(\d*[A-Z]?|DC)([_.-].*)?$/,
  /^[ADP]?V(CC|DD)[A-Z]{0,4}\d*([_.-].*)?$/,
  /^[ADP]?V(EE|PP|BATT?|BUS|IN|OUT|SYS|MOT|SUP|SUPPLY|CORE|IO|EXT)[AD]?\d*([_.-].*)?$/,
  /^V([MS]\d*)?$/,
  // "V5", "V33": voltages people supply, so that V1 and V2 are no rails
  /^V(3|5|6|9|10|12|15|18|24|25|28|33|36|48|50)[A-Z]?$/,
  /^[VB][+-]$/,
  /^[+-]?BATT?(ERY)?[+-]?$/,
  /^(PWR|POWER)$/,
];
/** Endings of nets that are about a rail and are none. */
const ABOUT =
  /[_.-](EN|ENABLE|SENSE|SNS|FB|PG|PGOOD|GOOD|OK|DET|DETECT|DIV|ADC|MON|SEL|CTRL|FAULT|INT|GATE|LED|STAT|TEST|REF|ON|OFF|MEAS)\d*$/;

/**
 * Whether a net is a rail, by the names people give: "GND", "AGND", "0V", "VSS"; "+3V3", "3.3V", "VCC", "VBAT", "V+".
 * The sheet a name stands on ("/power/VCC") is left aside. A name nobody knows is no rail.
 */
export function railOf(name: string): Rail | undefined {
  const word = name
    .slice(name.lastIndexOf("/") + 1)
    .trim()
    .toUpperCase();
  if (ABOUT.test(word)) return undefined;
  if (GROUND.some((r) => r.test(word))) return "ground";
  return SUPPLY.some((r) => r.test(word)) ? "supply" : undefined;
}
