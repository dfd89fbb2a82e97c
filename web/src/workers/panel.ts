import * as Comlink from "comlink";
import type { PanelApi } from "./panel.worker.ts";

function start(name: string) {
  const worker = new Worker(new URL("./panel.worker.ts", import.meta.url), { type: "module", name });
  return { api: Comlink.wrap<PanelApi>(worker), close: () => worker.terminate() };
}

/**
 * Workers that work sheets out, and write them. What else there could be takes seconds: it has one of its own, so that what
 * is moved, asked for or written never waits for it. Closing stops what they are at.
 */
export function connectPanel() {
  const [hand, others] = [start("panel"), start("panel-offers")];
  const { api } = hand;
  return {
    shown: (...args: Parameters<PanelApi["shown"]>) => api.shown(...args),
    offers: (...args: Parameters<PanelApi["offers"]>) => others.api.offers(...args),
    wish: (...args: Parameters<PanelApi["wish"]>) => api.wish(...args),
    covering: (...args: Parameters<PanelApi["covering"]>) => others.api.covering(...args),
    moved: (...args: Parameters<PanelApi["moved"]>) => api.moved(...args),
    aid: (...args: Parameters<PanelApi["aid"]>) => api.aid(...args),
    write: (...args: Parameters<PanelApi["write"]>) => api.write(...args),
    close: () => {
      hand.close();
      others.close();
    },
  };
}

export type PanelConnection = ReturnType<typeof connectPanel>;
