interface Place {
  readonly start: number;
  readonly end: number;
}
/** Something in a source that can be changed: what is put in its place. */
export interface Change extends Place {
  readonly to: string;
  readonly kind: string;
  /** What is changed in a text, where the whole would tell nothing. */
  readonly words?: string;
}

export function functionsOf(
  source: string,
): readonly (Place & { readonly body: Place; readonly isBlock: boolean })[];
export function changesOf(source: string): readonly Change[];
