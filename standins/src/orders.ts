import type { House, HouseOrder, HouseOrderAnswer } from "@kobbin/contract";
import { chance } from "./catalogue.ts";
import { daysMade, questionOf } from "./quote.ts";

type Said = HouseOrderAnswer["said"][number];

const plus = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);
const later = (a: string, b: string): string => (a > b ? a : b);

/** Days a house of the demo may be late with what it makes. */
const MOST_LATE = 3;

/**
 * What a house has said of an order up to a day: it looks at the files the day they come, asks what it is unsure of, waits for
 * the answer, accepts, waits for the money, makes the boards, sends them. Of the same order on the same day always the same.
 *
 * @param day the house's own, ISO
 */
export function progressOf(
  key: string,
  house: Omit<House, "id">,
  reference: string,
  order: HouseOrder,
  seed: string,
  day: string,
): HouseOrderAnswer {
  const roll = chance(`${seed} ${key} ${reference}`);
  const number = `${key.slice(0, 1).toUpperCase()}-${1000 + Math.floor(roll * 9000)}`;
  const said: Said[] = [];
  const says = (state: Said["state"], on: string, words: string) =>
    said.push({ key: state, state, on, words });
  const done = (expectedOn?: string): HouseOrderAnswer => ({
    number,
    said: said.filter((s) => s.on <= day),
    ...(expectedOn && said.some((s) => s.state === "accepted" && s.on <= day) ? { expectedOn } : {}),
  });
  const told = (state: Said["state"]) => order.told.find((t) => t.state === state);
  if (told("withdrawn")) return done();
  let at = order.sentOn;
  if (order.boards.length > 0 && !order.files.some((f) => f.path.startsWith("fabrication/"))) {
    says("asked", at, "There are no layers among the files. Please send them.");
    return done();
  }
  const question = order.boards.map((b) => questionOf(house, b)).find((q) => q !== undefined);
  if (question && order.known?.question !== question) {
    says("asked", at, question);
    const answer = told("answered");
    if (!answer) return done();
    at = later(at, answer.on);
  }
  const p = house.price;
  const way = p.services?.find((s) => s.value === order.options.freight)?.transitDays ?? p.transitDays;
  const makes = daysMade(house, order.options);
  says("accepted", at, "The files are in order; it is made once it is paid.");
  const expectedOn = plus(at, makes + Math.ceil(way));
  const paid = told("paid");
  if (!paid) return done(expectedOn);
  const made = plus(later(at, paid.on), makes + Math.floor(roll * MOST_LATE));
  says("made", made, "");
  says("shipped", plus(made, 1), "");
  return done(expectedOn);
}
