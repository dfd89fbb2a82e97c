import type { Shop } from "@kobbin/contract";
import { SHOP_FIELDS, type ShopField, type ShopFieldKey } from "@kobbin/core";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const FIELDS = Object.entries(SHOP_FIELDS) as readonly (readonly [ShopFieldKey, ShopField])[];
/** A shop as it is read: every setting under its own name. */
const SHOP = [
  "id",
  "currency",
  `is_demo as "isDemo"`,
  ...FIELDS.map(([key, f]) => `${f.column} as "${key}"`),
  "version",
].join(", ");
const READ = { number: Number, amount: trim } as const;
const toShop = (r: Readonly<Record<string, unknown>>): Shop =>
  ({
    ...r,
    ...Object.fromEntries(
      FIELDS.flatMap(([key, { reads }]) => (reads ? [[key, READ[reads](r[key] as string)]] : [])),
    ),
  }) as unknown as Shop;

/** Settings by the columns they stand in, numbers as the database has them. */
export const shopColumns = (settings: Partial<Record<ShopFieldKey, unknown>>): Record<string, unknown> =>
  Object.fromEntries(
    FIELDS.map(([key, f]) => {
      const value = settings[key];
      return [f.column, f.reads && value !== undefined ? Number(value) : value];
    }),
  );

export async function oneShop(tx: Tx): Promise<Shop> {
  const { rows } = await tx.query(`select ${SHOP} from workshop where id = current_workshop()`);
  return toShop(one(rows, "shop"));
}

export async function insertShop(
  tx: Tx,
  shop: {
    id: string;
    name: string;
    currency: string;
    hourlyRate: string;
    isDemo: boolean;
    taxRate: number;
    rates: Record<string, string>;
  },
): Promise<void> {
  await tx.query(
    "insert into workshop (id, name, currency, hourly_rate, tax_rate, rates, is_demo) values ($1, $2, $3, $4, $5, $6, $7)",
    [
      shop.id,
      shop.name,
      shop.currency,
      shop.hourlyRate,
      shop.taxRate,
      JSON.stringify(shop.rates),
      shop.isDemo,
    ],
  );
}

/** Works for a shop from here on, and records nothing: it begins with what it begins with. */
export async function enterNewShop(tx: Tx, id: string): Promise<void> {
  await tx.query("select set_config('app.workshop', $1, true), set_config('app.change', 'off', true)", [id]);
}
