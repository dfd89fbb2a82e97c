interface Place {
  readonly start: number;
  readonly end: number;
}
type Node = Readonly<Record<string, unknown>> & { readonly type: string };

export function parsed(source: string): { readonly body: unknown; readonly at: (node: Node) => Place };
export function walk(value: unknown, visit: (node: Node) => boolean): void;
export function functionsOf(
  source: string,
): readonly (Place & { readonly body: Place; readonly isBlock: boolean })[];
export function watched(source: string, path: string): string;
