import * as Comlink from "comlink";
import type { PanelApi } from "./panel.worker.ts";

/** A worker that works sheets out, and writes them. Closing it stops what it is at. */
export function connectPanel() {
  const worker = new Worker(new URL("./panel.worker.ts", import.meta.url), { type: "module", name: "panel" });
  const api = Comlink.wrap<PanelApi>(worker);
  return {
    shown: (...args: Parameters<PanelApi["shown"]>) => api.shown(...args),
    offers: (...args: Parameters<PanelApi["offers"]>) => api.offers(...args),
    wish: (...args: Parameters<PanelApi["wish"]>) => api.wish(...args),
    covering: (...args: Parameters<PanelApi["covering"]>) => api.covering(...args),
    moved: (...args: Parameters<PanelApi["moved"]>) => api.moved(...args),
    aid: (...args: Parameters<PanelApi["aid"]>) => api.aid(...args),
    write: (...args: Parameters<PanelApi["write"]>) => api.write(...args),
    close: () => worker.terminate(),
  };
}

export type PanelConnection = ReturnType<typeof connectPanel>;
