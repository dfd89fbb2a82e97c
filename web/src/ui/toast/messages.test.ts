import { expect, test } from "@jest/globals";
import { type Message, withMessage } from "./messages.ts";

test("three are shown; what failed stays longest, then what can be taken back, and of equals the newest", () => {
  const said = (text: string, id: number, more: Partial<Message> = {}): Message => ({
    id,
    text,
    isProblem: false,
    ...more,
  });
  const after = (...list: Message[]) => list.reduce(withMessage, [] as Message[]).map((m) => m.text);
  const others = [said("a", 3), said("b", 4), said("c", 5)];
  expect(after(...others, said("d", 6))).toEqual(["b", "c", "d"]);
  const failed = said("failed", 1, { isProblem: true });
  const mine = said("mine", 2, { undo: () => undefined });
  expect(after(failed, mine, ...others)).toEqual(["failed", "mine", "c"]);
  expect(after(failed, ...others)).toEqual(["failed", "b", "c"]);
  expect(after(mine, ...others, said("later", 6, { undo: () => undefined }), said("e", 7))).toEqual([
    "mine",
    "later",
    "e",
  ]);
  // what comes last is always shown
  expect(after(failed, said("failed too", 8, { isProblem: true }), said("f", 9)).at(-1)).toBe("f");
});
