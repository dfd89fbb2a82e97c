import { type PanelOffers, sheetBoards } from "@kobbin/core";
import { useEffect, useRef, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { connectPanel, type PanelConnection } from "../../workers/panel.ts";
import type { SheetShown } from "../../workers/panel.worker.ts";

const keysOf = (doc: Parameters<typeof sheetBoards>[0]) => sheetBoards(doc).map((b) => b.key);

/** The run's sheet and what else it could be, worked out beside the page as the run changes. */
export function usePanel() {
  const { doc, isLocked } = useRun();
  const worker = useRef<PanelConnection>(undefined);
  const [shown, setShown] = useState<SheetShown>();
  const [offers, setOffers] = useState<{ readonly of: typeof doc; readonly offers: PanelOffers }>();
  // one worker for the page's life
  useEffect(() => {
    const w = connectPanel();
    worker.current = w;
    return () => {
      worker.current = undefined;
      w.close();
    };
  }, []);
  // the worker follows the document: the sheet at hand first, then what else there could be
  useEffect(() => {
    const w = worker.current;
    if (!w) return;
    let isCurrent = true;
    (async () => {
      const now = await w.shown(doc);
      if (!isCurrent) return;
      setShown(now);
      if (isLocked) return;
      const found = await w.offers(doc);
      if (isCurrent) setOffers({ of: doc, offers: found });
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, isLocked]);
  // sheets of other boards than there are now can be neither drawn nor taken
  const keys = keysOf(doc);
  const isOfThese = (of: readonly string[] | undefined) => of?.join() === keys.join();
  return {
    worker,
    keys,
    shown: isOfThese(shown?.boardKeys) ? shown : undefined,
    offers: offers && isOfThese(keysOf(offers.of)) ? offers.offers : undefined,
    isBehind: offers !== undefined && offers.of !== doc,
  };
}
