import { useState } from "react";
import { Dialog } from "../../ui/Dialog.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { useRun } from "../runState.ts";
import { ErratumForm } from "./ErratumForm.tsx";
import { LessonForm } from "./LessonForm.tsx";
import type { WentWrong } from "./wentWrong.ts";

/**
 * Two presses from something that went wrong to what keeps it from happening again: a check that later boards are held
 * against, or a fault of this revision that the next one has to decide on.
 */
export function WriteDown({
  of,
  begin = "lesson",
  onClose,
}: {
  of: WentWrong;
  begin?: "lesson" | "erratum";
  onClose: () => void;
}) {
  const { doc } = useRun();
  const [kind, setKind] = useState(begin);
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="So that it costs once"
      about={of.words ? `${of.came ? `${of.came}: ` : ""}${of.words}` : of.came}
    >
      <div className="mb-3 flex flex-wrap gap-x-6">
        <Tab isOn={kind === "lesson"} onClick={() => setKind("lesson")}>
          hold later boards against it
        </Tab>
        <Tab isOn={kind === "erratum"} onClick={() => setKind("erratum")}>
          it is a fault of {doc.product} {doc.revision}
        </Tab>
      </div>
      {kind === "lesson" ? (
        <LessonForm of={of} onClose={onClose} />
      ) : (
        <ErratumForm of={of} onClose={onClose} />
      )}
    </Dialog>
  );
}
