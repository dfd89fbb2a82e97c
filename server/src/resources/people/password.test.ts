import { expect, test } from "@jest/globals";
import { checkNewPassword } from "./password.ts";

test.each<[string, string[], boolean]>([
  ["aabbccaabbcc", [], false],
  ["aabbccddaabb", [], true],
  ["Password1234", [], false],
  // three signs beside the name are its end, four a word of their own
  ["adalovelace123", ["Adalovelace"], false],
  ["adalovelace1234", ["Adalovelace"], true],
  ["fen lamp works", ["x", "Fen Lamp Works"], false],
  // a name of two signs may stand in anything, one of three is a name
  ["abcdefgh", ["ab", "cdefgh"], false],
  ["abcde", ["ab"], true],
  ["adax12", ["Ada"], false],
])("%j of %j may be chosen: %s", (password, names, may) => {
  if (may) expect(() => checkNewPassword(password, names)).not.toThrow();
  else expect(() => checkNewPassword(password, names)).toThrow("guessed first");
});
