import { expect, test } from "@jest/globals";
import { createPartners, InTurnError, OutsideError, SilentError } from "./index.ts";

const silent = () => Promise.reject(new SilentError("It did not answer in time."));
const told = (asked: Promise<unknown>) => asked.then(String, (e: Error) => e.message);

test("one that says nothing three times is left alone, longer each time it still says nothing; one answer ends it", async () => {
  let ms = 0;
  const { asked } = createPartners({ silentAfter: 3, restMs: 10_000, longestMs: 35_000 }, () => ms);
  let questions = 0;
  const ask = (answer: () => Promise<unknown>, who = "a") =>
    told(
      asked(who, () => {
        questions++;
        return answer();
      }),
    );
  const rests = (s: number) => `It has not answered for a while and is left alone for another ${s} s.`;
  for (let i = 0; i < 3; i++) expect(await ask(silent)).toBe("It did not answer in time.");
  expect([await ask(silent), questions]).toEqual([rests(10), 3]);
  // nobody else rests with it
  expect(await ask(async () => "here", "b")).toBe("here");
  ms = 9_999;
  expect(await ask(silent)).toBe(rests(1));
  // one question after each rest, and a longer rest
  for (const rest of [20, 35, 35]) {
    ms += 40_000;
    expect(await ask(silent)).toBe("It did not answer in time.");
    expect(await ask(silent)).toBe(rests(rest));
  }
  ms += 40_000;
  expect(await ask(async () => "here")).toBe("here");
  for (let i = 0; i < 2; i++) await ask(silent);
  // whoever refuses is there
  expect(await ask(() => Promise.reject(new OutsideError("It answered 503.")))).toBe("It answered 503.");
  for (let i = 0; i < 2; i++) await ask(silent);
  expect(await ask(async () => "here")).toBe("here");
});

test("questions that were with it together fall silent together, and it rests once", async () => {
  let ms = 0;
  const { asked } = createPartners({ atOnce: 8, silentAfter: 3, restMs: 10_000 }, () => ms);
  const late: (() => void)[] = [];
  const all = Array.from({ length: 8 }, () =>
    told(asked("a", () => new Promise((_, no) => late.push(() => no(new SilentError("late")))))),
  );
  await new Promise(setImmediate);
  ms = 8000;
  for (const end of late) end();
  expect(await Promise.all(all)).toEqual(Array(8).fill("late"));
  expect(await told(asked("a", silent))).toMatch(/ another 10 s\.$/);
});

test("as many questions as may be are with a partner at once, whoever asks; the next waits, and is no failure", async () => {
  const { asked } = createPartners({ atOnce: 2, waitMs: 30 });
  const open: (() => void)[] = [];
  const slow = () => new Promise<string>((done) => open.push(() => done("late")));
  const begun = [asked("a", slow), asked("a", slow)];
  await expect(asked("a", slow)).rejects.toBeInstanceOf(InTurnError);
  expect(await asked("b", async () => "here")).toBe("here");
  const next = asked("a", async () => "in turn");
  open[0]!();
  expect([await begun[0], await next, open.length]).toEqual(["late", "in turn", 2]);
  open[1]!();
  expect(await begun[1]).toBe("late");
});
