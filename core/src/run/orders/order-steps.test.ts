import { expect, test } from "@jest/globals";
import type { OrderState } from "../document/order-states.ts";
import type { OrderStep } from "../document/record.ts";
import { orderStand, refuseStep } from "./order-steps.ts";

/** "24 sent, 25 asked": the day of November and what was written down, in the order it was written. */
const steps = (text: string): OrderStep[] =>
  text
    .split(", ")
    .filter(Boolean)
    .map((s, i) => {
      const [d, state] = s.split(" ") as [string, OrderState];
      return { id: `${i}`, order: "boards a", state, on: `2026-11-${d}`, words: "", person: "", source: "" };
    });
const TODAY = "2026-11-28";
const stand = (text: string, at: { today?: string; promisedOn?: string; isHere?: boolean } = {}) => {
  const s = orderStand(steps(text), { today: TODAY, isHere: false, ...at });
  return `${s.state}${s.waits ? `: ${s.waits.on} ${s.waits.what} since ${s.waits.since.slice(8)}` : ""}${s.isOverdue ? " !" : ""}`;
};

test.each([
  ["", "open"],
  ["26 sent", "sent: house to look at the files since 26"],
  // three days are usual; the fourth is not
  ["25 sent", "sent: house to look at the files since 25"],
  ["24 sent", "sent: house to look at the files since 24 !"],
  ["24 sent, 24 asked", "asked: shop to answer what it asks since 24"],
  ["24 sent, 24 asked, 26 answered", "answered: house to look at the files since 26"],
  // written down afterwards, in another order than it was
  ["26 answered, 24 sent, 25 asked", "answered: house to look at the files since 26"],
  // asked again after the answer; the first open one counts
  ["24 sent, 24 asked, 25 answered, 26 asked, 27 asked", "asked: shop to answer what it asks since 26"],
  // the house went on by itself
  ["24 sent, 24 asked, 26 accepted", "accepted: shop to pay since 26"],
  ["24 sent, 26 accepted, 27 paid", "paid: house to make it since 27"],
  // paid with the order, before anybody looked
  ["26 sent, 26 paid", "paid: house to look at the files since 26"],
  ["26 sent, 26 paid, 27 accepted", "paid: house to make it since 27"],
  ["20 sent, 21 accepted, 22 paid, 24 asked", "asked: shop to answer what it asks since 24"],
  ["20 sent, 21 accepted, 22 paid, 24 made", "made: house to send it since 24"],
  ["20 sent, 24 made, 25 shipped", "shipped: carrier to bring it since 25"],
  // nobody wrote the rest down
  ["25 shipped", "shipped: carrier to bring it since 25"],
  ["24 sent, 24 asked, 25 withdrawn", "withdrawn"],
  // what was before it was taken back counts no more
  ["20 sent, 21 accepted, 22 paid, 25 withdrawn, 26 sent", "sent: house to look at the files since 26"],
])("%s is %s", (text, expected) => {
  expect(stand(text)).toBe(expected);
});

test("what was before it was taken back is none of its way now", () => {
  const at = { today: TODAY, isHere: false };
  const of = (text: string) => orderStand(steps(text), at).now.map((s) => s.state);
  expect(of("20 sent, 21 accepted, 25 withdrawn, 26 sent")).toEqual(["sent"]);
  expect(of("26 accepted, 24 sent")).toEqual(["sent", "accepted"]);
  expect(of("20 sent, 25 withdrawn")).toEqual(["sent", "withdrawn"]);
});

test("a promised day that is over is told of whoever has the order, and not once it is here or waits on us", () => {
  const made = "20 sent, 21 accepted, 22 paid, 24 made";
  expect(stand(made, { promisedOn: "2026-11-28" })).not.toContain("!");
  expect(stand(made, { promisedOn: "2026-11-27" })).toContain("!");
  expect(stand("24 shipped", { promisedOn: "2026-11-27" })).toContain("!");
  expect(stand("24 shipped", { promisedOn: "2026-11-27", isHere: true })).toBe("shipped");
  expect(stand("20 sent, 21 asked", { promisedOn: "2026-11-27" })).not.toContain("!");
  // a house that has accepted may take its days
  expect(stand("10 sent, 11 accepted, 12 paid", { promisedOn: "2026-12-10" })).not.toContain("!");
});

test.each<[string, OrderState, string | undefined]>([
  ["", "sent", undefined],
  ["24 sent", "sent", "Its files were sent already."],
  ["24 accepted", "sent", undefined],
  ["24 sent, 25 withdrawn", "sent", undefined],
  ["24 sent, 25 withdrawn, 26 sent", "sent", "Its files were sent already."],
  ["24 sent, 25 withdrawn", "paid", "The order was taken back."],
  ["24 sent, 25 withdrawn", "withdrawn", "Nothing of it is out, so nothing can be taken back."],
  ["", "withdrawn", "Nothing of it is out, so nothing can be taken back."],
  ["24 sent", "withdrawn", undefined],
  ["24 sent", "answered", "The house asks nothing that is open."],
  ["24 sent, 24 asked", "answered", undefined],
  ["24 sent, 24 asked, 25 answered", "answered", "The house asks nothing that is open."],
  // by telephone: what nobody wrote down before
  ["", "shipped", undefined],
])("after “%s” comes %s: %s", (text, state, refused) => {
  const put = () => refuseStep(steps(text), state);
  if (refused) expect(put).toThrow(refused);
  else expect(put).not.toThrow();
});
