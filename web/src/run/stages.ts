import type { RunDocument, RunRecord, RunResult } from "@kobbin/core";
import type { ComponentType } from "react";
import type { MarkKind } from "../ui/Mark.tsx";

/** How a stage stands, with how many notes make it so. */
export interface StageState {
  readonly kind: MarkKind;
  readonly count?: number;
}

/**
 * A stage of the spine, as its folder describes it: row, route, number key, place in the find-or-do box and what it says of
 * itself all come from here. A new one is a folder with such a description and a line in `stages/index.ts`.
 */
export interface WebStage {
  /** The end of its address, and the key of its notes. */
  readonly key: string;
  readonly label: string;
  /** One line of what it holds. */
  readonly says: (doc: RunDocument, r: RunResult, isReleased: boolean, record: RunRecord) => string;
  /** How it stands, where that is not told by its own notes. */
  readonly state?: (doc: RunDocument, r: RunResult, isReleased: boolean, record: RunRecord) => StageState;
  /** It is worked on after the release: it is not frozen by it. */
  readonly goesOn?: true;
  readonly load: () => Promise<{ Component: ComponentType }>;
}

let registered: readonly WebStage[] = [];

/** Makes the stages known to spine, margin, keys and routes: called once, by the list of stages. */
export const registerStages = (list: readonly WebStage[]): void => {
  registered = list;
};

/** The stages in working order. */
export const stages = (): readonly WebStage[] => registered;

/** State of a stage: blocked, to look at, ready, released; with how many notes make it so. */
export function stateOf(
  stage: WebStage,
  doc: RunDocument,
  r: RunResult,
  isReleased: boolean,
  record: RunRecord,
): StageState {
  if (isReleased && !stage.goesOn) return { kind: "frozen" };
  if (stage.state) return stage.state(doc, r, isReleased, record);
  return stateOfNotes(r.notes.filter((n) => n.stage === stage.key));
}

/** State that some notes make: a blocker before a caution. */
export function stateOfNotes(notes: RunResult["notes"]): StageState {
  const open = notes.filter((n) => !n.acceptedBecause);
  const errors = open.filter((n) => n.level === "error").length;
  if (errors > 0) return { kind: "blocked", count: errors };
  const looks = open.filter((n) => n.level === "warning").length;
  return looks > 0 ? { kind: "look", count: looks } : { kind: "ready" };
}
