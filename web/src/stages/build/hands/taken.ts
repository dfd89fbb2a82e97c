/** What a step takes one by one: pieces that are put on, kinds that are laid out, things that are tried, images that are loaded, joints that are looked at. */
export type Taken = "pieces" | "kinds" | "tests" | "loads" | "looks";

export const takenAs = (kind: string): Taken =>
  kind === "kit"
    ? "kinds"
    : kind === "test"
      ? "tests"
      : kind === "program" || kind === "program-before"
        ? "loads"
        : kind === "inspect"
          ? "looks"
          : "pieces";

/** What each press is called there. */
export const TAKEN = {
  pieces: {
    yes: "on",
    are: "on",
    no: "on, in doubt",
    button: "in doubt",
    doubtful: "in doubt",
    lost: "one is lost",
    lostShort: "one lost",
  },
  kinds: {
    yes: "laid out",
    are: "laid out",
    no: "laid out, in doubt",
    button: "in doubt",
    doubtful: "in doubt",
    lost: "one is short",
    lostShort: "one short",
  },
  tests: {
    yes: "as it should be",
    are: "tried",
    no: "not as it should be",
    button: "it fails",
    doubtful: "failed",
    lost: "",
    lostShort: "",
  },
  loads: {
    yes: "loaded",
    are: "loaded",
    no: "not loaded",
    button: "it fails",
    doubtful: "not loaded",
    lost: "",
    lostShort: "",
  },
  looks: {
    yes: "good",
    are: "looked at",
    no: "in doubt by eye",
    button: "in doubt",
    doubtful: "in doubt",
    lost: "",
    lostShort: "",
  },
} as const satisfies Record<Taken, Readonly<Record<string, string>>>;
