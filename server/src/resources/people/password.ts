import { AppError } from "@kobbin/core";
import { verify } from "@node-rs/argon2";

/** Stands in where no hash is kept, so that a known and an unknown name take the same work. */
const NOBODY =
  "$argon2id$v=19$m=19456,t=2,p=1$c29tZXNhbHRzb21lc2FsdA$Xb1pVZkX6wL1k6m7J1yQmQ2Qw3o1r5m3m3H2v0w0XxU";

/** @throws AppError WRONG_PASSWORD */
export async function checkPassword(stored: string | null | undefined, password: string): Promise<void> {
  const fits = await verify(stored ?? NOBODY, password).catch(() => false);
  if (!stored || !fits)
    throw new AppError(
      "WRONG_PASSWORD",
      "Name and password do not fit together.",
      "Check both and try again.",
    );
}

/** Passwords of ten characters and more that every guesser tries first, and what they are built from. */
const REFUSED = new Set(
  `1234567890 12345678910 0123456789 0987654321 1234512345 1111111111 0000000000 1q2w3e4r5t 1qaz2wsx3edc qwertyuiop
  qwerty12345 qwerty123456 qwertz12345 asdfghjkl1 zxcvbnm123 password12 password123 password1234 passwordpassword
  password!! passw0rd123 iloveyou12 iloveyou123 letmein123 letmeinnow welcome123 welcome1234 sunshine12 sunshine123
  princess12 princess123 football12 football123 baseball123 superman123 batman1234 dragon1234 monkey1234 master1234
  shadow1234 michael123 charlie123 trustno1234 abc1234567 abcd123456 abcdefghij abcdefghijk a123456789 aa12345678
  changeme123 changemenow adminadmin admin12345 administrator rootrootroot testtesttest secret1234 mypassword
  mypassword1 correcthorse whatever123 computer123 internet123 starwars123 pokemon123 liverpool1 chelsea123 summer2024
  summer2025 summer2026 winter2024 winter2025 winter2026 autumn2026 spring2026 q1w2e3r4t5 zaq12wsxcde 147258369a
  987654321a 123456789a 123456789q 1234567890a 1234567890q asdf123456 qazwsxedcrfv football1234 kobbin1234 kobbinkobbin`
    .split(/\s+/)
    .filter((p) => p !== ""),
);

/**
 * A password chosen anew.
 * @param names what it must not be: the person's own name, the shop's
 * @throws AppError OUT_OF_RANGE where it is one that guessers try first
 */
export function checkNewPassword(password: string, names: readonly string[]): void {
  const plain = password.toLowerCase();
  const isName = names.some((n) => n.length >= 3 && plain.replace(n.toLowerCase(), "").length < 4);
  if (REFUSED.has(plain) || new Set(plain).size < 4 || isName)
    throw new AppError(
      "OUT_OF_RANGE",
      "That password is one of those that are guessed first.",
      "Choose another: four words that do not belong together are good.",
      { details: { password: "is guessed first" } },
    );
}
