import type { LotMeasured, MeasurePoint } from "@kobbin/core";

/** One question of the sheet: a size to read, or something to look at. */
export type Ask =
  | { readonly kind: "size"; readonly key: string; readonly point: MeasurePoint }
  | { readonly kind: "look"; readonly key: string; readonly words: string };

/** Questions of a lot in their order: sizes first, then what is looked at. */
export const asksOf = (lot: Pick<LotMeasured, "points" | "looks">): Ask[] => [
  ...lot.points.map((point): Ask => ({ kind: "size", key: point.key, point })),
  ...lot.looks.map((l): Ask => ({ kind: "look", key: l.key, words: l.words })),
];

/** What was answered of one board so far. */
export interface Draft {
  readonly label: string;
  readonly at: number;
  readonly readings: Readonly<Record<string, readonly number[]>>;
  readonly looks: Readonly<Record<string, boolean>>;
}

/** The next board that is measured: the least number no board has yet. */
export function nextLabel(labels: readonly string[]): string {
  const taken = new Set(labels);
  let n = 1;
  while (taken.has(String(n))) n++;
  return String(n);
}

export const emptyDraft = (label: string): Draft => ({ label, at: 0, readings: {}, looks: {} });

/** An answer laid over what was answered; nothing takes it back. It goes on to the next question. */
export function answered(d: Draft, ask: Ask, value: readonly number[] | boolean | undefined): Draft {
  const part = ask.kind === "size" ? "readings" : "looks";
  const { [ask.key]: _, ...rest } = d[part] as Record<string, unknown>;
  return {
    ...d,
    at: d.at + 1,
    [part]: value === undefined ? rest : { ...rest, [ask.key]: value },
  };
}

/** How many questions have an answer. */
export const answersOf = (d: Draft): number => Object.keys(d.readings).length + Object.keys(d.looks).length;

/** A draft as it was kept on the device; a new one where that is none, or of other questions. */
export function draftFrom(text: string | null, label: string, asks: readonly Ask[]): Draft {
  try {
    const d = JSON.parse(text ?? "") as Draft;
    const keys = new Set(asks.map((a) => a.key));
    const isOurs = [...Object.keys(d.readings), ...Object.keys(d.looks)].every((k) => keys.has(k));
    const isWhole = typeof d.label === "string" && Number.isInteger(d.at) && d.at >= 0 && d.at <= asks.length;
    return isOurs && isWhole ? d : emptyDraft(label);
  } catch {
    return emptyDraft(label);
  }
}
