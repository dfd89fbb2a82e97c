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
