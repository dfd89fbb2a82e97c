import { fitOptions } from "../../fab/fit-options.ts";
import type { House } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import type { BoardFacts } from "../../fab/price.ts";
import type { QuoteBasis, RunDocument } from "../document/document.ts";
import { ordersOf, sheetWords } from "../orders/order-boards.ts";
import { panelOf, sheetFacts } from "../sheet/panel.ts";
import { withHouse } from "./fab-effects.ts";

/** One board of a request for a price. */
export interface RequestedBoard extends BoardFacts {
  readonly name: string;
  readonly pieces: number;
  /** Smallest text and narrowest mask web, mm: what houses ask back about. */
  readonly legendTextMm?: number;
  readonly maskWebMm?: number;
}

/** What a house is asked: boards, options in its own values, and for what the answer will hold. */
export interface FabRequest {
  readonly boards: readonly RequestedBoard[];
  readonly options: FabOptions;
  readonly basis: QuoteBasis;
}

/**
 * The question to a house for a run as it stands: in its own steps and values, so that its answer holds for just that.
 *
 * @param start boards that are started
 */
export function fabRequest(doc: RunDocument, house: House, start: number): FabRequest {
  // what could not stand together there is asked as it would be chosen; the chosen house is asked for what is chosen
  const options =
    doc.house?.id === house.id
      ? fitOptions(house, doc.options)
      : fitOptions(house, withHouse(doc, house).doc.options);
  // its earlier answer is not minded: the pieces are those of the estimate
  const { own: orders, guests } = ordersOf({ ...doc, quotes: [] }, house, options, start);
  const panel = panelOf({ ...doc, house });
  return {
    boards: orders.flatMap((o, i): RequestedBoard[] => {
      const m = doc.boards[i]!.measure;
      // boards of one sheet are asked for once, as sheets
      const isFirst = orders.findIndex((x) => x.sheet) === i;
      if (o.sheet && !isFirst) return [];
      const what =
        o.sheet && panel
          ? { ...sheetFacts(doc, panel), name: `sheet of ${o.name}`, pieces: o.sheet.sheets }
          : { ...o.facts, name: o.name, pieces: o.quote.pieces };
      return [
        {
          ...what,
          ...(m.minLegendTextMm === undefined ? {} : { legendTextMm: m.minLegendTextMm }),
          ...(m.minMaskWebMm === undefined ? {} : { maskWebMm: m.minMaskWebMm }),
        },
      ];
    }),
    options,
    basis: {
      boards: [...orders, ...guests].reduce((n, o) => n + o.quote.pieces, 0),
      options,
      revision: doc.revision,
      ...(panel ? { sheet: sheetWords(panel) } : {}),
    },
  };
}
