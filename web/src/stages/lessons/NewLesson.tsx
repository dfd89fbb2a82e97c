import type { LearnedAnswer } from "@kobbin/contract";
import { lessonWords } from "@kobbin/core";
import { useState } from "react";
import { useDone } from "../../history/useDone.ts";
import { useEquipment } from "../../resources/equipment.ts";
import { addLesson, useHouseNames } from "../../resources/learned.ts";
import { useLots } from "../../resources/library.ts";
import { CheckDrawing } from "../../run/learn/CheckDrawing.tsx";
import { LEVEL_WORDS } from "../../run/learn/LessonForm.tsx";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { todayIso } from "../../ui/text/dates.ts";
import { day, said } from "../../ui/text/format.ts";
import { Looked } from "./Looked.tsx";
import { checkOf, KINDS, type Kind, type Named, NEW_DRAFT } from "./lessonDraft.ts";

/** A lesson that comes from no run: what is looked at is said by hand. */
export function NewLesson({
  products,
  onClose,
}: {
  products: LearnedAnswer["products"];
  onClose: () => void;
}) {
  const done = useDone();
  const [draft, setDraft] = useState(NEW_DRAFT);
  const named = useNamed(draft.kind);
  const [title, setTitle] = useState("");
  const [came, setCame] = useState("");
  const [level, setLevel] = useState<"error" | "warning">("warning");
  const [only, setOnly] = useState("");
  const check = checkOf(draft, named);
  const words =
    title.trim() ||
    (check && check.kind !== "asked" ? said(lessonWords(check)).replace(/^./, (c) => c.toUpperCase()) : "");
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="A lesson"
      about="Every later board, bill and choice of the shop is held against it."
    >
      <form
        className="grid grid-cols-2 gap-x-5 gap-y-2 max-sm:grid-cols-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (!check || words === "") return;
          const body = {
            title: words,
            check,
            level,
            came: came.trim(),
            since: todayIso(),
            ...(only ? { productId: only } : {}),
          };
          done(addLesson(body), `Learned: ${words}`);
          onClose();
        }}
      >
        <Pick
          label="It is about"
          value={draft.kind}
          options={Object.entries(KINDS)}
          onChange={(v) => setDraft({ ...draft, kind: v as Kind, which: "" })}
        />
        <Looked
          draft={draft}
          named={named}
          hasWrongSize={draft.limit !== "" && !check}
          onChange={(d) => setDraft({ ...draft, ...d })}
        />
        <Field
          label="In a sentence"
          className="col-span-2 max-sm:col-span-1"
          maxLength={200}
          placeholder={words}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <Field
          label="Where it came from"
          maxLength={300}
          value={came}
          onChange={(e) => setCame(e.target.value)}
        />
        <Pick
          label="Where it does not hold"
          value={level}
          options={Object.entries(LEVEL_WORDS)}
          onChange={(v) => setLevel(v as "error")}
        />
        <Pick
          label="Counts for"
          value={only}
          options={[["", "every design"], ...products.map((p) => [p.id, `${p.name} alone`] as const)]}
          onChange={setOnly}
        />
        <div className="col-span-2 mt-1 flex items-center gap-3 max-sm:col-span-1">
          <Button type="submit" look="main" disabled={!check || words === ""}>
            Keep it
          </Button>
          <Button look="bare" onClick={onClose}>
            not now
          </Button>
          {check && <CheckDrawing check={check} />}
        </div>
      </form>
    </Dialog>
  );
}

const NONE: readonly Named[] = [];

/** What may be doubted of a kind, by name. */
function useNamed(kind: Kind): readonly Named[] {
  const lots = useLots().data;
  const houses = useHouseNames().data;
  const machines = useEquipment().data;
  if (kind === "house") return houses ?? NONE;
  if (kind === "machine") return machines?.equipment ?? NONE;
  return kind === "lot"
    ? (lots ?? []).map((l) => ({
        id: l.id,
        name: `${l.mpn}, ${l.place || "no place"}, ${day(l.receivedOn)}, ${l.qty} left`,
      }))
    : NONE;
}
