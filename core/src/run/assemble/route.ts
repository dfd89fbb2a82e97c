import type { RunAssembly } from "../document/document.ts";

/** What is decided when a way is taken: null takes back what was said of single sides and lines. */
export type WayChange = { readonly [K in keyof RunAssembly]?: RunAssembly[K] | null };

/** One way of getting a run's boards soldered, whole. */
export interface Route {
  /**
   * iron, stencil (on a plate), stencil-oven, stencil-other, or house:<id>, with :all where it solders what goes through too;
   * where parts go several ways house:<id>:<side>:<the other side's way>, house:<id>:hard, or chosen.
   */
  readonly key: string;
  readonly label: string;
  readonly change: WayChange;
  readonly assembly: RunAssembly;
  readonly isOwn: boolean;
  /** Why it cannot be. */
  readonly cannot?: string;
}
