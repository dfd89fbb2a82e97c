import type { NewErratumBody, NewLessonBody } from "@kobbin/contract";
import type { Tx } from "./db/pool.ts";
import { insertErratum, insertLesson, updateDecision, updateLesson } from "./resources/learn/index.ts";

type Lesson = Omit<NewLessonBody, "productId" | "revisionId">;

const SLOT: Lesson = {
  title: "The tab of the lid goes into its slot",
  check: { kind: "slot", at: [6.5, 34], leastMm: 1.7 },
  level: "error",
  sure: "certain",
  came: "revision A, where tab and slot were both drawn at 1.6 mm",
  evidence: "Forty slots were opened with a file, an evening's work.",
  since: "2026-05-11",
};
const CONTACTS: Lesson = {
  title: "No mask is left between the contacts of a card",
  check: { kind: "contacts", what: "mask" },
  level: "warning",
  sure: "certain",
  came: "a card that shed green flakes into its socket",
  evidence: "",
  since: "2026-03-02",
};
const AMPLIFIERS: Lesson = {
  title: "Do not use TB-RX85-SO8",
  check: { kind: "part", mpn: "TB-RX85-SO8" },
  level: "warning",
  sure: "suspected",
  came: "two watches that read four degrees too low",
  evidence: "",
  since: "2026-06-15",
};
/** What is wrong with revision A, and mended in B. */
const PADS: Omit<NewErratumBody, "revisionId"> = {
  title: "D4 has no pads",
  effect: "The input is not protected against a probe that was plugged in live",
  harm: "worse",
  spot: { ref: "D4", side: "top", diameterMm: 0.4 },
  way: "part",
  workaround: "scrape the mask beside D5 and solder the diode there, its bar to the input",
  minutes: 6,
  planned: "revision B",
  evidence: "Seen when the first board was laid out for placing.",
  foundOn: "2026-05-11",
};

/** What the demo shop has learned from its first revision. */
export async function fillLessons(
  tx: Tx,
  watch: { readonly productId: string; readonly revisionId: string; readonly nextRevisionId: string },
): Promise<void> {
  const { productId, revisionId, nextRevisionId } = watch;
  await insertLesson(tx, { ...CONTACTS });
  const doubt = await insertLesson(tx, { ...AMPLIFIERS, revisionId });
  await updateLesson(tx, doubt, {
    clearedOn: "2026-08-20",
    clearedBy: "ten of them were read in ice water: all within half a degree",
  });
  await insertLesson(tx, { ...SLOT, productId, revisionId });
  const pads = await insertErratum(tx, productId, { ...PADS, revisionId });
  await updateDecision(tx, pads, {
    revisionId: nextRevisionId,
    is: "fixed",
    because: "drawn with pads now",
    on: "2026-05-18",
  });
}
