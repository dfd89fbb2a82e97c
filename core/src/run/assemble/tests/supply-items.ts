import { firstPower } from "../../../meet/first-power.ts";
import { railLoads } from "../../../meet/loads.ts";
import type { BoardWires } from "./board-wires.ts";
import { base, type Draft, four } from "./draft.ts";

/** "220 mAh", "2,4 Ah" in what a cell is called: mAh. */
function capacityOf(words: string): number | undefined {
  const [, number = "", kilo] = /(\d+(?:[.,]\d+)?)\s*(m?)Ah\b/i.exec(words) ?? [];
  const n = Number(number.replace(",", ".")) * (kilo === "" ? 1000 : 1);
  return n > 0 ? n : undefined;
}

/** Half as much again as is known to be drawn is still taken for the same. */
const ROOM = 1.5;

/**
 * What a cell is drawn on for while the board rests, and how long it lasts so: from what each part draws at rest. Nothing where
 * any of it is not known: a limit out of half the sum would be a guess.
 */
export function cells(b: BoardWires): Draft[] {
  const { volts, wires, called } = b;
  const card = firstPower(volts.power, railLoads(wires));
  return volts.power.rails.flatMap((rail, i) =>
    rail.sources
      .filter((s) => s.isCell)
      .flatMap((s): Draft[] => {
        const r = card.rails.find((x) => x.nets.join() === volts.power.rails[i]!.nets.join());
        const isKnown =
          card.rails.every((x) => x.own.loads.every((l) => !l.isRestTaken)) && r?.unknown.length === 0;
        if (!r || !isKnown || r.restMa <= 0) return [];
        const isSmall = r.restMa < 1;
        const amount = (ma: number) => four(isSmall ? ma * 1000 : ma);
        const unit = isSmall ? "µA" : "mA";
        const mah = capacityOf(wires.facts.wordsOf(s.ref));
        const days = mah === undefined ? undefined : mah / r.restMa / 24;
        return [
          {
            ...base,
            name: `${called(s.ref)} at rest`,
            state: "programmed",
            drives: [`${called(s.ref)}.${s.pin}`],
            reads: [`${called(s.ref)}.${s.pin}`],
            through: r.by.map(called),
            expect:
              days === undefined
                ? "asleep, a meter in the cell’s place; how long the cell lasts so is not known, nobody says what it holds"
                : `asleep, a meter in the cell’s place; ${mah} mAh last ${days >= 2 ? `${Math.floor(days)} days` : `${Math.floor(days * 24)} hours`} so at the most`,
            unit,
            max: amount(r.restMa * ROOM),
            because: `${amount(r.restMa)} ${unit} are known to be drawn at rest, half as much again`,
            minutes: 0.5,
          },
        ];
      }),
  );
}
