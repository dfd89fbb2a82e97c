import type { NewErratumBody } from "@kobbin/contract";
import { shapes } from "@kobbin/core";
import { useState } from "react";
import { addErratum } from "../../resources/learned.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { typedNumber } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { useRun } from "../runState.ts";
import { spotOf } from "./spot.ts";
import type { WentWrong } from "./wentWrong.ts";

export const HARM_WORDS = {
  stops: "the board does not work",
  worse: "it works worse",
  looks: "it only looks wrong",
} as const;
export const WAY_WORDS = {
  none: "nothing",
  wire: "a wire",
  cut: "a cut",
  part: "another part",
  program: "the program",
  other: "something else",
} as const;

/** A fault of the revision: where it is, what it does, how it is worked around. The next revision has to decide on it. */
export function ErratumForm({ of, onClose }: { of: WentWrong; onClose: () => void }) {
  const { doc, answer, did } = useRun();
  const sayError = useSayError();
  const [title, setTitle] = useState(of.words.slice(0, shapes.LONGEST_TITLE));
  const [place, setPlace] = useState(of.place);
  const [effect, setEffect] = useState("");
  const [harm, setHarm] = useState<NewErratumBody["harm"]>("worse");
  const [way, setWay] = useState<NewErratumBody["way"]>("none");
  const [workaround, setWorkaround] = useState("");
  const [minutes, setMinutes] = useState("");
  const [planned, setPlanned] = useState("");
  const spot = spotOf(place);
  const time = minutes.trim() === "" ? undefined : Number(typedNumber(minutes.trim()));
  const wrongTime = time !== undefined && !(time >= 0 && time <= 10_000);
  const keep = () => {
    const board = doc.boards.length > 1 ? doc.boards[of.board ?? 0]?.name : undefined;
    const done = addErratum({
      revisionId: answer.revisionId,
      title: title.trim(),
      effect: effect.trim(),
      harm,
      spot: { ...spot!, ...(board ? { board } : {}) },
      way: way === "none" && workaround.trim() !== "" ? "other" : way,
      workaround: workaround.trim(),
      ...(time === undefined ? {} : { minutes: time }),
      planned: planned.trim(),
      evidence: [of.came, of.words === title.trim() ? "" : of.words].filter((x) => x !== "").join(": "),
      foundOn: todayIso(),
    });
    done.catch(sayError);
    did(`${doc.product} ${doc.revision}: ${title.trim()}`, done);
    onClose();
  };
  return (
    <form
      className="grid grid-cols-2 gap-x-5 gap-y-2 max-sm:grid-cols-1"
      onSubmit={(e) => {
        e.preventDefault();
        if (title.trim() !== "" && spot && !wrongTime) keep();
      }}
    >
      <Field
        label="What is wrong, in a sentence"
        className="col-span-2 max-sm:col-span-1"
        maxLength={shapes.LONGEST_TITLE}
        value={title}
        onChange={(e) => setTitle(e.target.value)}
      />
      <Field
        label="Where"
        placeholder="D4, U1.7, or 6.5 / 34"
        maxLength={80}
        value={place}
        onChange={(e) => setPlace(e.target.value)}
        error={spot ? undefined : "A part, a pin, two lengths from the lower left corner, or nothing."}
        hint="Compared between revisions; empty: the board as a whole."
      />
      <Field
        label="What it does"
        maxLength={1000}
        value={effect}
        onChange={(e) => setEffect(e.target.value)}
      />
      <Pick
        label="With it"
        value={harm}
        options={Object.entries(HARM_WORDS)}
        onChange={(v) => setHarm(v as typeof harm)}
      />
      <Pick
        label="Worked around by"
        value={way}
        options={Object.entries(WAY_WORDS)}
        onChange={(v) => setWay(v as typeof way)}
      />
      <Field
        label="On each board"
        className="col-span-2 max-sm:col-span-1"
        placeholder="a wire from U1.7 to C5.1"
        maxLength={1000}
        value={workaround}
        onChange={(e) => setWorkaround(e.target.value)}
      />
      <Field
        label="Minutes a board"
        isNumber
        value={minutes}
        onChange={(e) => setMinutes(e.target.value)}
        error={wrongTime ? "That is no number of minutes." : undefined}
      />
      <Field
        label="To be mended in"
        placeholder="revision C"
        maxLength={120}
        value={planned}
        onChange={(e) => setPlanned(e.target.value)}
      />
      <div className="col-span-2 mt-1 flex gap-3 max-sm:col-span-1">
        <Button type="submit" look="main" disabled={title.trim() === "" || !spot || wrongTime}>
          Keep it
        </Button>
        <Button look="bare" onClick={onClose}>
          not now
        </Button>
      </div>
    </form>
  );
}
