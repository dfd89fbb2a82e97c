import { type Channel, type ChannelPrice, type Pricing, priceDocument } from "@kobbin/core";
import { typedAmount, typedNumber } from "../../../ui/text/format.ts";

export type Selling = Omit<Pricing, "unitCost">;
export const FIRST: Selling = { packing: "0", warranty: "0", shipping: "0", grid: ["0.90"], channels: [] };

/** What a share is typed as, in per cent; nothing where nothing is typed, a text of what is wrong otherwise. */
export function typedShare(text: string, most = 100): number | undefined | string {
  const t = text.trim().replace(/\s*%$/, "");
  if (t === "") return undefined;
  const n = Number(typedNumber(t));
  if (!Number.isFinite(n) || n < 0 || n > most) return `“${text}” is no share: write per cent, 0 to ${most}.`;
  return Math.round(n * 1e6) / 1e8;
}

/** An amount as typed; nothing where nothing is typed, a text of what is wrong otherwise under `wrong`. */
export function typedSum(text: string): { readonly value?: string; readonly wrong?: string } {
  if (text.trim() === "") return {};
  const value = typedAmount(text);
  return value === undefined ? { wrong: `“${text}” is no amount: write it as 12.50.` } : { value };
}

/** Endings of a price as typed: "0.90 0.50". */
export function typedGrid(text: string): readonly string[] | string {
  const parts = text.split(/[\s;]+/).filter((p) => p !== "");
  const ends = parts.map((p) => typedNumber(p));
  const odd = ends.findIndex((e) => !/^0?(\.\d{1,4})?$/.test(e) || e === "" || e === ".");
  return odd < 0
    ? ends.map((e) => (e.startsWith(".") ? `0${e}` : e))
    : `“${parts[odd]}” is no ending below 1, as 0.90.`;
}

/** A channel with one of its facts said anew; nothing takes it back. */
export function withFact(c: Channel, key: keyof Channel, value: unknown): Channel {
  const { [key]: _, ...rest } = c;
  return (value === undefined ? rest : { ...rest, [key]: value }) as Channel;
}

/** What is priced: each channel with what its shown price goes into, in the currency's own units. */
export interface Shown {
  readonly price: ChannelPrice;
  /** Of the price point: tax and a reseller's part, fees, what one costs, what stays; they add up to it. */
  readonly parts?: {
    readonly tax: number;
    readonly fees: number;
    readonly cost: number;
    readonly stays: number;
  };
}

/** Prices of every channel. @param unitCost of one good product, as decimal text */
export function pricesOf(
  selling: Selling,
  unitCost: string,
): { readonly shown: readonly Shown[]; readonly all: ReturnType<typeof priceDocument> } | undefined {
  if (selling.channels.length === 0) return undefined;
  const all = priceDocument({ ...selling, unitCost });
  return {
    all,
    shown: all.channels.map((price): Shown => {
      const { atPoint: at, pricePoint } = price;
      if (!at || pricePoint === undefined) return { price };
      const [net, fees, stays] = [at.net, at.fees, at.contribution].map(Number) as [number, number, number];
      return { price, parts: { tax: Number(pricePoint) - net, fees, cost: net - fees - stays, stays } };
    }),
  };
}
