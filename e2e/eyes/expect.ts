import { type Locator, expect as look } from "@playwright/test";

/** What is looked at of a thing that has to be there. */
const OF_WHAT_IS_THERE = new Set([
  "toBeVisible",
  "toContainText",
  "toHaveText",
  "toHaveValue",
  "toHaveAttribute",
  "toHaveAccessibleName",
  "toBeDisabled",
  "toBeEnabled",
  "toBeFocused",
  "toBeChecked",
]);
const isLocator = (v: unknown): v is Locator =>
  typeof v === "object" && v !== null && "waitFor" in v && "elementHandle" in v;

/**
 * As the runner's own, but for things on a page that are not there yet: each look in vain has the runner write the whole page
 * down for a report nobody will read, a tenth of all that a page of a journey does. So a thing is waited for first; whether it
 * is as it is to be is still said by the runner.
 */
export const expect = new Proxy(look, {
  apply(target, self, of: Parameters<typeof look>) {
    const made = Reflect.apply(target, self, of) as object;
    const [thing] = of;
    if (!isLocator(thing)) return made;
    return new Proxy(made, {
      get(matchers, name, receiver) {
        const matcher: unknown = Reflect.get(matchers, name, receiver);
        if (typeof matcher !== "function" || !OF_WHAT_IS_THERE.has(String(name))) return matcher;
        return async (...given: readonly unknown[]) => {
          // one that never comes, and one of several, is told of by the matcher
          const { timeout = 60_000 } = (given.at(-1) ?? {}) as { timeout?: number };
          await thing.waitFor({ state: "attached", timeout }).catch(() => undefined);
          return Reflect.apply(matcher, matchers, given);
        };
      },
    });
  },
});
